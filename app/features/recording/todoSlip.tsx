import type { Todo } from '@immeld/core/contract/todos';
import { clockTime } from '@immeld/core/formats/times';
import { memo } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { PencilBox, Tick } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { TodoEditor } from '../todos/todoEditor';
import { todoMeta } from '../todos/todoRow';
import type { SoundPlayer } from './soundPlayer';
import { useClosable } from '../../ui/useClosable';

/** A to-do in the margin: in pencil until it is accepted. */
export const TodoSlip = memo(function TodoSlip({ todo, player }: { todo: Todo; player: SoundPlayer }) {
  const colours = useColours();
  const { todo: change } = useChanges();
  const show = useUndoBar();
  const [isEditing, setEditing] = useClosable(false);
  if (isEditing) return <TodoEditor todo={todo} onClose={() => setEditing(false)} />;
  const isPencil = todo.state === 'pencil';
  const set = (state: Todo['state'], text: string) => {
    change.mutate({ id: todo.id, change: { state } });
    show(text, () => change.mutate({ id: todo.id, change: { state: todo.state } }));
  };
  return (
    <PencilBox
      isInk={!isPencil}
      style={{ marginBottom: 10, ...(isPencil ? {} : { borderLeftWidth: 3, borderLeftColor: colours.petrol }) }}
    >
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'flex-start' }}>
        {isPencil ? (
          <View
            style={{
              width: 12,
              height: 12,
              marginTop: 5,
              ...(todo.isUnsure
                ? { borderWidth: 1.5, borderColor: colours.petrol }
                : { backgroundColor: colours.petrol }),
            }}
          />
        ) : (
          <Press
            role="checkbox"
            aria-checked={todo.isDone}
            label={`${todo.text}, done`}
            onPress={() => change.mutate({ id: todo.id, change: { isDone: !todo.isDone } })}
            style={{ marginVertical: -12, marginRight: -14 }}
          >
            <Tick isOn={todo.isDone} />
          </Press>
        )}
        <View style={{ flex: 1, minWidth: 0 }}>
          <Type
            isBold={isPencil && !todo.isUnsure}
            tone={todo.isUnsure ? 'faint' : 'ink'}
            style={todo.isDone ? { textDecorationLine: 'line-through' } : null}
          >
            {todo.text}
          </Type>
          <Type size="tiny" tone="faint">
            {[todo.isUnsure ? 'perhaps a to-do' : null, todoMeta(todo)].filter(Boolean).join(' · ') || 'to-do'}
          </Type>
        </View>
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {isPencil && <WordButton label="Accept" isBold onPress={() => set('ink', 'To-do accepted.')} />}
        <WordButton label="Edit" onPress={() => setEditing(true)} />
        {isPencil && <WordButton label="Drop" onPress={() => set('dropped', 'To-do dropped.')} />}
        {todo.startMs !== null && (
          <WordButton
            label={`Play ${clockTime(todo.startMs)}`}
            tone="petrol"
            onPress={() => player.seek(todo.startMs!, true)}
            style={{ marginLeft: 'auto', marginRight: 0, alignItems: 'flex-end' }}
          />
        )}
      </View>
    </PencilBox>
  );
});
