import { useQueryClient } from '@tanstack/react-query';
import { type ReactNode, createContext, useCallback, useContext, useMemo, useRef, useState } from 'react';
import * as tus from 'tus-js-client';
import { localTime } from '../ui/dates';

export type UploadItem = {
  id: string;
  name: string;
  bytes: number;
  sent: number;
  state: 'sending' | 'retrying' | 'done' | 'already-here' | 'failed';
  recordingId: string | null;
  /** Local time at which the same sound came in before. */
  hereSince: string | null;
  problem: string | null;
};

type UploadMeta = { startedAt?: string; durationMs?: number; source: 'speak' | 'import' };

type Uploads = {
  items: UploadItem[];
  /** Sends a sound; it stays in this page until the server has it whole. */
  send: (sound: Blob, name: string, meta: UploadMeta) => void;
  retry: (id: string) => void;
  dismiss: (id: string) => void;
};

const UploadContext = createContext<Uploads | null>(null);
export function useUploads(): Uploads {
  const uploads = useContext(UploadContext);
  if (!uploads) throw new Error('useUploads is used outside UploadProvider.');
  return uploads;
}

const CHUNK_BYTES = 8 * 1024 * 1024;
/** Waits between tries, the last one again and again: a server that comes back in an hour still gets the sound. */
const RETRY_MS = [1000, 2000, 4000, 8000, 15_000, ...Array.from({ length: 240 }, () => 30_000)];

export function UploadProvider({ children }: { children: ReactNode }) {
  const [items, setItems] = useState<UploadItem[]>([]);
  const running = useRef(new Map<string, tus.Upload>());
  const client = useQueryClient();

  const send = useCallback<Uploads['send']>(
    (sound, name, meta) => {
      const id = crypto.randomUUID();
      const change = (part: Partial<UploadItem>) =>
        setItems((all) => all.map((item) => (item.id === id ? { ...item, ...part } : item)));
      const item: UploadItem = {
        ...{
          id,
          name,
          bytes: sound.size,
          sent: 0,
          state: 'sending',
          recordingId: null,
          hereSince: null,
          problem: null,
        },
      };
      setItems((all) => [item, ...all]);
      const upload = new tus.Upload(sound, {
        endpoint: '/api/uploads',
        chunkSize: CHUNK_BYTES,
        retryDelays: RETRY_MS,
        removeFingerprintOnSuccess: true,
        metadata: {
          filename: name,
          filetype: sound.type || 'application/octet-stream',
          startedAt: meta.startedAt ?? localTime(sound instanceof File ? new Date(sound.lastModified) : new Date()),
          source: meta.source,
          ...(meta.durationMs ? { durationMs: String(Math.round(meta.durationMs)) } : {}),
        },
        onProgress: (sent) => change({ sent, state: 'sending', problem: null }),
        onShouldRetry: (error) => {
          const status = error.originalResponse?.getStatus() ?? 0;
          if (status >= 400 && status < 500 && status !== 409 && status !== 423) return false;
          change({
            state: 'retrying',
            problem: 'The server does not answer. Trying again by itself; keep this page open.',
          });
          return true;
        },
        onError: (error) =>
          change({ state: 'failed', problem: `Not sent: ${plainReason(error)} The file on this device is unchanged.` }),
        onSuccess: ({ lastResponse }) => {
          const hereSince = lastResponse.getHeader('Immeld-Already-Here') ?? null;
          change({
            sent: sound.size,
            state: hereSince ? 'already-here' : 'done',
            recordingId: lastResponse.getHeader('Immeld-Recording') ?? null,
            hereSince,
          });
          running.current.delete(id);
          for (const queryKey of [['recordings'], ['shelves'], ['jobs']]) void client.invalidateQueries({ queryKey });
        },
      });
      running.current.set(id, upload);
      void upload.findPreviousUploads().then((previous) => {
        const earlier = previous[0];
        if (earlier) upload.resumeFromPreviousUpload(earlier);
        upload.start();
      });
    },
    [client],
  );

  const value = useMemo<Uploads>(
    () => ({
      items,
      send,
      retry: (id) => {
        setItems((all) => all.map((item) => (item.id === id ? { ...item, state: 'sending', problem: null } : item)));
        running.current.get(id)?.start();
      },
      dismiss: (id) => {
        running.current.delete(id);
        setItems((all) => all.filter((item) => item.id !== id));
      },
    }),
    [items, send],
  );
  return <UploadContext.Provider value={value}>{children}</UploadContext.Provider>;
}

function plainReason(error: Error): string {
  const status = error instanceof tus.DetailedError ? error.originalResponse?.getStatus() : undefined;
  if (status === 413) return 'it is larger than 20 GB.';
  if (status) return `the server refused it (error ${status}).`;
  return 'the file could not be read or the server did not answer.';
}
