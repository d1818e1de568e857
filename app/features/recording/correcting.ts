import { createContext, useContext, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { Recording } from '@immeld/core/contract/recordings';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { call } from '../../api/call';
import { settings } from '../../settings/settings';
import { CorrectionDesk } from './correctionDesk';
import type { SoundPlayer } from './soundPlayer';

/** Whether a word is marked: how sure it has to be is a setting of the device. */
export const isDoubtful = (word: { confidence: number }): boolean => word.confidence < settings().doubtfulBelow;

/** Which passage is open for typing, and the word that is selected in it. */
export type Opened = { passage: number; word: number | null };

export type Correcting = {
  desk: CorrectionDesk;
  opened: Opened | null;
  open: (opened: Opened | null) => void;
  /** Opens the next doubtful word after the one that is open, or after the place of the sound. */
  openDoubtful: () => void;
};

export const CorrectingContext = createContext<Correcting | null>(null);

export function useCorrecting(): Correcting {
  const correcting = useContext(CorrectingContext);
  if (!correcting) throw new Error('useCorrecting is used outside a recording.');
  return correcting;
}

export const useDesk = (desk: CorrectionDesk) => useSyncExternalStore(desk.listen, () => desk.state);

/** The desk of a recording, at work as long as its page is open. */
export function useCorrectionDesk(recording: Recording): CorrectionDesk {
  const client = useQueryClient();
  const { id, passages } = recording;
  const [desk] = useState(() => {
    const queryKey = ['recordings', 'one', id];
    const made = new CorrectionDesk(`immeld-corrections:${id}`, {
      show: (shown) => client.setQueryData<Recording>(queryKey, (r) => r && { ...r, passages: withPlaces(shown) }),
      send: (body) => call('rewritePassages', { params: { id }, body }),
      refetch: () => void client.invalidateQueries({ queryKey }),
      storage: localStorage,
    });
    made.begin(passages);
    return made;
  });
  useEffect(() => desk.begin(passages), [desk, passages]);
  useEffect(() => () => desk.close(), [desk]);
  return desk;
}

/** What is not sent yet has no place in the database; the desk knows the real ones. */
const withPlaces = (passages: readonly Passage[]): Recording['passages'] =>
  passages.map((p) => ({ id: 0, revision: 0, ...p }));

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

/** Sound around a doubtful word, so that it is heard in its sentence. */
const AROUND_MS = 500;

/** What is open for correcting, and the keys that lead there. */
export function useCorrectingOf(desk: CorrectionDesk, player: SoundPlayer) {
  const [opened, open] = useState<Opened | null>(null);
  const latest = useRef(opened);
  latest.current = opened;
  const context = useMemo((): Correcting => {
    const openDoubtful = () => {
      const { passages } = desk.state;
      const at = latest.current;
      const { timeMs } = player.getState();
      const found = nextDoubtful(passages, (passage, word) =>
        at
          ? passage > at.passage || (passage === at.passage && word > (at.word ?? -1))
          : passages[passage]!.words[word]!.startMs > timeMs,
      );
      open(found);
      const word = found && passages[found.passage]!.words[found.word!];
      if (word) player.playSpan(Math.max(0, word.startMs - AROUND_MS), word.endMs + AROUND_MS);
    };
    return { desk, opened, open, openDoubtful };
  }, [desk, player, opened]);
  const keys = useMemo(() => ({ d: context.openDoubtful }), [context]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement).closest('input, textarea');
      if (isTyping || event.key.toLowerCase() !== 'z' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      if (event.shiftKey) desk.redo();
      else desk.undo();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [desk]);
  return { context, keys };
}
