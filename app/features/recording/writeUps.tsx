import type { Recording, WriteUp } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { Empty, Failure } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { Sheets } from '../writeUps/sheets';
import type { SoundPlayer } from './soundPlayer';
import { Field } from '../../ui/field';

const LENGTHS = [1, 2, 3, 5, 8];

/** The write-ups of a recording: a short summary that is always proposed, and what is made by templates. */
export function WriteUps({ recording, player }: { recording: Recording; player: SoundPlayer }) {
  const shown = recording.writeUps.filter((w) => w.state !== 'dropped');
  const dropped = recording.writeUps.filter((w) => w.state === 'dropped');
  const { writeUp } = useChanges();
  return (
    <View style={{ gap: 12, paddingTop: 12 }}>
      {writeUp.error && <Failure error={writeUp.error} />}
      {shown.map((w) => (
        <ShortSummary key={w.id} writeUp={w} player={player} />
      ))}
      <Sheets recording={recording} onPlay={(ms) => player.seek(ms, true)} />
      {shown.length === 0 && (
        <Empty
          title="No summary yet"
          action={
            dropped[0] && (
              <WordButton
                label="Restore the summary"
                onPress={() => writeUp.mutate({ id: dropped[0]!.id, change: { state: 'pencil' } })}
              />
            )
          }
        >
          {recording.state === 'ready'
            ? 'The recording is too short for a summary, or you dropped it.'
            : 'A short summary appears here once the recording is transcribed.'}
        </Empty>
      )}
    </View>
  );
}

function ShortSummary({ writeUp, player }: { writeUp: WriteUp; player: SoundPlayer }) {
  const { writeUp: change } = useChanges();
  const show = useUndoBar();
  const [draft, setDraft] = useState<string | null>(null);
  const text = writeUp.editedText ?? writeUp.sentences.map((s) => s.text).join(' ');
  const set = (part: Parameters<typeof change.mutate>[0]['change'], done: string) => {
    change.mutate({ id: writeUp.id, change: part });
    show(done, () =>
      change.mutate({ id: writeUp.id, change: { state: writeUp.state, editedText: writeUp.editedText } }),
    );
  };
  const isPencil = writeUp.state === 'pencil';
  return (
    <PencilBox isInk={!isPencil}>
      <Title level={2}>Summary</Title>
      {draft !== null ? (
        <Field
          multiline
          label="Summary"
          value={draft}
          onChangeText={setDraft}
          maxLength={20_000}
          style={{ marginTop: 8, minHeight: 160 }}
          autoFocus
        />
      ) : writeUp.editedText !== null ? (
        <Type size="body" face="text" style={{ paddingVertical: 6 }}>
          {text}
        </Type>
      ) : (
        writeUp.sentences.map((sentence, i) => (
          <Press
            key={i}
            label={`${sentence.text} Play ${clockTime(sentence.startMs ?? 0)}`}
            onPress={() => sentence.startMs !== null && player.seek(sentence.startMs, true)}
            style={{ paddingVertical: 5 }}
          >
            <Type size="body" face="text">
              {sentence.text}{' '}
              <Type size="tiny" tone="petrol">
                {clockTime(sentence.startMs ?? 0)}
              </Type>
            </Type>
          </Press>
        ))
      )}
      {draft === null && writeUp.editedText === null && (
        <View
          style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap' }}
          role="radiogroup"
          aria-label="Length of the summary"
        >
          <Type size="tiny" tone="faint" style={{ marginRight: 8 }}>
            At most
          </Type>
          {LENGTHS.map((n) => (
            <Press
              key={n}
              role="radio"
              aria-checked={n === writeUp.sentencesAsked}
              label={`${n} ${n === 1 ? 'sentence' : 'sentences'}`}
              onPress={() => change.mutate({ id: writeUp.id, change: { sentencesAsked: n } })}
              style={{ alignItems: 'center' }}
            >
              <Type
                isBold={n === writeUp.sentencesAsked}
                tone={n === writeUp.sentencesAsked ? 'ink' : 'faint'}
                style={n === writeUp.sentencesAsked ? { textDecorationLine: 'underline' } : null}
              >
                {n}
              </Type>
            </Press>
          ))}
          <Type size="tiny" tone="faint">
            {writeUp.sentencesAsked === 1 ? 'sentence' : 'sentences'}
          </Type>
        </View>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {draft !== null ? (
          <>
            <WordButton
              label="Save"
              isBold
              onPress={() => {
                set({ editedText: draft, state: 'ink' }, 'Summary saved.');
                setDraft(null);
              }}
            />
            <WordButton label="Cancel" onPress={() => setDraft(null)} />
          </>
        ) : (
          <>
            {isPencil && (
              <WordButton label="Accept" isBold onPress={() => set({ state: 'ink' }, 'Summary accepted.')} />
            )}
            <WordButton label="Edit" onPress={() => setDraft(text)} />
            {writeUp.editedText !== null && (
              <WordButton
                label="Use the suggestion"
                onPress={() => set({ editedText: null }, 'Suggestion restored.')}
              />
            )}
            <WordButton label="Drop" onPress={() => set({ state: 'dropped' }, 'Summary dropped.')} />
          </>
        )}
      </View>
    </PencilBox>
  );
}
