import { PRIORITY_NAMES, type Todo } from '@immeld/core/contract/todos';
import { repeatName } from '@immeld/core/language/repeatName';
import { useRouter } from 'expo-router';
import { type ReactNode, memo } from 'react';
import { type DimensionValue, View } from 'react-native';
import { useChanges } from '../../api/changes';
import { dayName, dueWords, localDay } from '../../ui/dates';
import { Tick } from '../../ui/pencil';
import { Press } from '../../ui/press';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { TodoEditor } from './todoEditor';
import { useClosable } from '../../ui/useClosable';

const whoName = (who: string | null): string | null =>
  who === null ? 'unassigned' : who === 'me' ? null : `for ${who}`;

/** Who, by when, how often and which project, in one line. */
export const todoMeta = (todo: Todo, isUnderProject = false): string =>
  [
    todo.priority ? `${PRIORITY_NAMES[todo.priority]} priority` : null,
    whoName(todo.who),
    dueWords(todo),
    todo.repeat ? repeatName(todo.repeat) : null,
    (todo.snoozedUntil ?? '') > localDay(new Date()) ? `postponed until ${dayName(todo.snoozedUntil!)}` : null,
    isUnderProject ? null : todo.project,
    todo.notes ? 'has notes' : null,
  ]
    .filter(Boolean)
    .join(' · ');

type TodoRowProps = {
  todo: Todo;
  /** Stands at the end in place of the way to the sound. */
  handle?: ReactNode;
  /** Whether its project stands above it. */
  isUnderProject?: boolean;
};

/** An accepted to-do: ticked with one press, changed by pressing its words, heard by pressing where it was said. */
export const TodoRow = memo(function TodoRow({ todo, handle, isUnderProject = false }: TodoRowProps) {
  const router = useRouter();
  const { todo: change } = useChanges();
  const show = useUndoBar();
  const [isEditing, setEditing] = useClosable(false);
  if (isEditing) return <TodoEditor todo={todo} onClose={() => setEditing(false)} />;
  const meta = todoMeta(todo, isUnderProject);
  const tick = () => {
    change.mutate({ id: todo.id, change: { isDone: !todo.isDone } });
    if (!todo.isDone) show('Done.', () => change.mutate({ id: todo.id, change: { isDone: false } }));
  };
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-start' }}>
      <Press
        role="checkbox"
        aria-checked={todo.isDone}
        label={`${todo.text}, done`}
        onPress={tick}
        style={{ width: 44, paddingTop: 13, justifyContent: 'flex-start' }}
      >
        <Tick isOn={todo.isDone} />
      </Press>
      <View style={{ flex: 1, minWidth: 0, paddingBottom: 4 }}>
        <Press label={`Edit ${todo.text}`} onPress={() => setEditing(true)}>
          <Type
            style={todo.isDone ? { textDecorationLine: 'line-through' } : null}
            isBold={todo.priority === 'high' && !todo.isDone}
            tone={todo.isDone ? 'faint' : 'ink'}
          >
            {todo.text}
          </Type>
          {meta !== '' && (
            <Type size="tiny" tone="faint">
              {meta}
            </Type>
          )}
        </Press>
      </View>
      {handle ??
        (todo.recordingId ? (
          <WayBack
            label={`Play where “${todo.text}” was said`}
            name={todo.recordingTitle ?? ''}
            onPress={() =>
              router.push({
                pathname: '/recordings/[id]',
                params: { id: todo.recordingId!, at: String(todo.startMs ?? 0) },
              })
            }
          />
        ) : (
          todo.noteId && (
            <WayBack
              label={`Open the note that contains “${todo.text}”`}
              name="note"
              onPress={() => router.push({ pathname: '/notes/[id]', params: { id: todo.noteId! } })}
            />
          )
        ))}
    </View>
  );
});

const WayBack = ({ label, name, onPress }: { label: string; name: string; onPress: () => void }) => (
  <Press
    label={label}
    role="link"
    onPress={onPress}
    style={{ alignItems: 'flex-end', paddingLeft: 8, flexShrink: 1, maxWidth: 'min(130px, 40%)' as DimensionValue }}
  >
    <Type size="tiny" tone="petrol" numberOfLines={1}>
      ▸ {name}
    </Type>
  </Press>
);
