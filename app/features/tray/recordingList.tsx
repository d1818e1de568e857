import type { RecordingCard } from '@immeld/core/contract/recordings';
import { type ReactElement, isValidElement } from 'react';
import { FlatList } from 'react-native';
import { type ListFilter, useRecordings } from '../../api/queries';
import { Failure, Loading } from '../../ui/notice';
import { RecordingRow } from './recordingRow';

type ListProps = {
  filter: ListFilter;
  header: ReactElement;
  empty: ReactElement;
  renderItem?: (recording: RecordingCard) => ReactElement;
  /** What stands between the recordings; each has its key. */
  between?: (items: readonly RecordingCard[], isComplete: boolean) => (RecordingCard | ReactElement)[];
  /** The rows are drawn anew when one of these changes. */
  redrawFor?: unknown;
};

/** A virtualised list of recordings that loads further pages as one scrolls. */
export function RecordingList({ filter, header, empty, renderItem, between, redrawFor }: ListProps) {
  const { data, failureReason, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = useRecordings(filter);
  const items = data?.pages.flatMap((p) => p.items) ?? [];
  const rows: (RecordingCard | ReactElement)[] = between && data ? between(items, !hasNextPage) : items;
  return (
    <FlatList
      data={rows}
      extraData={redrawFor}
      keyExtractor={(row) => (isValidElement(row) ? String(row.key) : (row as RecordingCard).id)}
      renderItem={({ item }) => {
        if (isValidElement(item)) return item;
        const recording = item as RecordingCard;
        return renderItem?.(recording) ?? <RecordingRow recording={recording} />;
      }}
      ListHeaderComponent={header}
      ListEmptyComponent={
        data ? empty : failureReason ? <Failure error={failureReason} onRetry={() => void refetch()} /> : <Loading />
      }
      ListFooterComponent={isFetchingNextPage ? <Loading label="Loading more" /> : null}
      onEndReached={() => hasNextPage && void fetchNextPage()}
      onEndReachedThreshold={1.5}
      initialNumToRender={8}
      windowSize={7}
      // Room at the left for the bar of the card on which the keys act.
      style={{ marginLeft: -12 }}
      contentContainerStyle={{ paddingBottom: 40, paddingLeft: 12 }}
    />
  );
}
