import type { Recording } from '@immeld/core/contract/recordings';
import type { Version } from '@immeld/core/contract/corrections';
import { changesBetween, shortened } from '@immeld/core/transcript/changes';
import { clockTime } from '@immeld/core/formats/times';
import { type AlignedTime, alignByTime } from '@immeld/core/transcript/alignPassages';
import { type Passage, passageText } from '@immeld/core/transcript/manuscript';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useVersion, useVersions } from '../../api/queries';
import { localTime, whenSaid } from '../../ui/dates';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { useCorrecting, useDesk } from './correcting';

const NAMES: Record<Version['kind'], string> = {
  recognised: 'First transcription',
  again: 'New transcription',
  corrected: 'Corrected text',
  device: 'From the device, while recording',
  spoken: 'Before spoken commands were carried out',
};

/** The texts that stood here before: to compare with, and to take back. */
export function Versions({ recording: { id } }: { recording: Recording }) {
  const { data, error } = useVersions(id);
  const [compared, setCompared] = useState<string | null>(null);
  const { restoreVersion } = useChanges();
  const show = useUndoBar();
  if (error) return <Failure error={error} />;
  if (!data?.items.length) return null;
  return (
    <View>
      <Title level={2}>Versions of the text</Title>
      {restoreVersion.error && <Failure error={restoreVersion.error} />}
      {data.items.map((version) => (
        <View key={version.id} style={{ paddingTop: 6 }}>
          <Type>
            {NAMES[version.kind as Version['kind']]}, {whenSaid(localTime(new Date(version.keptAt)))}
          </Type>
          <Type size="tiny" tone="faint">
            {version.words} {version.words === 1 ? 'word' : 'words'}
          </Type>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton
              label={compared === version.id ? 'Close comparison' : 'Compare'}
              aria-expanded={compared === version.id}
              onPress={() => setCompared(compared === version.id ? null : version.id)}
            />
            <WordButton
              label="Restore this version"
              onPress={() =>
                restoreVersion.mutate(
                  { id, versionId: version.id },
                  { onSuccess: () => show('Version restored. The text it replaced is saved as a version.') },
                )
              }
            />
          </View>
          {compared === version.id && <Comparison id={id} versionId={version.id} />}
        </View>
      ))}
    </View>
  );
}

function Comparison({ id, versionId }: { id: string; versionId: string }) {
  const colours = useColours();
  const { data, error } = useVersion(id, versionId);
  const { desk } = useCorrecting();
  const { passages } = useDesk(desk);
  const [isSingly, setSingly] = useState(false);
  const changes = useMemo(
    () => data && shortened(changesBetween(data.passages.map(passageText), passages.map(passageText))),
    [data, passages],
  );
  if (error) return <Failure error={error} />;
  if (!changes) return <Type tone="faint">Loading…</Type>;
  if (changes.every((c) => c.kind === 'same')) return <Type tone="faint">No differences.</Type>;
  if (isSingly && data) return <Singly others={data.passages} onDone={() => setSingly(false)} />;
  return (
    <View>
      <WordButton label="Compare side by side" onPress={() => setSingly(true)} />
      <Type face="text" style={{ paddingVertical: 6 }}>
        {changes.map(({ kind, text }, i) =>
          kind === 'same' ? (
            `${text} `
          ) : (
            <Type key={i} face="text" tone={kind === 'gone' ? 'rowan' : 'lichen'}>
              <span
                style={{
                  textDecoration: kind === 'gone' ? 'line-through' : 'underline',
                  textDecorationColor: colours.faint,
                }}
              >
                {kind === 'gone' ? <del>{text}</del> : <ins>{text}</ins>}
              </span>{' '}
            </Type>
          ),
        )}
      </Type>
    </View>
  );
}

/** Where the two texts differ, what stands there now and what stood there; taken over one by one. */
function Singly({ others, onDone }: { others: readonly Passage[]; onDone: () => void }) {
  const colours = useColours();
  const { desk } = useCorrecting();
  const { passages } = useDesk(desk);
  const show = useUndoBar();
  const groups = useMemo(
    () =>
      alignByTime(passages, others)
        .map((g) => ({ ...g, now: textOf(passages.slice(g.from, g.to)), then: textOf(g.others) }))
        .filter((g) => g.now !== g.then),
    [passages, others],
  );
  const take = ({ from, to, others: theirs }: AlignedTime<Passage>) => {
    desk.change(from, to - from, theirs);
    show('Passage replaced.', () => desk.undo());
  };
  return (
    <View style={{ gap: 10, paddingVertical: 6 }}>
      <WordButton label="Compare in one text" onPress={onDone} />
      {groups.length === 0 && <Type tone="faint">No differences left.</Type>}
      {groups.map((group) => (
        <View
          key={`${group.from} ${group.then}`}
          role="article"
          aria-label={`At ${clockTime(passages[group.from]!.startMs)}`}
          style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: 8 }}
        >
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14 }}>
            {[
              ['Current text', group.now],
              ['This version', group.then],
            ].map(([label, text]) => (
              <View key={label} style={{ flexGrow: 1, flexBasis: 140 }}>
                <Type size="tiny" tone="faint">
                  {label}, {clockTime(passages[group.from]!.startMs)}
                </Type>
                <Type face="text">{text}</Type>
              </View>
            ))}
          </View>
          <WordButton label="Use this passage" onPress={() => take(group)} />
        </View>
      ))}
    </View>
  );
}

const textOf = (passages: readonly Passage[]): string => passages.map(passageText).join(' ');
