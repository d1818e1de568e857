import { useUndoBar } from '../ui/undoBar';
import { useChanges } from './changes';
import { useSharedSettings } from './queries';

/** The glossary of a person, and how a term goes into it: one that is there already gets the new meaning. */
export function useGlossary() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const show = useUndoBar();
  const glossary = data?.glossary ?? [];
  const isSame = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
  const save = (entries: typeof glossary, said: string, done?: () => void) =>
    change.mutate(
      { glossary: entries },
      {
        onSuccess: () => {
          show(said, () => change.mutate({ glossary }));
          done?.();
        },
      },
    );
  return {
    glossary,
    error: change.error,
    put: (term: string, meaning: string, done?: () => void) =>
      save(
        [...glossary.filter((g) => !isSame(g.term, term.trim())), { term: term.trim(), meaning: meaning.trim() }],
        'Saved in your glossary.',
        done,
      ),
    remove: (term: string) =>
      save(
        glossary.filter((g) => g.term !== term),
        `${term} removed.`,
      ),
  };
}
