import type { ProblemDetails } from '@immeld/core/contract/problem';
import { clearResponses } from '../offline/responseCache';

const GUEST = '/api/session/guest';
const LOCK = 'immeld-guest';

let becoming: Promise<void> | null = null;

/** Makes this device a guest, once, whatever number of requests found out at the same time that it is none. */
async function beGuest(fetcher: typeof fetch): Promise<void> {
  const ask = async () => {
    await clearResponses();
    await fetcher(GUEST, { method: 'POST' });
  };
  becoming ??= ('locks' in navigator ? navigator.locks.request(LOCK, ask) : ask()).finally(() => {
    becoming = null;
  });
  return becoming;
}

/** Asks the server; on the very first visit it first becomes a guest there, without anybody having to sign up. */
export async function fetchWithSession(fetcher: typeof fetch, address: string, init: RequestInit): Promise<Response> {
  const response = await fetcher(address, init);
  if (response.status !== 401) return response;
  const problem = (await response
    .clone()
    .json()
    .catch(() => null)) as ProblemDetails | null;
  if (problem?.code !== 'signed-out') return response;
  await beGuest(fetcher);
  return fetcher(address, init);
}
