/** @jest-environment node */
import { createHash } from 'node:crypto';
import type { Pack } from '@immeld/core/contract/captures';
import { ModelPackStore } from './packs';

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
let offered: Pack;
let isAway: boolean;
let fetched: string[];
let spoil: (bytes: Buffer) => Buffer;

beforeEach(() => {
  kept = new Map();
  offered = pack;
  isAway = false;
  fetched = [];
  spoil = (bytes) => bytes;
  const cache = {
    match: async (address: string) => kept.get(address)?.clone(),
    put: async (address: string, response: Response) => void kept.set(address, response),
    delete: async (address: string) => kept.delete(address),
    keys: async () => [...kept.keys()].map((address) => ({ url: `http://immeld.example${address}` })),
  };
  Object.assign(globalThis, {
    navigator: {},
    caches: { open: async () => cache },
    fetch: async (address: string) => {
      if (isAway) throw new TypeError('away');
      if (address === '/api/packs') return Response.json({ items: [offered] });
      fetched.push(address);
      return new Response(new Uint8Array(spoil(content[address]!)));
    },
  });
});

describe('the pack on this device', () => {
  it('is absent at first, fetched once with its progress, and then present', async () => {
    const shelf = new ModelPackStore();
    await shelf.refresh();
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
    const before = new ModelPackStore();
    await before.refresh();
    await before.fetch();
    isAway = true;
    const after = new ModelPackStore();
    await after.refresh();
    expect(after.state.state).toBe('present');
    expect(after.pack?.name).toBe('one');
  });

  it('is refused when it arrives damaged, and what was good is not fetched twice', async () => {
    const shelf = new ModelPackStore();
    await shelf.refresh();
    spoil = (bytes) => (bytes.toString().includes('decoder') ? Buffer.from('nonsense') : bytes);
    await shelf.fetch();
    expect(shelf.state).toMatchObject({
      state: 'failed',
      problem: expect.stringContaining('download of the pack is incomplete'),
    });
    const later = new ModelPackStore();
    await later.refresh();
    expect([later.state.state, later.isOutdated]).toEqual(['absent', false]);
    spoil = (bytes) => bytes;
    await shelf.fetch();
    expect(shelf.state.state).toBe('present');
    expect(fetched.filter((a) => a.includes('encoder'))).toHaveLength(1);
  });

  it('can be removed, and is then absent', async () => {
    const shelf = new ModelPackStore();
    await shelf.refresh();
    await shelf.fetch();
    await shelf.remove();
    expect(shelf.state.state).toBe('absent');
    const again = new ModelPackStore();
    await again.refresh();
    expect(again.state.state).toBe('absent');
  });

  it('gives way to a newer one of the server: only what differs is fetched, nothing older stays', async () => {
    const before = new ModelPackStore();
    await before.refresh();
    await before.fetch();
    const newStep = Buffer.from('a better decoder');
    content['/packs/one/step-2.onnx'] = newStep;
    offered = {
      ...pack,
      files: [
        pack.files[0]!,
        {
          ...{ address: '/packs/one/step-2.onnx', sizeBytes: newStep.length, sentBytes: newStep.length },
          sha256: createHash('sha256').update(newStep).digest('hex'),
        },
      ],
    };
    const after = new ModelPackStore();
    await after.refresh();
    expect([after.state.state, after.isOutdated]).toEqual(['absent', true]);
    fetched = [];
    await after.fetch();
    expect([after.state.state, after.isOutdated]).toEqual(['present', false]);
    expect(fetched).toEqual(['/packs/one/step-2.onnx']);
    expect([...kept.keys()].sort()).toEqual(['/api/packs', '/packs/one/encoder.onnx', '/packs/one/step-2.onnx']);
  });

  it('is replaced when a file of the same address has changed', async () => {
    const before = new ModelPackStore();
    await before.refresh();
    await before.fetch();
    const changed = Buffer.from('the encoder, trained for longer');
    const was = content['/packs/one/encoder.onnx']!;
    content['/packs/one/encoder.onnx'] = changed;
    const sha256 = createHash('sha256').update(changed).digest('hex');
    offered = { ...pack, files: [{ ...pack.files[0]!, sha256 }, pack.files[1]!] };
    const after = new ModelPackStore();
    await after.refresh();
    expect(after.isOutdated).toBe(true);
    await after.fetch();
    expect(await kept.get('/packs/one/encoder.onnx')!.clone().text()).toBe('the encoder, trained for longer');
    content['/packs/one/encoder.onnx'] = was;
  });

  it('is removed with whatever an older server had sent', async () => {
    kept.set('/packs/older/step.onnx', new Response('old'));
    const shelf = new ModelPackStore();
    await shelf.refresh();
    await shelf.fetch();
    kept.set('/packs/older/step.onnx', new Response('old'));
    await shelf.remove();
    expect([...kept.keys()]).toEqual(['/api/packs']);
  });

  it('is said to be unknown only when it was looked for in vain', async () => {
    const shelf = new ModelPackStore();
    expect(shelf.state.state).toBe('looking');
    isAway = true;
    await shelf.refresh();
    expect(shelf.state.state).toBe('unknown');
  });
});
