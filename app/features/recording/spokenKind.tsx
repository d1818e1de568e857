import type { Recording, RecordingChange } from '@immeld/core/contract/recordings';
import { SPOKEN_KINDS, SPOKEN_KIND_NAMES, type SpokenKind, type Voice } from '@immeld/core/contract/spokenKinds';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { Choice } from '../../ui/choice';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

const HINTS: Record<SpokenKind, string> = {
  memo: 'Your own thoughts and to-dos',
  message: 'Spoken to one person',
  dialogue: 'Several people; who takes a task, has it',
  lecture: 'Explanations are nobody’s to-dos',
  letter: 'What it asks for is for its reader to do',
};

type SpokenKindProps = { recording: Recording; onSet: (change: RecordingChange) => void };

/** What the recording is, as it was found or as the person says, and whose its voice is: its to-dos are found by it. */
export function SpokenKindField({ recording, onSet }: SpokenKindProps) {
  const show = useUndoBar();
  const { kind, passages, speakers } = recording;
  if (passages.length === 0) return null;
  const choose = (to: SpokenKind) => {
    if (to === kind) return;
    onSet({ kind: to });
    show(`${SPOKEN_KIND_NAMES[to]}. Its to-dos were found again.`, () => onSet({ kind }));
  };
  return (
    <View>
      <Title level={2}>Kind of recording</Title>
      <View role="radiogroup" aria-label="Kind of recording">
        {SPOKEN_KINDS.map((k) => (
          <Choice key={k} label={SPOKEN_KIND_NAMES[k]} hint={HINTS[k]} isOn={k === kind} onPress={() => choose(k)} />
        ))}
      </View>
      {speakers.length === 0 && <VoiceField recording={recording} onSet={onSet} />}
    </View>
  );
}

function VoiceField({ recording: { voice, source }, onSet }: SpokenKindProps) {
  const show = useUndoBar();
  const own = voice ?? (source === 'import' ? null : 'own');
  const choose = (to: Voice) => {
    if (to === own) return;
    onSet({ voice: to });
    show('Its to-dos were found again.', () => onSet({ voice }));
  };
  return (
    <View role="radiogroup" aria-label="Whose voice it is">
      <Choice label="I am speaking" isOn={own === 'own'} onPress={() => choose('own')} />
      <Choice
        label="Somebody else is speaking to me"
        hint="What they ask for is yours to do; what they promise is theirs"
        isOn={own === 'other'}
        onPress={() => choose('other')}
      />
    </View>
  );
}

/** Asked once, where it matters: sound that was imported, with one voice, in which something is to be done. */
export function VoiceQuestion({ recording }: { recording: Recording }) {
  const { recording: change } = useChanges();
  const { id, source, voice, speakers, todos } = recording;
  const isAsked = source === 'import' && voice === null && speakers.length === 0;
  if (!isAsked || !todos.some((t) => t.state === 'pencil')) return null;
  const answer = (to: Voice) => change.mutate({ id, change: { voice: to } });
  return (
    <PencilBox style={{ marginTop: 8, marginBottom: 10 }}>
      <Type isBold>Is this you speaking?</Type>
      <Type size="small" tone="faint">
        It decides whose the to-dos are.
      </Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Yes, it is me" isBold onPress={() => answer('own')} />
        <WordButton label="Somebody else" onPress={() => answer('other')} />
      </View>
    </PencilBox>
  );
}
