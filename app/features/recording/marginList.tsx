import type { Recording } from '@immeld/core/contract/recordings';
import { View } from 'react-native';
import { Empty } from '../../ui/notice';
import { isTodoOnList } from './rows';
import { SlipNote } from './slipNote';
import type { SoundPlayer } from './soundPlayer';
import { TodoSlip } from './todoSlip';

/** All that stands in the margin, in the order of its seconds. */
export function marginOf(recording: Recording) {
  const todos = recording.todos
    .filter((t) => t.state !== 'dropped')
    .map((todo) => ({ key: todo.id, startMs: todo.startMs ?? Infinity, todo, slip: null }));
  const slips = recording.slips
    .filter((slip) => !isTodoOnList(slip))
    .map((slip) => ({ key: slip.id, startMs: slip.startMs, todo: null, slip }));
  return [...todos, ...slips].sort((a, b) => a.startMs - b.startMs);
}

export function MarginList({ recording, player }: { recording: Recording; player: SoundPlayer }) {
  const margin = marginOf(recording);
  return (
    <View style={{ paddingTop: 12 }}>
      {margin.map(({ key, todo, slip }) =>
        todo ? <TodoSlip key={key} todo={todo} player={player} /> : <SlipNote key={key} slip={slip!} player={player} />,
      )}
      {margin.length === 0 && (
        <Empty title="Nothing in the margin">
          Marks, slips and pictures stand here, and to-dos that are found in what was said. Select words in the text to
          put something beside them.
        </Empty>
      )}
    </View>
  );
}
