const SEEN = 'immeld-seen';
const MOST = 300;
/** Lists are asked for again and again while things arrive: an address is written down so often at most. */
const WRITTEN_EVERY_MS = 3000;
const unwritten = new Map<string, Response>();
const writtenAt = new Map<string, number>();

const opened = async (): Promise<Cache | null> => (await globalThis.caches?.open(SEEN).catch(() => null)) ?? null;

/** Keeps an answer of the server on this device, for when it does not answer. The newest one of an address stays. */
export function cacheResponse(address: string, answer: Response): void {
  if (!globalThis.caches) return;
  const isWaiting = unwritten.size > 0;
  // Before anybody has read it.
  unwritten.set(address, answer.clone());
  if (Date.now() - (writtenAt.get(address) ?? 0) > WRITTEN_EVERY_MS) void flushResponses();
  else if (!isWaiting) setTimeout(() => void flushResponses(), WRITTEN_EVERY_MS);
}

let writing: Promise<void> = Promise.resolve();

/** Writes down now what was seen; one after the other, so that the newest is the last. */
export function flushResponses(): Promise<void> {
  const answers = [...unwritten];
  unwritten.clear();
  for (const [address] of answers) writtenAt.set(address, Date.now());
  writing = writing.then(async () => {
    const cache = await opened();
    // A device without room goes without.
    for (const [address, answer] of answers) await cache?.put(address, answer).catch(() => undefined);
  });
  return writing;
}

/** What the server answered last, null when it never did here. */
export async function cachedResponse(address: string): Promise<Response | null> {
  await flushResponses();
  return (await (await opened())?.match(address)) ?? null;
}

/** What was seen longest ago goes, so that it does not become more and more. */
export async function pruneResponses(): Promise<void> {
  const cache = await opened();
  const known = (await cache?.keys()) ?? [];
  for (const old of known.slice(0, Math.max(0, known.length - MOST))) await cache!.delete(old);
}

/** Somebody else is here now: what was seen before is not for them. */
export function clearResponses(): Promise<void> {
  unwritten.clear();
  writing = writing.then(async () => {
    await globalThis.caches?.delete(SEEN).catch(() => false);
  });
  return writing;
}
