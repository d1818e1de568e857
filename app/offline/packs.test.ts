/** @jest-environment node */
import { createHash } from 'node:crypto';
import type { Pack } from '@immeld/core/contract/captures';
import { PackShelf } from './packs';

const content: Record<string, Buffer> = {
  '/packs/one/encoder.onnx': Buffer.from('the encoder'),
  '/packs/one/step.onnx': Buffer.from('the decoder, step by step'),
};
const pack: Pack = {
  ...{ name: 'one', title: 'English', language: 'en', licence: 'MIT' },
  files: Object.entries(content).map(([address, bytes]) => ({
    ...{ address, sizeBytes: bytes.length, sentBytes: bytes.length },
    sha256: createHash('sha256').update(bytes).digest('hex'),
  })),
};

/** A browser's cache in a map, and a server that can be away or spoil what it sends. */
let kept: Map<string, Response>;
let isAway: boolean;
let fetched: string[];
let spoil: (bytes: Buffer) => Buffer;

beforeEach(() => {
  kept = new Map();
  isAway = false;
  fetched = [];
  spoil = (bytes) => bytes;
  const cache = {
    match: async (address: string) => kept.get(address)?.clone(),
    put: async (address: string, response: Response) => void kept.set(address, response),
    delete: async (address: string) => kept.delete(address),
  };
  Object.assign(globalThis, {
    navigator: {},
    caches: { open: async () => cache },
    fetch: async (address: string) => {
      if (isAway) throw new TypeError('away');
      if (address === '/api/packs') return Response.json({ items: [pack] });
      fetched.push(address);
      return new Response(new Uint8Array(spoil(content[address]!)));
    },
  });
});

describe('the pack on this device', () => {
  it('is absent at first, fetched once with its progress, and then present', async () => {
    const shelf = new PackShelf();
    await shelf.look();
    expect(shelf.state.state).toBe('absent');
    const shares: number[] = [];
    shelf.subscribe(() => shelf.state.state === 'fetching' && shares.push(shelf.state.share));
    await shelf.fetch();
    expect(shelf.state.state).toBe('present');
    expect(shares.at(-1)).toBe(1);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    await shelf.fetch();
    expect(fetched).toHaveLength(2);
  });

  it('is known without a network, once it was here', async () => {
    const before = new PackShelf();
    await before.look();
    await before.fetch();
    isAway = true;
    const after = new PackShelf();
    await after.look();
    expect(after.state.state).toBe('present');
    expect(after.pack?.name).toBe('one');
  });

  it('is refused when it arrives damaged, and what was good is not fetched twice', async () => {
    const shelf = new PackShelf();
    await shelf.look();
    spoil = (bytes) => (bytes.toString().includes('decoder') ? Buffer.from('nonsense') : bytes);
    await shelf.fetch();
    expect(shelf.state).toMatchObject({ state: 'failed', problem: expect.stringContaining('did not arrive whole') });
    spoil = (bytes) => bytes;
    await shelf.fetch();
    expect(shelf.state.state).toBe('present');
    expect(fetched.filter((a) => a.includes('encoder'))).toHaveLength(1);
  });

  it('can be removed, and is then absent', async () => {
    const shelf = new PackShelf();
    await shelf.look();
    await shelf.fetch();
    await shelf.remove();
    expect(shelf.state.state).toBe('absent');
    const again = new PackShelf();
    await again.look();
    expect(again.state.state).toBe('absent');
  });

  it('is said to be unknown only when it was looked for in vain', async () => {
    const shelf = new PackShelf();
    expect(shelf.state.state).toBe('looking');
    isAway = true;
    await shelf.look();
    expect(shelf.state.state).toBe('unknown');
  });
});
