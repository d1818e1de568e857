import type { RecordingCard } from '@immeld/core/contract/recordings';
import type { ReactElement } from 'react';
import { FlatList } from 'react-native';
import { type ListPlace, useRecordings } from '../../api/queries';
import { Failure, Loading } from '../../ui/notice';
import { RecordingRow } from './recordingRow';

type ListProps = {
  filter: { place: ListPlace; folderId?: string; tag?: string };
  header: ReactElement;
  empty: ReactElement;
  renderItem?: (recording: RecordingCard) => ReactElement;
};

/** A virtualised list of recordings that loads further pages as one scrolls. */
export function RecordingList({ filter, header, empty, renderItem }: ListProps) {
  const { data, failureReason, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = useRecordings(filter);
  const items = data?.pages.flatMap((p) => p.items) ?? [];
  return (
    <FlatList
      data={items}
      keyExtractor={(r) => r.id}
      renderItem={({ item }) => renderItem?.(item) ?? <RecordingRow recording={item} />}
      ListHeaderComponent={header}
      ListEmptyComponent={
        data ? empty : failureReason ? <Failure error={failureReason} onRetry={() => void refetch()} /> : <Loading />
      }
      ListFooterComponent={isFetchingNextPage ? <Loading label="Fetching more" /> : null}
      onEndReached={() => hasNextPage && void fetchNextPage()}
      onEndReachedThreshold={1.5}
      initialNumToRender={8}
      windowSize={7}
      contentContainerStyle={{ paddingBottom: 40 }}
    />
  );
}
