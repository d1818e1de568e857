import type { RecordingCard } from '@immeld/core/contract/recordings';
import { useRouter } from 'expo-router';
import { memo, useState } from 'react';
import { View } from 'react-native';
import { useShelves } from '../../api/queries';
import { dueName } from '../../ui/dates';
import { PencilBox, Tick } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { Strip } from '../../ui/strip';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { JobProgress, useJobOf } from './jobProgress';
import { metaOf, titleOf } from './recordingRow';
import { useFiling } from './useFiling';

/** A new recording with everything proposed for it: accepted whole with one press, or changed first. */
export const TrayCard = memo(function TrayCard({ recording }: { recording: RecordingCard }) {
  const colours = useColours();
  const router = useRouter();
  const job = useJobOf(recording.id);
  const { fileOne, bin, isBusy } = useFiling();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const todos = recording.pencilTodos;
  const open = (part?: string) =>
    router.push({ pathname: '/recordings/[id]', params: { id: recording.id, ...(part ? { part } : {}) } });
  const isReady = recording.state === 'ready';
  return (
    <View
      style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingVertical: 16, gap: 6 }}
      role="article"
      aria-label={titleOf(recording)}
    >
      <Press label={`Open ${titleOf(recording)}`} role="link" onPress={() => open()} style={{ gap: 4 }}>
        {recording.strip.length > 0 && <Strip peaks={recording.strip} height={30} label="" />}
        <Type size="tiny" tone="faint" numberOfLines={1}>
          {isReady ? metaOf(recording) : `${recording.fileName} · ${metaOf(recording)}`}
        </Type>
        {recording.firstWords !== '' && (
          <Type size="body" face="text" numberOfLines={3}>
            “{recording.firstWords}”
          </Type>
        )}
        {isReady && recording.firstWords === '' && (
          <Type tone="faint">No words were heard in this recording. The sound is kept.</Type>
        )}
      </Press>
      {job && <JobProgress job={job} />}
      {isReady ? (
        <PencilBox style={{ marginTop: 6 }}>
          <Type size="body" face="text">
            {titleOf(recording)}
          </Type>
          <Places recording={recording} />
          {todos.length > 0 && (
            <View
              style={{
                borderTopWidth: 1,
                borderStyle: 'dashed',
                borderTopColor: colours.rule,
                marginTop: 8,
                paddingTop: 2,
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
                    onPress={() =>
                      setLeft((all) => new Set(isOn ? [...all, todo.id] : [...all].filter((id) => id !== todo.id)))
                    }
                    style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}
                  >
                    <Tick isOn={isOn} isPencil />
                    <Type style={{ flex: 1 }}>{todo.text}</Type>
                    <Type size="tiny" tone="faint">
                      {[todo.who && todo.who !== 'me' ? todo.who : null, todo.due && dueName(todo.due)]
                        .filter(Boolean)
                        .join(' · ')}
                    </Type>
                  </Press>
                );
              })}
            </View>
          )}
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton
              label="File it"
              isBold
              disabled={isBusy}
              onPress={() =>
                void fileOne(
                  recording,
                  todos.filter((t) => !left.has(t.id)).map((t) => t.id),
                )
              }
            />
            <WordButton label="Change" onPress={() => open('about')} />
            <WordButton label="Listen" onPress={() => open()} />
            <WordButton
              label="Bin"
              onPress={() => void bin(recording)}
              style={{ marginLeft: 'auto', marginRight: 0, alignItems: 'flex-end' }}
            />
          </View>
        </PencilBox>
      ) : (
        (recording.state === 'failed' || recording.state === 'cancelled') && (
          <WordButton label="Bin" onPress={() => void bin(recording)} />
        )
      )}
    </View>
  );
});

function Places({ recording }: { recording: RecordingCard }) {
  const { data } = useShelves();
  const folder = data?.folders.find((f) => f.id === (recording.folderId ?? recording.suggestion.folderId));
  const tags = [...new Set([...recording.tags, ...recording.suggestion.tags])];
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 14, paddingTop: 2 }}>
      <Type size="tiny" tone="faint">
        Shelf{' '}
        <Type size="tiny" isBold>
          {folder?.name ?? 'none yet'}
        </Type>
      </Type>
      {tags.length > 0 && (
        <Type size="tiny" tone="faint">
          Tags{' '}
          <Type size="tiny" isBold>
            {tags.join(', ')}
          </Type>
        </Type>
      )}
    </View>
  );
}
