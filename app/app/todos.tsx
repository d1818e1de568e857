import { useState } from 'react';
import { FlatList, View } from 'react-native';
import { useTodos } from '../api/queries';
import { GROUPINGS, type Grouping, WHOSE, WHOSE_NAMES, type Whose, linesOf } from '../features/todos/grouping';
import { MovableTodo, MovableTodos } from '../features/todos/movableTodo';
import { ExportTodos } from '../features/todos/exportTodos';
import { TodoEntry } from '../features/todos/todoEntry';
import { TodoRow } from '../features/todos/todoRow';
import { localDay } from '../ui/dates';
import { Empty, Failure, Loading } from '../ui/notice';
import { OneOf } from '../ui/oneOf';
import { Page } from '../ui/shell';
import { Tabs } from '../ui/tabs';
import { Title, Type } from '../ui/type';

/** Drawn at once, before anything is scrolled: more than a screen. */
const FIRST_ROWS = 30;

export default function TodosScreen() {
  const { data, error, refetch } = useTodos();
  const [by, setBy] = useState<Grouping>('project');
  const [whose, setWhose] = useState<Whose>('mine');
  // By person they are told apart already.
  const lines = linesOf(data?.items ?? [], by, by === 'who' ? 'all' : whose, localDay(new Date()));
  // What is put off stands apart, by its day.
  const heading = lines.findIndex((line) => 'heading' in line);
  const inOrder = lines.slice(0, heading < 0 ? undefined : heading).flatMap((l) => ('todo' in l ? [l.todo] : []));
  const header = (
    <View style={{ paddingTop: 14, gap: 4 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', justifyContent: 'space-between' }}>
        <Title>To-dos</Title>
        <ExportTodos />
      </View>
      <TodoEntry />
      {by !== 'who' && (
        <OneOf label="Show" options={WHOSE} nameOf={(w) => WHOSE_NAMES[w]} chosen={whose} onChoose={setWhose} />
      )}
      <Tabs tabs={GROUPINGS} chosen={by} onChoose={setBy} label="Group by" />
    </View>
  );
  return (
    <Page>
      <MovableTodos todos={inOrder}>
        <FlatList
          data={lines}
          initialNumToRender={FIRST_ROWS}
          keyExtractor={(line) => ('heading' in line ? `h-${line.heading}` : line.todo.id)}
          ListHeaderComponent={header}
          renderItem={({ item, index }) =>
            'heading' in item ? (
              <Type isBold tone="faint" role="heading" aria-level={2} style={{ paddingTop: 18, paddingBottom: 2 }}>
                {item.heading}{' '}
                <Type size="tiny" tone="faint">
                  {item.count}
                </Type>
              </Type>
            ) : index < inOrder.length ? (
              <MovableTodo todo={item.todo} todos={inOrder} />
            ) : (
              <TodoRow todo={item.todo} isUnderProject={by === 'project'} />
            )
          }
          ListEmptyComponent={
            error ? (
              <Failure error={error} onRetry={() => void refetch()} />
            ) : !data ? (
              <Loading />
            ) : (
              <Empty title={by === 'done' ? 'Nothing done yet' : 'No open to-dos'}>
                To-dos you accept from recordings appear here, each with a link to the moment it was said. You can also
                add one above.
              </Empty>
            )
          }
          contentContainerStyle={{ paddingBottom: 40 }}
        />
      </MovableTodos>
    </Page>
  );
}
