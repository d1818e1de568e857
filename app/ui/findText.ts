import { useSyncExternalStore } from 'react';
import { Listeners } from '../state/listeners';

/**
 * What stands in the find bar. On wide screens every place has a bar of its own: the text, and the caret, go over from
 * one to the next when typing opens the page of what was found.
 */
let text = '';
let typedAt = -Infinity;
/** What was typed comes back later as the page's address; other texts there come from elsewhere. */
let sent: string[] = [];
const listeners = new Listeners();

const FRESH_MS = 1500;
const REMEMBERED = 30;

const set = (next: string): void => {
  if (next === text) return;
  text = next;
  listeners.tell();
};

export const findText = {
  /** Typed by the person. */
  type(next: string): void {
    typedAt = Date.now();
    sent = [...sent.slice(-REMEMBERED), next];
    set(next);
  },
  /** The address says this: an echo of what was typed, or something new from a chip, a voice or a link. */
  hear(q: string): void {
    const at = sent.lastIndexOf(q);
    if (at >= 0) sent = sent.slice(at + 1);
    else set(q);
  },
  /** A letter that was typed while one bar went and the next had not come; null where nobody is typing. */
  typeOn(letter: string): string | null {
    if (Date.now() - typedAt > FRESH_MS) return null;
    findText.type(text + letter);
    return text;
  },
  /** The page of what was found has its bar: letters go there by themselves from now on. */
  arrive(): void {
    typedAt = -Infinity;
  },
  clear(): void {
    sent = [];
    set('');
  },
  /** Whether somebody is just typing, so that a new bar takes over the caret. */
  isBeingTyped: (): boolean => Date.now() - typedAt < FRESH_MS,
};

export function useFindText(): string {
  const read = () => text;
  return useSyncExternalStore(listeners.subscribe, read, read);
}
