import { CaptureEngine } from '../capture/captureEngine';
import { RecordingChannel } from '../capture/recordingChannel';
import { openSources } from '../capture/sources';
import { sendWords } from './sender';
import { captureLock } from '../capture/recordingLocks';
import { LiveText } from '../capture/liveText';
import type { Capture } from './captures';
import { CaptureStore } from './captureStore';
import { Outbox, SYNC_TAG } from './outbox';
import { ModelPackStore } from './packs';
import { Listeners } from '../state/listeners';

/** What this device can do by itself: keep, record, recognise and send later. One for the whole page. */
export type Device = {
  store: CaptureStore;
  outbox: Outbox;
  /** Bytes sent so far, by capture. */
  progress: Map<string, number>;
  packs: ModelPackStore;
  live: LiveText;
  engine: CaptureEngine;
  /** What other tabs record. */
  channel: RecordingChannel;
  /** Recordings that were cut off and came back when this page was opened. */
  recovered: readonly Capture[];
  subscribeToProgress: (listener: () => void) => () => void;
};

export async function openDevice(): Promise<Device> {
  const store = await CaptureStore.open();
  const progress = new Map<string, number>();
  const sending = new Listeners();
  const outbox = new Outbox(store, {
    onProgress: (id, sent) => {
      progress.set(id, sent);
      sending.tell();
    },
  });
  const live = new LiveText();
  const packs = new ModelPackStore();
  const engine = new CaptureEngine(
    store,
    live,
    () => {
      void outbox.wake();
      void askForSync();
    },
    openSources,
    sendWords,
  );
  const channel = new RecordingChannel(engine);
  const held = new Set(
    'locks' in navigator ? ((await navigator.locks.query()).held ?? []).map((lock) => lock.name ?? '') : [],
  );
  const recovered = await store.recover((id) => held.has(captureLock(id)));
  window.addEventListener('online', () => void outbox.wake());
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void outbox.wake();
  });
  void outbox.wake();
  void packs.refresh();
  return {
    ...{ store, outbox, progress, packs, live, engine, channel, recovered },
    subscribeToProgress: sending.subscribe,
  };
}

/** Asks the browser to send what waits when the network is back, even with the page closed, where it can. */
async function askForSync(): Promise<void> {
  const registration = await navigator.serviceWorker?.ready.catch(() => null);
  const { sync } = (registration ?? {}) as { sync?: { register: (tag: string) => Promise<void> } };
  await sync?.register(SYNC_TAG).catch(() => undefined);
}
