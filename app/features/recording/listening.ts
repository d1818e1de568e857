import type { Recording } from '@immeld/core/contract/recordings';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { type Pause, pausesOf } from '@immeld/core/transcript/pauses';
import { useEffect, useMemo } from 'react';
import { useSettings } from '../../settings/settings';
import type { SoundPlayer } from './soundPlayer';

/** A place this near to either end is none to come back to. */
const NEAR_END_MS = 5000;

/** Goes to where one stopped listening on this device, and remembers where one stops now. */
export function useRememberedPlace(player: SoundPlayer, id: string, isWanted: boolean): void {
  useEffect(() => {
    const key = `immeld-place:${id}`;
    const kept = Number(localStorage.getItem(key));
    const { durationMs } = player.getState();
    if (isWanted && kept > NEAR_END_MS && kept < (durationMs ?? 0) - NEAR_END_MS) player.seek(kept);
    let last = -1;
    return player.subscribe(() => {
      const second = Math.floor(player.getState().timeMs / 1000);
      if (second === last) return;
      last = second;
      try {
        localStorage.setItem(key, String(second * 1000));
      } catch {
        // A browser that keeps nothing begins at the beginning.
      }
    });
  }, [player, id, isWanted]);
}

/** The pauses that may be left out; asides are spoken, so they are none. */
export function usePauses(
  player: SoundPlayer,
  passages: readonly Passage[],
  { slips, durationMs, draft }: Recording,
): Pause[] {
  const { skipsPauses, pauseMs } = useSettings();
  const pauses = useMemo(() => {
    const asides = slips
      .filter((s) => s.kind === 'aside')
      .map(({ startMs, endMs }) => ({ startMs, endMs: endMs ?? startMs }));
    const spoken = [...passages.flatMap((p) => p.words), ...asides].sort((a, b) => a.startMs - b.startMs);
    // Where words are still to come, nobody knows of a pause.
    const knownMs = draft === 'server' ? (spoken.at(-1)?.endMs ?? 0) : durationMs;
    return pausesOf(spoken, pauseMs, knownMs);
  }, [passages, slips, durationMs, draft, pauseMs]);
  useEffect(() => player.leaveOut(skipsPauses ? pauses : []), [player, pauses, skipsPauses]);
  return pauses;
}
