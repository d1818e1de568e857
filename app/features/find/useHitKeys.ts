import type { Found } from '@immeld/core/contract/find';
import { useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';

/**
 * Arrows go through what was found, also while the find bar has the caret, and Enter opens it and plays there.
 * @returns the id of the item, with the number of the hit behind it when one of its hits is meant
 */
export function useHitKeys(results: readonly Found[]): string | null {
  const router = useRouter();
  const [current, setCurrent] = useState<string | null>(null);
  const places = results.flatMap((found) =>
    found.hits.length
      ? found.hits.map((hit, i) => ({ key: `${found.id} ${i}`, found, at: hit.startMs }))
      : [{ key: found.id, found, at: null as number | null }],
  );
  const latest = useRef({ places, current });
  latest.current = { places, current };
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const isInBar = target.closest('[role=search]') !== null;
      if (!isInBar && target !== document.body) return;
      const now = latest.current;
      const at = now.places.findIndex((p) => p.key === now.current);
      if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
        event.preventDefault();
        const to = event.key === 'ArrowDown' ? at + 1 : at - 1;
        setCurrent(now.places[Math.max(0, Math.min(now.places.length - 1, to))]?.key ?? null);
      } else if (event.key === 'Enter') {
        const place = now.places[Math.max(0, at)];
        if (!place) return;
        const { id, kind } = place.found;
        router.push(
          kind === 'note'
            ? { pathname: '/notes/[id]', params: { id } }
            : { pathname: '/recordings/[id]', params: { id, ...(place.at === null ? {} : { at: String(place.at) }) } },
        );
      }
    };
    // Text fields keep their keys to themselves; here the bar's arrows and Enter are wanted before them.
    window.addEventListener('keydown', press, true);
    return () => window.removeEventListener('keydown', press, true);
  }, [router]);
  return places.some((p) => p.key === current) ? current : null;
}
