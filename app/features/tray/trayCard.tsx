import type { RecordingCard, Suggestion } from '@immeld/core/contract/recordings';
import { useRouter } from 'expo-router';
import { memo, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { useJobOf, useShelves } from '../../api/queries';
import { dueName } from '../../ui/dates';
import { PencilBox, Tick } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { Strip } from '../../ui/strip';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { FolderChips } from '../shelves/folderChips';
import { JobProgress } from './jobProgress';
import { metaOf, titleOf } from './recordingRow';
import { type FilingActions, leftOutOf, partKey } from './useFiling';

const SOURCES = { speak: 'recorded here', import: 'imported', demo: 'from the demo' };

type TrayCardProps = {
  recording: RecordingCard;
  /** Whether the keys act on this card. */
  isCurrent?: boolean;
  /** Null while nothing is being chosen. */
  isChosen?: boolean | null;
  onChoose?: (id: string) => void;
  fileOne: FilingActions['fileOne'];
  bin: FilingActions['bin'];
  anotherTitle: FilingActions['anotherTitle'];
  isBusy: boolean;
};

/** A new recording with everything proposed for it: accepted whole with one press, or part by part. */
export const TrayCard = memo(function TrayCard({
  recording,
  isCurrent = false,
  isChosen = null,
  onChoose,
  fileOne,
  bin,
  anotherTitle,
  isBusy,
}: TrayCardProps) {
  const colours = useColours();
  const router = useRouter();
  const job = useJobOf(recording.id);
  const [toggled, setToggled] = useState<ReadonlySet<string>>(new Set());
  const [isElsewhere, setElsewhere] = useState(false);
  const box = useRef<View>(null);
  useEffect(() => {
    if (isCurrent) (box.current as unknown as HTMLElement | null)?.scrollIntoView?.({ block: 'nearest' });
  }, [isCurrent]);
  const todos = recording.pencilTodos;
  const left = leftOutOf(recording, toggled);
  const open = (part?: string) =>
    router.push({ pathname: '/recordings/[id]', params: { id: recording.id, ...(part ? { part } : {}) } });
  const isReady = recording.state === 'ready';
  const toggle = (key: string) =>
    setToggled((all) => new Set(all.has(key) ? [...all].filter((k) => k !== key) : [...all, key]));
  const hasOtherTitles = !recording.title && (recording.suggestion.otherTitles?.length ?? 0) > 0;
  return (
    <View
      ref={box}
      style={{
        ...{ borderTopWidth: 1, borderTopColor: colours.rule, paddingVertical: 16, gap: 6 },
        ...{ borderLeftWidth: 3, borderLeftColor: isCurrent ? colours.petrol : 'transparent' },
        ...{ paddingLeft: 9, marginLeft: -12 },
      }}
      role="article"
      aria-label={titleOf(recording)}
      aria-current={isCurrent ? 'true' : undefined}
    >
      <View style={{ flexDirection: 'row', gap: 10 }}>
        {isChosen !== null && (
          <Press
            role="checkbox"
            aria-checked={isChosen}
            label={`Select ${titleOf(recording)}`}
            onPress={() => onChoose?.(recording.id)}
          >
            <Tick isOn={isChosen} />
          </Press>
        )}
        <Press label={`Open ${titleOf(recording)}`} role="link" onPress={() => open()} style={{ gap: 4, flex: 1 }}>
          {recording.strip.length > 0 && <Strip peaks={recording.strip} height={30} label="" />}
          <Type size="tiny" tone="faint" numberOfLines={1}>
            {isReady
              ? `${metaOf(recording)} · ${SOURCES[recording.source]}`
              : `${titleOf(recording)} · ${metaOf(recording)}`}
          </Type>
          {recording.firstWords !== '' && (
            <Type size="body" face="text" numberOfLines={3}>
              “{recording.firstWords}”
            </Type>
          )}
          {isReady && recording.firstWords === '' && (
            <Type tone="faint">No speech was found in this recording. The audio is saved.</Type>
          )}
        </Press>
      </View>
      {job && <JobProgress job={job} />}
      {isReady && recording.problem && <Type size="small">{recording.problem}</Type>}
      {isReady ? (
        <PencilBox style={{ marginTop: 6 }}>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
            <Type size="body" face="text" style={{ flex: 1 }}>
              {titleOf(recording)}
            </Type>
            {hasOtherTitles && (
              <WordButton label="Another title" onPress={() => anotherTitle(recording)} style={{ marginRight: 0 }} />
            )}
          </View>
          <Places recording={recording} left={left} onToggle={toggle} />
          {isElsewhere && (
            <FolderChips
              label="File in folder"
              chosen={recording.folderId}
              onChoose={(folderId) => void fileOne(recording, left, folderId)}
            />
          )}
          {todos.length > 0 && (
            <View
              style={{
                ...{ borderTopWidth: 1, borderStyle: 'dashed', borderTopColor: colours.rule },
                ...{ marginTop: 8, paddingTop: 2 },
              }}
            >
              {todos.map((todo) => {
                const isOn = !left.has(todo.id);
                return (
                  <Press
                    key={todo.id}
                    role="checkbox"
                    aria-checked={isOn}
                    label={todo.text}
                    onPress={() => toggle(todo.id)}
                    style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}
                  >
                    <Tick isOn={isOn} isPencil />
                    <Type style={{ flex: 1 }} tone={todo.isUnsure ? 'faint' : 'ink'}>
                      {todo.text}
                    </Type>
                    <Type size="tiny" tone="faint">
                      {[
                        todo.isUnsure ? 'not sure' : null,
                        todo.who && todo.who !== 'me' ? todo.who : null,
                        todo.due && dueName(todo.due),
                      ]
                        .filter(Boolean)
                        .join(' · ')}
                    </Type>
                  </Press>
                );
              })}
            </View>
          )}
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton label="File" isBold disabled={isBusy} onPress={() => void fileOne(recording, left)} />
            <WordButton
              label={isElsewhere ? 'Close folders' : 'Other folder'}
              aria-expanded={isElsewhere}
              onPress={() => setElsewhere(!isElsewhere)}
            />
            <WordButton label="Edit" onPress={() => open('about')} />
            <WordButton
              label="Move to bin"
              onPress={() => void bin(recording)}
              style={{ marginLeft: 'auto', marginRight: 0, alignItems: 'flex-end' }}
            />
          </View>
        </PencilBox>
      ) : (
        (recording.state === 'failed' || recording.state === 'cancelled') && (
          <WordButton label="Move to bin" onPress={() => void bin(recording)} />
        )
      )}
    </View>
  );
});

