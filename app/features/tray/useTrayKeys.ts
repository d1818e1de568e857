import type { RecordingCard } from '@immeld/core/contract/recordings';
import { useEffect, useRef, useState } from 'react';
import type { Selection } from './useSelection';
import { leftOutOf, useFiling } from './useFiling';
import { isOnControl } from '../../ui/inField';

/**
 * Files the tray by keyboard: arrows go from card to card, Enter files as proposed, Space chooses, T takes another
 * title, Delete bins, Escape lets go of what is chosen.
 * @returns the card on which the keys act
 */
export function useTrayKeys(cards: readonly RecordingCard[], chosen: Selection): string | null {
  const [current, setCurrent] = useState<string | null>(null);
  const { fileOne, bin, anotherTitle } = useFiling();
  const latest = useRef({ cards, chosen, current, fileOne, bin, anotherTitle });
  latest.current = { cards, chosen, current, fileOne, bin, anotherTitle };
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (target.closest('input, textarea, [contenteditable], [role=slider]')) return;
      if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return;
      const now = latest.current;
      const at = now.cards.findIndex((c) => c.id === now.current);
      const go = (to: number) => setCurrent(now.cards[Math.max(0, Math.min(now.cards.length - 1, to))]?.id ?? null);
      if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
        event.preventDefault();
        // A button that has the focus would take Enter for itself.
        (document.activeElement as HTMLElement | null)?.blur();
        go(event.key === 'ArrowDown' ? at + 1 : at - 1);
        return;
      }
      // Keys that a focused button needs are its own.
      if (isOnControl(target)) return;
      const card = now.cards[at];
      if (event.key === 'Escape' && !event.defaultPrevented) now.chosen.end();
      if (!card) return;
      if (event.key === ' ') now.chosen.toggle(card.id);
      else if (event.key.toLowerCase() === 't') now.anotherTitle(card);
      else if ((event.key === 'Enter' || event.key === 'Delete') && card.state === 'ready') {
        const next = now.cards[at + 1] ?? now.cards[at - 1];
        setCurrent(next?.id ?? null);
        void (event.key === 'Enter' ? now.fileOne(card, leftOutOf(card)) : now.bin(card));
      } else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  return current;
}
