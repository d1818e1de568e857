import { useQueryClient } from '@tanstack/react-query';
import {
  type ReactNode,
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { refreshSoon } from '../api/refreshSoon';
import { isVideo } from '../capture/importFiles';
import type { CaptureEngine } from '../capture/captureEngine';
import type { CaptureNow } from '../capture/captureNow';
import type { Elsewhere } from '../capture/recordingChannel';
import type { LiveTextState } from '../capture/liveText';
import { type Capture, captureOf } from './captures';
import type { CaptureStore } from './captureStore';
import { type Device, openDevice } from './device';
import type { PackState } from './packs';

const DeviceContext = createContext<Device | null>(null);

/** Opens what this device keeps, and shows the app as soon as it is there. */
export function DeviceProvider({ children }: { children: ReactNode }) {
  const [device, setDevice] = useState<Device | null>(null);
  useEffect(() => {
    void openDevice().then(setDevice);
  }, []);
  return device && <DeviceContext.Provider value={device}>{children}</DeviceContext.Provider>;
}

export function useDevice(): Device {
  const device = useContext(DeviceContext);
  if (!device) throw new Error('useDevice is used outside DeviceProvider.');
  return device;
}

export const useCapture = (): CaptureEngine => useDevice().engine;

/** A part of what is being recorded; the component is drawn again only when this part changes. */
export function useCaptureNow<T>(select: (now: CaptureNow) => T): T {
  const engine = useCapture();
  const read = () => select(engine.state);
  return useSyncExternalStore(engine.subscribe, read, read);
}

export const isCapturing = ({ stage }: CaptureNow): boolean => stage !== 'idle' && stage !== 'starting';

export function useLiveText(): LiveTextState {
  const { live } = useDevice();
  const read = () => live.state;
  return useSyncExternalStore(live.subscribe, read, read);
}

export function usePackState(): PackState {
  const { packs } = useDevice();
  const read = () => packs.state;
  return useSyncExternalStore(packs.subscribe, read, read);
}

/** What another tab of this browser records; null where none does. */
export function useElsewhere(): Elsewhere | null {
  const { channel } = useDevice();
  const read = () => channel.elsewhere;
  return useSyncExternalStore(channel.subscribe, read, read);
}

export type OutboxItem = Capture & { sentBytes: number; isOnlyInPage: boolean };

type OutboxUse = {
  /** Newest first, without the recording that is going on, or may go on, and what was thrown away. */
  items: readonly OutboxItem[];
  /** Cut off a short while ago: to go on, or to be finished. */
  stopped: readonly Capture[];
  /** Thrown away, newest first; kept for thirty days. */
  thrown: readonly Capture[];
  /** Names of videos whose sound is being taken out. */
  preparing: readonly string[];
  /** Takes files in; they stay on this device until the server has confirmed them. */
  send: (files: readonly File[], details?: Record<string, string>) => Promise<void>;
  /** Sends what was not sent, was thrown away, or stopped. */
  retry: (id: string) => Promise<void>;
  dismiss: (id: string) => Promise<void>;
};

const OutboxContext = createContext<OutboxUse | null>(null);

export function useOutbox(): OutboxUse {
  const outbox = useContext(OutboxContext);
  if (!outbox) throw new Error('useOutbox is used outside OutboxProvider.');
  return outbox;
}

/** Keeps the list of what waits on this device true, and refreshes the places when something has arrived. */
export function OutboxProvider({ children }: { children: ReactNode }) {
  const { store, outbox, progress, subscribeToProgress } = useDevice();
  const client = useQueryClient();
  const [captures, setCaptures] = useState<readonly Capture[]>([]);
  const [preparing, setPreparing] = useState<readonly string[]>([]);
  const [, drawAgain] = useState(0);
  const arrived = useRef(new Set<string>());

  useEffect(() => {
    let isGone = false;
    let isFirst = true;
    const read = async () => {
      const all = await store.list();
      if (isGone) return;
      setCaptures(all);
      const fresh = all.filter((c) => c.state === 'sent' && !arrived.current.has(c.id));
      fresh.forEach((c) => arrived.current.add(c.id));
      if (fresh.length && !isFirst) refreshSoon(client);
      // What had arrived before this page was opened is old news.
      if (isFirst) for (const { id, hereSince } of fresh) if (!hereSince) void store.remove(id);
      isFirst = false;
    };
    void read();
    const stop = [store.subscribe(() => void read()), subscribeToProgress(() => drawAgain((n) => n + 1))];
    return () => {
      isGone = true;
      stop.forEach((end) => end());
    };
  }, [store, client, subscribeToProgress]);

  const send = useCallback(
    async (files: readonly File[], details: Record<string, string> = {}) => {
      const videos = details['appendTo'] || details['videoOf'] ? [] : files.filter(isVideo);
      setPreparing((names) => [...names, ...videos.map((v) => v.name)]);
      for (const file of files.filter((f) => !videos.includes(f))) await store.addFile(captureOf(file, details), file);
      const others = outbox.wake();
      for (const video of videos) {
        await sendVideo(store, video, details);
        setPreparing((names) => names.filter((name) => name !== video.name));
      }
      await others;
      if (videos.length) await outbox.wake();
    },
    [store, outbox],
  );
  const items = captures
    .filter((c) => c.state !== 'recording' && c.state !== 'stopped' && c.state !== 'thrown')
    .map((c) => ({ ...c, sentBytes: progress.get(c.id) ?? 0, isOnlyInPage: store.isOnlyInPage(c.id) }))
    .reverse();
  const stopped = captures.filter((c) => c.state === 'stopped');
  const thrown = captures.filter((c) => c.state === 'thrown').reverse();
  const changes = useMemo(
    () => ({
      retry: async (id: string) => {
        await store.change(id, { state: 'waiting', problem: null, uploadAddress: null, thrownAt: null });
        await outbox.wake();
      },
      dismiss: (id: string) => store.remove(id),
    }),
    [store, outbox],
  );
  return (
    <OutboxContext.Provider value={{ items, stopped, thrown, preparing, send, ...changes }}>
      {children}
    </OutboxContext.Provider>
  );
}

/** Sends the sound of a video and keeps the video here, so that less is sent; where that cannot be, all of it. */
async function sendVideo(store: CaptureStore, video: File, details: Record<string, string>): Promise<void> {
  const { soundTrackOf } = await import('../capture/soundTrack');
  const track = await soundTrackOf(video);
  if (track) {
    const capture = captureOf(track.file, { ...details, ...(track.place ? { place: track.place } : {}) });
    if (track.madeAt) capture.startedAt = track.madeAt;
    if (await store.keepVideo(capture.id, video)) return store.addFile(capture, track.file);
  }
  return store.addFile(captureOf(video, details), video);
}
