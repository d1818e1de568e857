import { FlatList, View } from 'react-native';
import { useChanges } from '../api/changes';
import { useDeeds } from '../api/queries';
import { localTime, whenSaid } from '../ui/dates';
import { Empty, Failure, Loading } from '../ui/notice';
import { WordButton } from '../ui/press';
import { Page } from '../ui/shell';
import { useColours } from '../ui/theme';
import { Title, Type } from '../ui/type';
import { useUndoBar } from '../ui/undoBar';

/** What was done on the shelves, each with its way back. */
export default function HistoryScreen() {
  const colours = useColours();
  const { data, error, refetch } = useDeeds();
  const { undo } = useChanges();
  const show = useUndoBar();
  const takeBack = (id: string) =>
    undo.mutate(id, {
      onSuccess: ({ undone, kept }) =>
        show(
          kept
            ? `${undone} undone. ${kept === 1 ? 'One item' : kept} changed in the meantime and stayed as ${kept === 1 ? 'it is' : 'they are'}.`
            : 'Undone.',
        ),
    });
  return (
    <Page>
      <FlatList
        data={data?.items ?? []}
        keyExtractor={(d) => d.id}
        contentContainerStyle={{ paddingTop: 14, paddingBottom: 40 }}
        ListHeaderComponent={
          <View style={{ paddingBottom: 8 }}>
            <Title>History</Title>
            <Type size="tiny" tone="faint">
              Everything you filed, moved, tagged or put in the bin, newest first.
            </Type>
            {undo.error && <Failure error={undo.error} />}
          </View>
        }
        ListEmptyComponent={
          data ? (
            <Empty title="Nothing filed yet">What you file, move or tag is listed here, and you can undo it.</Empty>
          ) : error ? (
            <Failure error={error} onRetry={() => void refetch()} />
          ) : (
            <Loading />
          )
        }
        renderItem={({ item }) => (
          <View
            style={{
              ...{ flexDirection: 'row', alignItems: 'center', gap: 12, paddingVertical: 6 },
              ...{ borderBottomWidth: 1, borderBottomColor: colours.rule },
            }}
          >
            <View style={{ flex: 1 }}>
              <Type>{item.text}</Type>
              <Type size="tiny" tone="faint">
                {whenSaid(localTime(new Date(item.doneAt)))}
              </Type>
            </View>
            {item.isUndone ? (
              <Type size="tiny" tone="faint">
                Undone
              </Type>
            ) : (
              <WordButton
                label="Undo"
                aria-label={`Undo: ${item.text}`}
                onPress={() => takeBack(item.id)}
                style={{ marginRight: 0 }}
              />
            )}
          </View>
        )}
      />
    </Page>
  );
}