type PlacesProps = { recording: RecordingCard; left: ReadonlySet<string>; onToggle: (key: string) => void };

/** What is proposed, each part to be taken off with one tap; what the person has set already stands firm. */
function Places({ recording, left, onToggle }: PlacesProps) {
  const { data } = useShelves();
  const { suggestion: s } = recording;
  const nameOf = (id: string | null) => data?.folders.find((f) => f.id === id)?.name;
  const firm = [
    recording.folderId && nameOf(recording.folderId),
    recording.project,
    ...recording.tags,
    ...recording.people,
  ].filter(Boolean);
  const pencil = (part: keyof Suggestion, kind: string, value: string, key = partKey(part, value)) => ({
    kind,
    value,
    key,
  });
  const folder = recording.folderId ? undefined : nameOf(s.folderId);
  const parts = [
    ...(folder ? [pencil('folderId', 'Folder', folder, partKey('folderId'))] : []),
    ...(s.project && !recording.project ? [pencil('project', 'Project', s.project, partKey('project'))] : []),
    ...s.tags.filter((t) => !recording.tags.includes(t)).map((t) => pencil('tags', 'Tag', t)),
    ...(s.people ?? []).filter((p) => !recording.people.includes(p)).map((p) => pencil('people', 'With', p)),
  ];
  return (
    <View style={{ paddingTop: 2 }}>
      {recording.appointment && (
        <Type size="tiny" tone="faint">
          Appointment{' '}
          <Type size="tiny" isBold>
            {recording.appointment.title}
          </Type>
        </Type>
      )}
      {firm.length > 0 && (
        <Type size="tiny" isBold>
          {firm.join(' · ')}
        </Type>
      )}
      {parts.length === 0 && firm.length === 0 && (
        <Type size="tiny" tone="faint">
          No folder suggested yet. Suggestions improve as you file.
        </Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 6 }}>
        {parts.map(({ kind, value, key }) => (
          <PencilChip key={key} kind={kind} value={value} isOn={!left.has(key)} onPress={() => onToggle(key)} />
        ))}
      </View>
    </View>
  );
}

function PencilChip({
  kind,
  value,
  isOn,
  onPress,
}: {
  kind: string;
  value: string;
  isOn: boolean;
  onPress: () => void;
}) {
  const colours = useColours();
  return (
    <Press
      role="checkbox"
      aria-checked={isOn}
      label={`${kind} ${value}`}
      onPress={onPress}
      style={{ maxWidth: '100%' }}
    >
      <View
        style={{
          ...{ flexDirection: 'row', gap: 5, borderWidth: 1, borderStyle: 'dashed', borderRadius: 4 },
          ...{ borderColor: isOn ? colours.faint : colours.rule, paddingHorizontal: 9, paddingVertical: 5 },
        }}
      >
        <Type size="tiny" tone="faint">
          {kind}
        </Type>
        <Type
          size="tiny"
          isBold={isOn}
          tone={isOn ? 'ink' : 'faint'}
          style={isOn ? { flexShrink: 1 } : { flexShrink: 1, textDecorationLine: 'line-through' }}
        >
          {value}
        </Type>
      </View>
    </Press>
  );
}
