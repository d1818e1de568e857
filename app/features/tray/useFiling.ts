import type { RecordingCard, Suggestion } from '@immeld/core/contract/recordings';
import { useMemo, useRef } from 'react';
import { useChanges } from '../../api/changes';
import { useShowDone } from '../../ui/doing';
import { useUndoBar } from '../../ui/undoBar';
import { titleOf } from './recordingRow';

/** What of a suggestion the person has taken off before filing. */
export type LeftOut = ReadonlySet<string>;

/** Names of the parts of a suggestion that can be left out; to-dos are left out by their ids. */
export const partKey = (part: keyof Suggestion, value = ''): string => `${part} ${value}`;

/** What is not filed with a recording: what was taken off, and the to-dos that are not sure and were not put on. */
export const leftOutOf = (
  { pencilTodos }: Pick<RecordingCard, 'pencilTodos'>,
  toggled: ReadonlySet<string> = new Set(),
): LeftOut => {
  const unsure = new Set(pencilTodos.filter((t) => t.isUnsure).map((t) => t.id));
  return new Set([
    ...[...toggled].filter((key) => !unsure.has(key)),
    ...[...unsure].filter((key) => !toggled.has(key)),
  ]);
};

/** Files recordings as proposed, bins them, and offers the way back. */
export function useFiling() {
  const { file, recording: change, todo, batch } = useChanges();
  const show = useUndoBar();
  const showDone = useShowDone();

  const undo = (r: RecordingCard, todoIds: readonly string[]) => {
    const { isFiled, title, folderId, tags, people, project } = r;
    change.mutate({ id: r.id, change: { isFiled, isBinned: false, title, folderId, tags, people, project } });
    for (const id of todoIds) todo.mutate({ id, change: { state: 'pencil' } });
  };

  return {
    isBusy: file.isPending || batch.isPending,
    error: file.error ?? change.error ?? batch.error,
    /** Files one with what is left of its suggestion. */
    fileOne: async (r: RecordingCard, left: LeftOut, folderId?: string | null) => {
      const { suggestion: s } = r;
      const isIn = (part: keyof Suggestion, value?: string) => !left.has(partKey(part, value));
      const todoIds = r.pencilTodos.map((t) => t.id).filter((id) => !left.has(id));
      const suggestedFolder = isIn('folderId') ? s.folderId : null;
      await file.mutateAsync({
        id: r.id,
        filing: {
          title: r.title ?? (isIn('title') ? s.title : null),
          folderId: folderId !== undefined ? folderId : (r.folderId ?? suggestedFolder),
          tags: [...new Set([...r.tags, ...s.tags.filter((t) => isIn('tags', t))])],
          people: [...new Set([...r.people, ...(s.people ?? []).filter((p) => isIn('people', p))])],
          project: r.project ?? (isIn('project') ? (s.project ?? null) : null),
          todoIds,
        },
      });
      show(`“${titleOf(r)}” is filed.`, () => undo(r, todoIds));
    },
    fileAll: async (all: readonly RecordingCard[]) =>
      showDone(await batch.mutateAsync({ ids: all.map((r) => r.id), asSuggested: true })),
    bin: async (r: RecordingCard) => {
      await change.mutateAsync({ id: r.id, change: { isBinned: true } });
      show(`“${titleOf(r)}” is in the bin for 30 days.`, () => undo(r, []));
    },
    /** Puts the next of the suggested titles in the place of the first. */
    anotherTitle: (r: RecordingCard) => {
      const [next] = r.suggestion.otherTitles ?? [];
      if (next) change.mutate({ id: r.id, change: { suggestedTitle: next } });
    },
  };
}

export type FilingActions = Pick<ReturnType<typeof useFiling>, 'fileOne' | 'bin' | 'anotherTitle'>;

/** The same as functions that stay the same, so that a card of a long list is not drawn anew for another one's sake. */
export function useFilingActions(): FilingActions & { isBusy: boolean } {
  const filing = useFiling();
  const latest = useRef(filing);
  latest.current = filing;
  const actions = useMemo<FilingActions>(
    () => ({
      fileOne: (...given) => latest.current.fileOne(...given),
      bin: (...given) => latest.current.bin(...given),
      anotherTitle: (...given) => latest.current.anotherTitle(...given),
    }),
    [],
  );
  return { ...actions, isBusy: filing.isBusy };
}
