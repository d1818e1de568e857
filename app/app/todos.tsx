import { useState } from 'react';
import { FlatList, View } from 'react-native';
import { useChanges, useTodos } from '../api/queries';
import { GROUPINGS, type Grouping, linesOf } from '../features/todos/grouping';
import { TodoRow } from '../features/todos/todoRow';
import { localDay } from '../ui/dates';
import { Empty, Failure, Loading } from '../ui/notice';
import { Page } from '../ui/shell';
import { Tabs } from '../ui/tabs';
import { Title, Type } from '../ui/type';
import { LineEntry } from '../ui/lineEntry';

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
      <LineEntry label="Add a to-do" action="Add" value={text} onChange={setText} onSubmit={add} maxLength={500} />
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
