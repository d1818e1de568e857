import type { Sheet, Template } from '@immeld/core/contract/templates';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './call';

/** Parts of a recording; asked for only when they are wanted. */
export const useParts = (recordingId: string, isWanted: boolean) =>
  useQuery({
    queryKey: ['recordings', 'parts', recordingId],
    queryFn: () => call('listParts', { params: { id: recordingId } }),
    enabled: isWanted,
  });

export const useTemplates = () => useQuery({ queryKey: ['templates'], queryFn: () => call('listTemplates') });

export const useSheets = (recordingId: string) =>
  useQuery({ queryKey: ['sheets', recordingId], queryFn: () => call('listSheets', { params: { id: recordingId } }) });

/** What a template that is being written makes of a recording. */
export const usePreview = (recordingId: string | null, template: Template | null) =>
  useQuery({
    queryKey: ['sheets', 'preview', recordingId, JSON.stringify(template)],
    queryFn: () => call('previewWriteUp', { params: { id: recordingId! }, body: { template: template! } }),
    enabled: recordingId !== null && template !== null,
    placeholderData: keepPreviousData,
  });

export function useSheetChanges(recordingId: string) {
  const client = useQueryClient();
  const refresh = () =>
    Promise.all(
      [['sheets'], ['todos'], ['notes'], ['recordings', 'one', recordingId], ['history']].map((queryKey) =>
        client.invalidateQueries({ queryKey }),
      ),
    );
  const put = (sheet: Sheet) =>
    client.setQueryData<{ items: Sheet[] }>(['sheets', recordingId], (before) => ({
      items: [
        ...(before?.items ?? []).filter((s) => s.id !== sheet.id && s.template.name !== sheet.template.name),
        sheet,
      ],
    }));
  const done = { onSettled: refresh };
  return {
    make: useMutation({
      mutationFn: (template: Template) => call('makeSheet', { params: { id: recordingId }, body: { template } }),
      onSuccess: put,
      ...done,
    }),
    again: useMutation({
      mutationFn: ({ id, template }: { id: string; template: Template }) =>
        call('changeSheet', { params: { id }, body: { template } }),
      onSuccess: (sheet) =>
        client.setQueryData<{ items: Sheet[] }>(['sheets', recordingId], (before) => ({
          items: (before?.items ?? []).map((s) => (s.id === sheet.id ? sheet : s)),
        })),
    }),
    drop: useMutation({ mutationFn: (id: string) => call('dropSheet', { params: { id } }), ...done }),
    keep: useMutation({ mutationFn: (id: string) => call('keepSheet', { params: { id }, body: {} }), ...done }),
  };
}

export function useTemplateChanges() {
  const client = useQueryClient();
  const done = {
    onSettled: () =>
      Promise.all([['templates'], ['history']].map((queryKey) => client.invalidateQueries({ queryKey }))),
  };
  return {
    add: useMutation({ mutationFn: (template: Template) => call('addTemplate', { body: { template } }), ...done }),
    change: useMutation({
      mutationFn: ({ id, template }: { id: string; template: Template }) =>
        call('changeTemplate', { params: { id }, body: { template } }),
      ...done,
    }),
    remove: useMutation({
      mutationFn: (id: string) => call('changeTemplate', { params: { id }, body: { isRemoved: true } }),
      ...done,
    }),
  };
}
