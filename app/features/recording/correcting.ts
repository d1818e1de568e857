import { createContext, useContext, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { type QueryClient, useQueryClient } from '@tanstack/react-query';
import type { Recording } from '@immeld/core/contract/recordings';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { call } from '../../api/call';
import { settings } from '../../settings/settings';
import { announce } from '../../ui/announcer';
import { CorrectionDesk } from './correctionDesk';
import type { SoundPlayer } from './soundPlayer';

/** Whether a word is marked: how sure it has to be is a setting of the device. */
export const isDoubtful = (word: { confidence: number }): boolean => word.confidence < settings().doubtfulBelow;

/**
 * Which passage is open for typing, and the word that is selected in it. One that was gone to as a doubtful word is only
 * visited: letters do not take its place.
 */
export type Opened = { passage: number; word: number | null; isVisited?: boolean };

export type Correcting = {
  desk: CorrectionDesk;
  opened: Opened | null;
  open: (opened: Opened | null) => void;
  /** Opens the next doubtful word after the one that is open, or after the place of the sound; or the one before. */
  openDoubtful: (isBackwards?: boolean) => void;
};

export const CorrectingContext = createContext<Correcting | null>(null);

export function useCorrecting(): Correcting {
  const correcting = useContext(CorrectingContext);
  if (!correcting) throw new Error('useCorrecting is used outside a recording.');
  return correcting;
}

export const useDesk = (desk: CorrectionDesk) => useSyncExternalStore(desk.subscribe, () => desk.state);

const desks = new WeakMap<QueryClient, Map<string, CorrectionDesk>>();

/** The desk of a recording. It goes on sending, and knows what can be taken back, when its page is left. */
export function useCorrectionDesk({ id, passages }: Recording): CorrectionDesk {
  const client = useQueryClient();
  const [desk] = useState(() => {
    const opened = desks.get(client) ?? new Map<string, CorrectionDesk>();
    desks.set(client, opened);
    const made = opened.get(id) ?? newDesk(client, id);
    opened.set(id, made);
    made.begin(passages);
    return made;
  });
  useEffect(() => desk.begin(passages), [desk, passages]);
  return desk;
}

function newDesk(client: QueryClient, id: string): CorrectionDesk {
  const queryKey = ['recordings', 'one', id];
  return new CorrectionDesk(`immeld-corrections:${id}`, {
    show: (passages) => client.setQueryData<Recording>(queryKey, (r) => r && { ...r, passages }),
    send: (body) => call('rewritePassages', { params: { id }, body }),
    refetch: () => void client.invalidateQueries({ queryKey }),
    announce,
    storage: localStorage,
  });
}

/** The first doubtful word after a place, beginning anew at the top after the last one. */
export function nextDoubtful(
  passages: readonly Passage[],
  after: (passage: number, word: number) => boolean,
): Opened | null {
  let first: Opened | null = null;
  for (const [passage, { words }] of passages.entries()) {
    for (const [word, w] of words.entries()) {
      if (!isDoubtful(w)) continue;
      first ??= { passage, word };
      if (after(passage, word)) return { passage, word };
    }
  }
  return first;
}

/** The last doubtful word before a place, beginning anew at the end before the first one. */
export function previousDoubtful(passages: readonly Passage[], before: (passage: number, word: number) => boolean) {
  let last: Opened | null = null;
  let found: Opened | null = null;
  for (const [passage, { words }] of passages.entries()) {
    for (const [word, w] of words.entries()) {
      if (!isDoubtful(w)) continue;
      last = { passage, word };
      if (before(passage, word)) found = last;
    }
  }
  return found ?? last;
}

/** Sound around a doubtful word, so that it is heard in its sentence. */
const AROUND_MS = 500;

/** What is open for correcting, and the keys that lead there. */
export function useCorrectingOf(desk: CorrectionDesk, player: SoundPlayer) {
  const [opened, open] = useState<Opened | null>(null);
  const latest = useRef(opened);
  latest.current = opened;
  const context = useMemo((): Correcting => {
    const openDoubtful = (isBackwards = false) => {
      const { passages } = desk.state;
      const at = latest.current;
      const { timeMs } = player.getState();
      const startOf = (passage: number, word: number) => passages[passage]!.words[word]!.startMs;
      const isAfter = (passage: number, word: number) =>
        at
          ? passage > at.passage || (passage === at.passage && word > (at.word ?? -1))
          : startOf(passage, word) > timeMs;
      const isBefore = (passage: number, word: number) =>
        at
          ? passage < at.passage || (passage === at.passage && word < (at.word ?? Infinity))
          : startOf(passage, word) < timeMs;
      const found = isBackwards ? previousDoubtful(passages, isBefore) : nextDoubtful(passages, isAfter);
      open(found && { ...found, isVisited: true });
      const word = found && passages[found.passage]!.words[found.word!];
      if (word) player.playSpan(Math.max(0, word.startMs - AROUND_MS), word.endMs + AROUND_MS);
    };
    return { desk, opened, open, openDoubtful };
  }, [desk, player, opened]);
  const keys = useMemo(() => ({ d: () => context.openDoubtful() }), [context]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement).closest('input, textarea');
      if (!isTyping && event.key === 'D' && event.shiftKey && !event.ctrlKey && !event.metaKey && !event.altKey) {
        event.preventDefault();
        return context.openDoubtful(true);
      }
      if (isTyping || event.key.toLowerCase() !== 'z' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      if (event.shiftKey) desk.redo();
      else desk.undo();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [desk, context]);
  return { context, keys };
}
