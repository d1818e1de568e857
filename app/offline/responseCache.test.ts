import { clearResponses, cacheResponse, cachedResponse, pruneResponses, flushResponses } from './responseCache';

let kept: Map<string, string>;
let puts: number;
const answer = (body: string) => ({ clone: () => body }) as unknown as Response;

beforeEach(() => {
  kept = new Map();
  puts = 0;
  const cache = {
    put: async (address: string, body: string) => {
      puts++;
      // As the browser does it: what is put anew is the newest.
      kept.delete(address);
      kept.set(address, body);
    },
    match: async (address: string) => kept.get(address),
    keys: async () => [...kept.keys()],
    delete: async (address: string) => kept.delete(address),
  };
  Object.assign(globalThis, { caches: { open: async () => cache, delete: async () => kept.clear() } });
});
afterEach(() => {
  jest.useRealTimers();
  delete (globalThis as { caches?: unknown }).caches;
});

it('an answer is written down at once; what is asked for again and again now and then, the newest last', async () => {
  jest.useFakeTimers();
  cacheResponse('/list', answer('one'));
  await jest.advanceTimersByTimeAsync(10);
  expect(kept.get('/list')).toBe('one');
  for (const words of ['two', 'three', 'four']) cacheResponse('/list', answer(words));
  await jest.advanceTimersByTimeAsync(100);
  expect(puts).toBe(1);
  await jest.advanceTimersByTimeAsync(5000);
  expect([puts, kept.get('/list')]).toEqual([2, 'four']);
});

it('what is asked for is the newest, written or not', async () => {
  cacheResponse('/note', answer('before'));
  cacheResponse('/note', answer('after'));
  expect(await cachedResponse('/note')).toBe('after');
  expect(await cachedResponse('/never')).toBeNull();
});

it('goes with whoever it was for, also while it is being written, and does not become more and more', async () => {
  cacheResponse('/mine', answer('mine'));
  void flushResponses();
  await clearResponses();
  expect(kept.size).toBe(0);
  for (let i = 0; i < 310; i++) kept.set(`/${i}`, 'x');
  await pruneResponses();
  expect([kept.size, kept.has('/9'), kept.has('/10')]).toEqual([300, false, true]);
});

it('a browser that has no such place goes without', async () => {
  delete (globalThis as { caches?: unknown }).caches;
  cacheResponse('/list', answer('one'));
  expect(await cachedResponse('/list')).toBeNull();
});
