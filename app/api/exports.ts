import type { Export, ExportItem, NewExport } from '@immeld/core/contract/exportEndpoints';
import type { ExportChoices, ExportFormat } from '@immeld/core/contract/exports';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './call';

const WHILE_MAKING_MS = 600;

/** A file that is being made, asked for until it is ready or has failed. */
export const useExport = (id: string | null) =>
  useQuery({
    queryKey: ['exports', id],
    queryFn: () => call('getExport', { params: { id: id! } }),
    enabled: id !== null,
    refetchInterval: ({ state }) => (state.data && state.data.state !== 'making' ? false : WHILE_MAKING_MS),
  });

export function useExportChanges() {
  const client = useQueryClient();
  const put = (made: Export) => client.setQueryData(['exports', made.id], made);
  return {
    make: useMutation({ mutationFn: (body: NewExport) => call('makeExport', { body }), onSuccess: put }),
    cancel: useMutation({
      mutationFn: (id: string) => call('cancelExport', { params: { id }, body: {} }),
      onSuccess: put,
    }),
  };
}

/** How a file will read; asked for only when it is wanted. */
export const useExportPreview = (
  item: ExportItem | null,
  format: ExportFormat,
  choices: ExportChoices,
  isWanted: boolean,
) =>
  useQuery({
    queryKey: ['exports', 'preview', item, format, choices],
    queryFn: () => call('previewExport', { body: { item, format, choices } }),
    enabled: isWanted && item !== null,
    placeholderData: keepPreviousData,
  });
