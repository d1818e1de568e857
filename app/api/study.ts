import type { NewRecallCard, RecallCard } from '@immeld/core/contract/study';
import type { RecallRating } from '@immeld/core/study/schedule';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './call';

const KEY = 'recall';

/** The questions of a recording, kept and proposed. */
export const useRecall = (recordingId: string) =>
  useQuery({
    queryKey: [KEY, recordingId],
    queryFn: () => call('listRecall', { params: { id: recordingId } }),
    // A sitting is not changed under one's hands.
    refetchOnWindowFocus: false,
  });

/** Recordings whose questions are due. */
export const useDueRecall = () => useQuery({ queryKey: [KEY, 'due'], queryFn: () => call('listDueRecall') });

/** Keeps, changes and rates questions. */
export function useRecallChanges(recordingId: string) {
  const client = useQueryClient();
  const refresh = () => client.invalidateQueries({ queryKey: [KEY] });
  const add = useMutation({
    mutationFn: (body: NewRecallCard) => call('addRecall', { params: { id: recordingId }, body }),
    onSuccess: refresh,
  });
  const change = useMutation({
    mutationFn: ({ id, ...body }: { id: string; question?: string; answer?: string; isBinned?: boolean }) =>
      call('changeRecall', { params: { id }, body }),
    onSuccess: refresh,
  });
  /** A question that was only proposed is kept by being answered. Lists are renewed when the sitting is over. */
  const review = useMutation({
    mutationFn: async ({ card, rating }: { card: SittingQuestion; rating: RecallRating }): Promise<RecallCard> => {
      const { isProposed, ...kept } = card;
      if (isProposed) await call('addRecall', { params: { id: recordingId }, body: { ...kept, isOwn: false } });
      return call('reviewRecall', { params: { id: card.id }, body: { rating } });
    },
  });
  return { add, change, review, refresh };
}

/** A question as it is asked in a sitting. */
export type SittingQuestion = Pick<RecallCard, 'id' | 'question' | 'answer' | 'startMs' | 'endMs'> & {
  isProposed: boolean;
};
