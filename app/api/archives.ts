import type { RestoreJob } from '@immeld/core/contract/archiveEndpoints';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ApiProblem, call } from './call';

const WHILE_WORKING_MS = 500;
const UPLOADS = '/api/uploads';
/** Waits before another try, when the line breaks. */
const RETRY_MS = [1000, 3000, 5000, 10_000, 20_000];

export const useScheduledBackups = () =>
  useQuery({ queryKey: ['archives', 'kept'], queryFn: () => call('getKeptArchives') });

/** Begins to keep everything in one file; what is made is fetched as any export. */
export function useMakeBackup() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (passphrase: string | null) => call('makeArchive', { body: { passphrase } }),
    onSuccess: (made) => client.setQueryData(['exports', made.id], made),
  });
}

/** Sends an archive to the server in pieces. @returns the id by which the server names it */
async function sendArchive(file: File, onProgress: (share: number) => void, signal: AbortSignal): Promise<string> {
  // Of use only here, so it is loaded only here.
  const { Upload } = await import('tus-js-client');
  // Whoever sends is somebody by now.
  await call('getAccount');
  return new Promise((resolve, reject) => {
    const upload = new Upload(file, {
      endpoint: UPLOADS,
      chunkSize: 8 * 1024 * 1024,
      retryDelays: RETRY_MS,
      storeFingerprintForResuming: false,
      metadata: { filename: file.name, filetype: file.type, archive: '1' },
      onProgress: (sent, total) => onProgress(total ? sent / total : 0),
      onError: () =>
        reject(new ApiProblem('The server cannot be reached, so the file was not sent.', 'Nothing was changed.', null)),
      onSuccess: ({ lastResponse }) => {
        const id = lastResponse.getHeader('Immeld-Archive');
        if (id) resolve(id);
        else reject(new ApiProblem('The server rejected the file.', 'Nothing was changed.', null));
      },
    });
    signal.addEventListener('abort', () => void upload.abort(true).catch(() => undefined));
    upload.start();
  });
}

export type RestoreState =
  | { step: 'idle' }
  | { step: 'sending'; share: number; name: string }
  | { step: 'working'; view: RestoreJob }
  | { step: 'failed'; error: unknown };

/** An archive that comes back: sent, checked and put in, with how far it is. */
export function useRestore() {
  const client = useQueryClient();
  const [state, setState] = useState<RestoreState>({ step: 'idle' });
  const sending = useRef<AbortController | null>(null);
  const id = state.step === 'working' && state.view.state === 'working' ? state.view.id : null;
  useEffect(() => () => sending.current?.abort(), []);
  useEffect(() => {
    if (!id) return;
    const timer = setInterval(async () => {
      try {
        const view = await call('getBringingBack', { params: { id } });
        setState({ step: 'working', view });
        if (view.state === 'done') await client.invalidateQueries();
      } catch (error) {
        // A server that is silent for a moment goes on working.
        if (error instanceof ApiProblem && error.status !== null) setState({ step: 'failed', error });
      }
    }, WHILE_WORKING_MS);
    return () => clearInterval(timer);
  }, [id, client]);
  const begin = async (archiveId: string, passphrase: string | null) => {
    try {
      const view = await call('bringArchiveBack', { params: { id: archiveId }, body: { passphrase } });
      setState({ step: 'working', view });
    } catch (error) {
      setState({ step: 'failed', error });
    }
  };
  return {
    state,
    begin,
    send: async (file: File) => {
      const stop = (sending.current = new AbortController());
      setState({ step: 'sending', share: 0, name: file.name });
      try {
        const progress = (share: number) =>
          !stop.signal.aborted && setState({ step: 'sending', share, name: file.name });
        await begin(await sendArchive(file, progress, stop.signal), null);
      } catch (error) {
        if (!stop.signal.aborted) setState({ step: 'failed', error });
      }
    },
    stop: () => {
      sending.current?.abort();
      setState({ step: 'idle' });
    },
  };
}
