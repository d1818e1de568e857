import type { SelectedPart } from '@immeld/core/exports/selectionDocument';
import { useCallback, useEffect, useState } from 'react';

/** Words that are selected in the manuscript, and where on the screen. */
export type Selected = {
  startMs: number;
  endMs: number;
  text: string;
  /** The same by paragraphs. */
  parts: readonly SelectedPart[];
  top: number;
  bottom: number;
  left: number;
};

/** The words under the selection of the browser, whole words only; null where it touches none. */
export function selectedWords(): Selected | null {
  const selection = window.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null;
  const range = selection.getRangeAt(0);
  const root = range.commonAncestorContainer;
  const inside = root instanceof Element ? root : root.parentElement;
  if (!inside || inside.closest('textarea, input')) return null;
  const all = inside.matches('[data-from]') ? [inside] : [...inside.querySelectorAll<HTMLElement>('[data-from]')];
  const own = all.length ? all : [inside.closest('[data-from]')].filter((e) => e !== null);
  const words = own.filter((word) => {
    if (!range.intersectsNode(word)) return false;
    // A border that only touches a word does not select it: at least one letter has to lie inside.
    const bounds = document.createRange();
    bounds.selectNodeContents(word);
    const part = range.cloneRange();
    if (part.compareBoundaryPoints(Range.START_TO_START, bounds) < 0)
      part.setStart(bounds.startContainer, bounds.startOffset);
    if (part.compareBoundaryPoints(Range.END_TO_END, bounds) > 0) part.setEnd(bounds.endContainer, bounds.endOffset);
    return part.toString() !== '';
  }) as HTMLElement[];
  const [first, last] = [words[0], words.at(-1)];
  if (!first || !last) return null;
  const [from, to] = [first.getBoundingClientRect(), last.getBoundingClientRect()];
  return {
    startMs: Number(first.dataset['from']),
    endMs: Number(last.dataset['to']),
    text: wordsOf(words),
    parts: partsOf(words),
    ...{ top: from.top, bottom: to.bottom, left: from.left },
  };
}

export function useSelectedWords(): { selected: Selected | null; clear: () => void } {
  const [selected, setSelected] = useState<Selected | null>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    const look = () => {
      clearTimeout(timer);
      // While one drags, the selection changes all the time.
      timer = setTimeout(() => {
        // A press into the choices is not the end of the selection.
        if (!document.activeElement?.closest('[data-choices]')) setSelected(selectedWords());
      }, 120);
    };
    document.addEventListener('selectionchange', look);
    window.addEventListener('scroll', look, { capture: true, passive: true });
    return () => {
      clearTimeout(timer);
      document.removeEventListener('selectionchange', look);
      window.removeEventListener('scroll', look, { capture: true });
    };
  }, []);
  const clear = useCallback(() => {
    window.getSelection()?.removeAllRanges();
    setSelected(null);
  }, []);
  return { selected, clear };
}

const wordsOf = (words: readonly HTMLElement[]): string => words.map((w) => w.textContent ?? '').join(' ');

function partsOf(words: readonly HTMLElement[]): SelectedPart[] {
  const paragraphs = new Map<HTMLElement | null, HTMLElement[]>();
  for (const word of words) {
    const paragraph = word.closest<HTMLElement>('[data-speaker]');
    paragraphs.set(paragraph, [...(paragraphs.get(paragraph) ?? []), word]);
  }
  return [...paragraphs].map(([paragraph, own]) => ({
    speaker: paragraph?.dataset['speaker'] || null,
    text: wordsOf(own),
  }));
}

/** The selection may have moved on since the choices were drawn. */
export const latest = (drawn: Selected): Selected => selectedWords() ?? drawn;
