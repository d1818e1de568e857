import { useCallback, useState } from 'react';

/** What is chosen in a list; null while nothing is being chosen. */
export function useSelection() {
  const [chosen, setChosen] = useState<ReadonlySet<string> | null>(null);
  const toggle = useCallback(
    (id: string) =>
      setChosen((now) => new Set(now?.has(id) ? [...now].filter((other) => other !== id) : [...(now ?? []), id])),
    [],
  );
  return {
    chosen,
    begin: () => setChosen(new Set()),
    end: () => setChosen(null),
    set: (ids: readonly string[]) => setChosen(new Set(ids)),
    toggle,
  };
}
export type Selection = ReturnType<typeof useSelection>;
