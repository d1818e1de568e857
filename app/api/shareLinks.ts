import type { NewShareLink, ShareLink } from '@immeld/core/contract/shareLinks';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './call';

const KEY = ['shareLinks'];

export const useShareLinks = () => useQuery({ queryKey: KEY, queryFn: () => call('listShareLinks') });

export function useShareLinkChanges() {
  const client = useQueryClient();
  const put = (link: ShareLink) => {
    client.setQueryData<{ items: ShareLink[] }>(KEY, (before) => ({
      items: before?.items.some((l) => l.id === link.id)
        ? before.items.map((l) => (l.id === link.id ? link : l))
        : [link, ...(before?.items ?? [])],
    }));
  };
  const done = { onSuccess: put, onSettled: () => client.invalidateQueries({ queryKey: KEY }) };
  return {
    make: useMutation({ mutationFn: (body: NewShareLink) => call('makeShareLink', { body }), ...done }),
    stop: useMutation({
      mutationFn: ({ id, isStopped }: { id: string; isStopped: boolean }) =>
        call('changeShareLink', { params: { id }, body: { isStopped } }),
      ...done,
    }),
  };
}
