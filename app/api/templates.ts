import type { Scope } from '@immeld/core/contract/scope';
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

/** The topics of a recording; as its words may change, anew at each visit. */
export const useTopicMap = (recordingId: string) =>
  useQuery({
    queryKey: ['recordings', 'map', recordingId],
    queryFn: () => call('getTopicMap', { params: { id: recordingId } }),
    // A map that is looked at does not jump.
    refetchOnWindowFocus: false,
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

const SEVERAL = 'several';

/** Which recordings a scope holds; null where it cannot be asked yet. */
export const useScope = (scope: Scope) =>
  useQuery({
    queryKey: ['sheets', 'scope', JSON.stringify(scope)],
    queryFn: () => call('describeScope', { body: { scope } }),
    placeholderData: keepPreviousData,
  });

export const useSheetsOfSeveral = () =>
  useQuery({ queryKey: ['sheets', SEVERAL], queryFn: () => call('listSheetsOfSeveral') });

/** @param of the recording whose write-ups they are, or the scope of several */
export function useSheetChanges(of: string | Scope) {
  const client = useQueryClient();
  const key = ['sheets', typeof of === 'string' ? of : SEVERAL];
  const refresh = () =>
    Promise.all(
      [['sheets'], ['todos'], ['notes'], ['recordings', 'one'], ['history']].map((queryKey) =>
        client.invalidateQueries({ queryKey }),
      ),
    );
  const isSame = (a: Sheet, b: Sheet) =>
    a.id === b.id || (a.template.name === b.template.name && JSON.stringify(a.scope) === JSON.stringify(b.scope));
  const put = (sheet: Sheet) =>
    client.setQueryData<{ items: Sheet[] }>(key, (before) => ({
      items: [...(before?.items ?? []).filter((s) => !isSame(s, sheet)), sheet],
    }));
  const done = { onSettled: refresh };
  return {
    make: useMutation({
      mutationFn: (template: Template) =>
        typeof of === 'string'
          ? call('makeSheet', { params: { id: of }, body: { template } })
          : call('makeSheetOfSeveral', { body: { scope: of, template } }),
      onSuccess: put,
      ...done,
    }),
    again: useMutation({
      mutationFn: ({ id, ...body }: { id: string; template: Template; kept: number[] }) =>
        call('changeSheet', { params: { id }, body }),
      onSuccess: (sheet) =>
        client.setQueryData<{ items: Sheet[] }>(key, (before) => ({
          items: (before?.items ?? []).map((s) => (s.id === sheet.id ? sheet : s)),
        })),
    }),
    drop: useMutation({ mutationFn: (id: string) => call('dropSheet', { params: { id } }), ...done }),
    keep: useMutation({
      mutationFn: ({ id, acceptsTodos }: { id: string; acceptsTodos: boolean }) =>
        call('saveWriteUpAsNote', { params: { id }, body: { acceptsTodos } }),
      ...done,
    }),
  };
}
export type SheetChanges = ReturnType<typeof useSheetChanges>;

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
