import { ENDPOINTS, type Answer, type Endpoints } from '@immeld/core/contract/endpoints';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import { cacheResponse, cachedResponse } from '../offline/responseCache';
import { fetchWithSession } from './fetchWithSession';

/** A refusal or failure of the server, or no answer at all, as sentences for the person. */
export class ApiProblem extends Error {
  constructor(
    message: string,
    readonly safe: string,
    readonly status: number | null,
  ) {
    super(message);
    this.name = 'ApiProblem';
  }
}

export const UNREACHABLE = new ApiProblem(
  'Immeld’s server cannot be reached. It may be switched off, or the network may be down.',
  'Everything saved on the server is safe. Immeld tries again automatically.',
  null,
);

type Sent = {
  params?: Record<string, string>;
  query?: Record<string, string | number | undefined>;
  body?: unknown;
  /** Stops the request. */
  signal?: AbortSignal;
};

/** The address of an endpoint with its parameters filled in. */
export function addressOf(key: keyof Endpoints, { params = {}, query = {} }: Sent = {}): string {
  const path = ENDPOINTS[key].path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name] ?? ''));
  const asked = Object.entries(query).flatMap(([k, v]) => (v === undefined || v === '' ? [] : [[k, String(v)]]));
  const search = new URLSearchParams(asked).toString();
  return `/api${path}${search ? `?${search}` : ''}`;
}

/** Calls an endpoint of the contract. Throws ApiProblem. */
export async function call<K extends keyof Endpoints>(key: K, sent: Sent = {}): Promise<Answer<K>> {
  return (await (await answerTo(key, sent)).json()) as Answer<K>;
}

/** What is true only in its moment, or asked for once. */
const NOT_KEPT: ReadonlySet<keyof Endpoints> = new Set(['status', 'listJobs', 'find', 'ask', 'listLinkTargets']);

/** Whether what this endpoint answers is what one gets when asking its address, and worth keeping. */
function isSeen(key: keyof Endpoints): boolean {
  const { method, path, response } = ENDPOINTS[key];
  if (response === null || NOT_KEPT.has(key)) return false;
  const same = Object.values(ENDPOINTS).find((e) => e.method === 'get' && e.path === path);
  return method === 'get' || (method !== 'post' && same?.response === response);
}

/**
 * The answer of an endpoint as it comes, for what is no JSON; `sent.file` are the bytes to send. Where the server does not
 * answer at all, what it answered last. Throws ApiProblem; whoever stops it by `sent.signal` gets UNREACHABLE.
 */
export async function answerTo(key: keyof Endpoints, sent: Sent & { file?: Blob } = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetchWithSession(fetch, addressOf(key, sent), {
      method: ENDPOINTS[key].method.toUpperCase(),
      ...(sent.file ? { body: sent.file } : {}),
      ...(sent.signal ? { signal: sent.signal } : {}),
      ...(sent.body === undefined
        ? {}
        : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(sent.body) }),
    });
  } catch {
    const seen = ENDPOINTS[key].method === 'get' && isSeen(key) ? await cachedResponse(addressOf(key, sent)) : null;
    if (seen) return seen;
    throw UNREACHABLE;
  }
  if (response.ok) {
    if (isSeen(key)) cacheResponse(addressOf(key, sent), response);
    return response;
  }
  const problem = (await response.json().catch(() => null)) as ProblemDetails | null;
  throw new ApiProblem(
    problem?.detail ?? `The server reported error ${response.status}.`,
    problem?.safe ?? 'Your recordings are safe.',
    response.status,
  );
}
