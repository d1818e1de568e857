import { createContext, useContext, useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Recording } from '@immeld/core/contract/recordings';
import type { Speaker, SpeakerChange } from '@immeld/core/contract/speakers';
import { isNumbered } from '@immeld/core/speech/speakers/diarizer';
import { useChanges } from '../../api/changes';
import { Choice } from '../../ui/choice';
import { lengthName } from '../../ui/dates';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { SpeakerMark } from '../../ui/speakerMark';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { useClosable } from '../../ui/useClosable';

type Speaking = {
  speakers: readonly Speaker[];
  /** People who may be the ones that speak. */
  people: readonly string[];
  give: (change: SpeakerChange) => void;
  error: unknown;
};

export const SpeakersContext = createContext<Speaking>({
  ...{ speakers: [], people: [], error: null, give: () => undefined },
});
export const useSpeakers = (): Speaking => useContext(SpeakersContext);

export function useSpeakersOf(recording: Recording): Speaking {
  const { speaker } = useChanges();
  const show = useUndoBar();
  const { id, speakers, appointment } = recording;
  const { mutate, error } = speaker;
  return useMemo(() => {
    const give = (change: SpeakerChange) =>
      mutate(
        { id, change },
        {
          onSuccess: ({ changed }) => {
            const back = change.from ?? null;
            const undo = () => mutate({ id, change: { passageIds: changed, to: back } });
            show(`${change.from ?? 'Passage'} is now ${change.to ?? 'unassigned'}.`, change.from ? undo : undefined);
          },
        },
      );
    const people = (appointment?.people ?? []).filter((p) => !speakers.some((s) => s.name === p));
    return { speakers, people, give, error };
  }, [id, speakers, appointment, mutate, error, show]);
}

/** Who speaks in a recording: pattern, name and time of each; a press names one, everywhere at once. */
export function SpeakersBar() {
  const colours = useColours();
  const { speakers, give, error } = useSpeakers();
  const [opened, setOpened] = useClosable<string | null>(null);
  if (speakers.length === 0) return null;
  const total = speakers.reduce((sum, s) => sum + s.speakingMs, 0) || 1;
  const current = speakers.find((s) => s.name === opened);
  return (
    <View style={{ paddingBottom: 8 }}>
      {error ? <Failure error={error} /> : null}
      <View role="list" aria-label="Speakers" style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 18 }}>
        {speakers.map(({ name, speakingMs, proposed }, i) => (
          <View key={name} role="listitem" style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
            <Press
              label={`${name}, ${lengthName(speakingMs)}. Name this speaker`}
              aria-expanded={opened === name}
              onPress={() => setOpened(opened === name ? null : name)}
              style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}
            >
              <SpeakerMark index={i} />
              <Type size="small" isBold={opened === name}>
                {name}
              </Type>
              <Type size="tiny" tone="faint">
                {Math.round((speakingMs / total) * 100)}%
              </Type>
            </Press>
            {proposed && (
              <Press
                label={`Accept: ${name} is ${proposed}`}
                onPress={() => give({ from: name, to: proposed })}
                style={{ minHeight: 48, justifyContent: 'center' }}
              >
                <View
                  style={{
                    borderWidth: 1,
                    borderStyle: 'dashed',
                    borderColor: colours.faint,
                    borderRadius: 4,
                    paddingHorizontal: 8,
                    paddingVertical: 3,
                  }}
                >
                  <Type size="small">{proposed}?</Type>
                </View>
              </Press>
            )}
          </View>
        ))}
      </View>
      {current && <WhoPanel speaker={current.name} passageIds={null} onClose={() => setOpened(null)} />}
    </View>
  );
}

type PanelProps = {
  /** What is done with the name instead of giving passages: for words that are selected. */
  onName?: (name: string) => void;
  speaker: string | null;
  /** The passages in question, or null for all of this speaker. */
  passageIds: readonly number[] | null;
  onClose: () => void;
};

/** Says who it is: somebody who speaks here already, somebody of the appointment, or a name that is typed. */
export function WhoPanel({ speaker, passageIds, onClose, onName }: PanelProps) {
  const colours = useColours();
  const { speakers, people, give } = useSpeakers();
  const [name, setName] = useState('');
  const [isAll, setAll] = useState(passageIds === null || (speaker !== null && isNumbered(speaker)));
  const choose = (to: string) => {
    if (onName) onName(to);
    else give(isAll && speaker !== null ? { from: speaker, to } : { passageIds: [...(passageIds ?? [])], to });
    onClose();
  };
  const here = speakers.filter((s) => s.name !== speaker).map((s) => s.name);
  const index = (who: string) => speakers.findIndex((s) => s.name === who);
  return (
    <View
      role="group"
      aria-label={`Who is ${speaker ?? 'this'}?`}
      style={{
        ...{ borderWidth: 1, borderColor: colours.rule, borderRadius: 4, backgroundColor: colours.sheet },
        ...{ padding: 12, gap: 6, marginBottom: 8 },
      }}
    >
      {passageIds !== null && speaker !== null && (
        <View role="radiogroup" aria-label="Apply to">
          <Choice label={`All passages by ${speaker}`} isOn={isAll} onPress={() => setAll(true)} />
          <Choice label="Only this paragraph" isOn={!isAll} onPress={() => setAll(false)} />
        </View>
      )}
      <LineEntry
        label={isAll ? `Name of ${speaker}` : 'Name'}
        action="Save"
        value={name}
        onChange={setName}
        onSubmit={() => choose(name.trim())}
        maxLength={60}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 16 }}>
        {[...people, ...here].map((who) => (
          <Press
            key={who}
            label={index(who) < 0 ? `This is ${who}` : isAll ? `Same person as ${who}` : `Assign to ${who}`}
            onPress={() => choose(who)}
            style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}
          >
            {index(who) >= 0 && <SpeakerMark index={index(who)} />}
            <Type size="small" style={{ textDecorationLine: 'underline' }}>
              {index(who) < 0 ? who : isAll ? `same as ${who}` : who}
            </Type>
          </Press>
        ))}
      </View>
      <WordButton label="Close" onPress={onClose} />
    </View>
  );
}
