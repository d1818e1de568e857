import type { ListedName } from '@immeld/core/speech/names/nameCandidates';
import { useEffect } from 'react';
import { useSharedSettings } from '../api/queries';
import type { LiveText } from '../capture/liveText';
import { writeStored, readStored } from '../settings/stored';
import { settings } from '../settings/settings';
import { useCaptureNow, useDevice, usePackState } from './deviceContext';

/** Listed names are heard without a network, too. */
const NAMES = 'immeld-names';
/** A page that has just opened has other things to do; one that never comes to rest does not put it off for longer. */
const SETTLING_MS = 1500;
/** A page that nobody has seen for so long gives the memory of its model back. */
const LONG_HIDDEN_MS = 5 * 60_000;
/** Loaded, the pack takes some hundred megabytes: devices with fewer gigabytes load it when somebody speaks. */
const ENOUGH_GIGABYTES = 3;

/**
 * Has the pack ready before somebody speaks: loading takes seconds, and what is said meanwhile would appear late. It
 * is fetched when it may be, as soon as somebody records, or at once when an older one is here.
 */
export function usePackForRecording(): void {
  const { packs, live } = useDevice();
  const { state } = usePackState();
  const isIdle = useCaptureNow(({ stage }) => stage === 'idle');
  const names = useSharedSettings().data?.names;
  useEffect(() => {
    if (names) writeStored(NAMES, names);
    live.expectNames(names ?? readStored<ListedName[]>(NAMES) ?? []);
  }, [names, live]);
  useEffect(() => {
    const { pack } = packs;
    if (state === 'absent' && (!isIdle || packs.isOutdated) && settings().fetchesPack && !isPaidByVolume()) {
      void packs.fetch();
    }
    if (state !== 'present' || !pack) return;
    if (!isIdle) return live.load(pack);
    if (hasEnoughMemory()) return readyWhileSeen(live, () => live.load(pack));
  }, [isIdle, state, packs, live]);
}

/** Loads once the page is seen and has settled, and takes out of memory what a page hidden for long does not need. */
export function readyWhileSeen(live: Pick<LiveText, 'unload' | 'isListening'>, load: () => void): () => void {
  let forget = () => undefined as void;
  const look = () => {
    forget();
    if (document.visibilityState === 'visible') forget = whenIdle(load);
    else {
      const timer = setTimeout(() => live.isListening || live.unload(), LONG_HIDDEN_MS);
      forget = () => clearTimeout(timer);
    }
  };
  look();
  document.addEventListener('visibilitychange', look);
  return () => {
    forget();
    document.removeEventListener('visibilitychange', look);
  };
}

/** Calls when the page has drawn and has nothing else to do. @returns forgets it */
function whenIdle(call: () => void): () => void {
  if (typeof requestIdleCallback === 'undefined') {
    const timer = setTimeout(call, SETTLING_MS);
    return () => clearTimeout(timer);
  }
  const waiting = requestIdleCallback(call, { timeout: SETTLING_MS });
  return () => cancelIdleCallback(waiting);
}

function hasEnoughMemory(): boolean {
  const { deviceMemory } = navigator as { deviceMemory?: number };
  return deviceMemory === undefined || deviceMemory > ENOUGH_GIGABYTES;
}

function isPaidByVolume(): boolean {
  const { connection } = navigator as { connection?: { saveData?: boolean; type?: string } };
  return connection?.saveData === true || connection?.type === 'cellular';
}
