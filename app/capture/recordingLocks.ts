/** What a recording holds of the device while it goes on: a lock that other pages see, the screen, and room to write. */

const CAPTURES = 'immeld-capture-';

/** Under this name a page holds the lock of a recording that it is making. */
export const captureLock = (id: string): string => `${CAPTURES}${id}`;

/**
 * Holds a lock for as long as this page lives, so that other pages see that the recording goes on.
 * @returns lets it go; does nothing where the browser has no locks
 */
export async function heldLock(name: string): Promise<() => void> {
  if (!('locks' in navigator)) return () => undefined;
  return new Promise((ready) => {
    void navigator.locks.request(name, () => new Promise<void>((release) => ready(release)));
  });
}

/** Whether a page of this browser records already; false where the browser has no locks. */
export async function isRecordingElsewhere(): Promise<boolean> {
  if (!('locks' in navigator)) return false;
  const { held = [] } = await navigator.locks.query();
  return held.some((lock) => lock.name?.startsWith(CAPTURES));
}

/**
 * Has the browser ask before the page is left or loaded again, as the recording would end.
 * @returns lets the page go
 */
export function asksBeforeLeaving(): () => void {
  if (typeof window === 'undefined') return () => undefined;
  const ask = (event: BeforeUnloadEvent) => event.preventDefault();
  window.addEventListener('beforeunload', ask);
  return () => window.removeEventListener('beforeunload', ask);
}

/**
 * Keeps the screen on, as one that switches itself off stops recordings on many phones; the system takes the hold away
 * from a page that is not seen, so it is asked for again when the page comes back.
 * @returns lets the screen go
 */
export function keepScreenOn(): () => void {
  let isOver = false;
  let held: WakeLockSentinel | null = null;
  const hold = async () => {
    if (isOver || document.visibilityState !== 'visible') return;
    held = (await navigator.wakeLock?.request('screen').catch(() => null)) ?? null;
    if (isOver) void held?.release();
  };
  const again = () => void hold();
  document.addEventListener('visibilitychange', again);
  void hold();
  return () => {
    isOver = true;
    document.removeEventListener('visibilitychange', again);
    void held?.release();
  };
}

const LITTLE_SPACE = 60 * 1024 ** 2;
const NO_SPACE = 8 * 1024 ** 2;

/** Whether there is room to go on recording; minutes that fit when it is getting narrow. */
export type Room = { state: 'plenty' } | { state: 'little'; minutes: number } | { state: 'none' };

/**
 * Asks the browser how much room this site has left.
 * @param bitsPerSecond of what is being recorded
 */
export async function roomToRecord(bitsPerSecond: number): Promise<Room> {
  const estimate = await navigator.storage?.estimate?.().catch(() => null);
  if (!estimate?.quota) return { state: 'plenty' };
  const free = estimate.quota - (estimate.usage ?? 0);
  if (free < NO_SPACE) return { state: 'none' };
  if (free >= LITTLE_SPACE) return { state: 'plenty' };
  return { state: 'little', minutes: Math.max(1, Math.floor((free - NO_SPACE) / (bitsPerSecond / 8) / 60)) };
}
