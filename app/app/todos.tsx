import type { Todo } from '@immeld/core/contract/recordings';
import { useState } from 'react';
import { FlatList, View } from 'react-native';
import { TextInput } from 'react-native-paper';
import { useChanges, useTodos } from '../api/queries';
import { TodoRow } from '../features/todos/todoRow';
import { localDay } from '../ui/dates';
import { Empty, Failure, Loading } from '../ui/notice';
import { WordButton } from '../ui/press';
import { Page } from '../ui/shell';
import { Tabs } from '../ui/tabs';
import { Title, Type } from '../ui/type';

const GROUPINGS = [
  { key: 'project', label: 'By project' },
  { key: 'date', label: 'By date' },
  { key: 'who', label: 'By person' },
  { key: 'done', label: 'Done' },
] as const;
type Grouping = (typeof GROUPINGS)[number]['key'];

function groupOf(todo: Todo, by: Grouping, today: string): string {
  if (by === 'project' || by === 'done') return todo.project ?? 'No project';
  if (by === 'who') return todo.who === 'me' ? 'Mine' : todo.who ? `For ${todo.who}` : 'Nobody yet';
  if (!todo.due) return 'Without a date';
  const day = todo.due.slice(0, 10);
  return day < today ? 'Late' : day === today ? 'Today' : 'Later';
}

const DATE_ORDER = ['Late', 'Today', 'Later', 'Without a date'];
type Line = { heading: string } | { todo: Todo };

/** To-dos with a heading before each group. */
export function linesOf(todos: readonly Todo[], by: Grouping, today: string): Line[] {
  const groups = new Map<string, Todo[]>();
  for (const todo of todos.filter((t) => t.isDone === (by === 'done'))) {
    const name = groupOf(todo, by, today);
    groups.set(name, [...(groups.get(name) ?? []), todo]);
  }
  const last = /^(?:No project|Nobody yet|Without a date)$/;
  const names = [...groups.keys()].sort((a, b) =>
    by === 'date'
      ? DATE_ORDER.indexOf(a) - DATE_ORDER.indexOf(b)
      : Number(last.test(a)) - Number(last.test(b)) || a.localeCompare(b),
  );
  return names.flatMap((heading): Line[] => [
    { heading },
    ...groups
      .get(heading)!
      .sort((a, b) => (a.due ?? '9').localeCompare(b.due ?? '9'))
      .map((todo) => ({ todo })),
  ]);
}

export default function TodosScreen() {
  const { data, error, refetch } = useTodos();
  const { newTodo } = useChanges();
  const [by, setBy] = useState<Grouping>('project');
  const [text, setText] = useState('');
  const add = () => {
    if (text.trim()) newTodo.mutate({ text: text.trim(), who: 'me' }, { onSuccess: () => setText('') });
  };
  const lines = linesOf(data?.items ?? [], by, localDay(new Date()));
  const header = (
    <View style={{ paddingTop: 14, gap: 4 }}>
      <Title>To-dos</Title>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <TextInput
          mode="outlined"
          dense
          label="Add a to-do"
          value={text}
          onChangeText={setText}
          onSubmitEditing={add}
          maxLength={500}
          style={{ flex: 1 }}
        />
        <WordButton label="Add" isBold disabled={!text.trim()} onPress={add} style={{ marginRight: 0 }} />
      </View>
      {newTodo.error && <Failure error={newTodo.error} />}
      <Tabs tabs={GROUPINGS} chosen={by} onChoose={setBy} label="Group to-dos" />
    </View>
  );
  return (
    <Page>
      <FlatList
        data={lines}
        keyExtractor={(line) => ('heading' in line ? `h-${line.heading}` : line.todo.id)}
        ListHeaderComponent={header}
        renderItem={({ item }) =>
          'heading' in item ? (
            <Type isBold tone="faint" role="heading" aria-level={2} style={{ paddingTop: 18, paddingBottom: 2 }}>
              {item.heading}
            </Type>
          ) : (
            <TodoRow todo={item.todo} />
          )
        }
        ListEmptyComponent={
          error ? (
            <Failure error={error} onRetry={() => void refetch()} />
          ) : !data ? (
            <Loading />
          ) : (
            <Empty title={by === 'done' ? 'Nothing done yet' : 'Nothing to do'}>
              To-dos that you accept from recordings stand here, each with its way back to the sound. You can also write
              one above.
            </Empty>
          )
        }
        contentContainerStyle={{ paddingBottom: 40 }}
      />
    </Page>
  );
}
