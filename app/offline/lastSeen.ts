const SEEN = 'immeld-seen';
const MOST = 300;

const opened = async (): Promise<Cache | null> => (await globalThis.caches?.open(SEEN).catch(() => null)) ?? null;

/** Keeps an answer of the server on this device, for when it does not answer. The newest one of an address stays. */
export async function keepSeen(address: string, answer: Response): Promise<void> {
  if (!globalThis.caches) return;
  // Before anybody has read it.
  const copy = answer.clone();
  // A device without room goes without.
  await (await opened())?.put(address, copy).catch(() => undefined);
}

/** What the server answered last, null when it never did here. */
export const lastSeen = async (address: string): Promise<Response | null> =>
  (await (await opened())?.match(address)) ?? null;

/** What was seen longest ago goes, so that it does not become more and more. */
export async function thinOutSeen(): Promise<void> {
  const cache = await opened();
  const known = (await cache?.keys()) ?? [];
  for (const old of known.slice(0, Math.max(0, known.length - MOST))) await cache!.delete(old);
}

/** Somebody else is here now: what was seen before is not for them. */
export async function forgetSeen(): Promise<void> {
  await globalThis.caches?.delete(SEEN).catch(() => false);
}
