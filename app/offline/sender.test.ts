/** @jest-environment node */
import 'fake-indexeddb/auto';
import { createHash } from 'node:crypto';
import { CaptureStore } from './captureStore';
import { Outbox } from './outbox';
import { Interruption, Refusal, hashOf, sendCapture } from './sender';
import { bytes, testCapture } from './testCapture';

const SIZE = 2.5 * 1024 ** 2;
const sound = Uint8Array.from({ length: SIZE }, (_, i) => (i * 31) % 251);

/** A server that keeps what it is sent, and can be told to fail. */
class Server {
  readonly uploads: Uint8Array[] = [];
  readonly recordings = new Map<string, { sha256: string }>();
  readonly slips: unknown[] = [];
  readonly words: { text: string }[][] = [];
  /** What is said of the uploads, as the protocol packs it. */
  readonly metadata: string[] = [];
  pictures = 0;
  /** Called before each request; throwing is a broken line. */
  before: (method: string, path: string) => Response | void = () => undefined;
  /** What the disk does to what arrives. */
  spoil = (content: Uint8Array) => content;
  private offsets: number[] = [];
  private captureIds: string[] = [];

  fetch = (async (address: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET';
    const early = this.before(method, address);
    if (early) return early;
    const headers = new Headers(init.headers);
    if (address.endsWith('/words')) {
      this.words.push((JSON.parse(init.body as string) as { words: { text: string }[] }).words);
      return Response.json({ isTaken: true });
    }
    if (address.startsWith('/api/captures/')) {
      const known = this.recordings.get(address.slice('/api/captures/'.length));
      return known
        ? Response.json({ recordingId: 'r1', sha256: known.sha256, sizeBytes: SIZE })
        : Response.json({}, { status: 404 });
    }
    if (address === '/api/uploads') {
      const [, captureId] = /captureId (\S+?)(,|$)/.exec(headers.get('Upload-Metadata')!)!;
      this.captureIds.push(atob(captureId!));
      this.metadata.push(headers.get('Upload-Metadata')!);
      this.uploads.push(new Uint8Array(Number(headers.get('Upload-Length'))));
      this.offsets.push(0);
      return new Response(null, { status: 201, headers: { Location: `/api/uploads/${this.uploads.length - 1}` } });
    }
    const upload = /^\/api\/uploads\/(\d+)$/.exec(address);
    if (upload) {
      const number = Number(upload[1]);
      if (this.offsets[number] === undefined) return new Response(null, { status: 404 });
      if (method === 'PATCH') {
        if (Number(headers.get('Upload-Offset')) !== this.offsets[number]) return new Response(null, { status: 409 });
        const piece = new Uint8Array(await (init.body as Blob).arrayBuffer());
        this.uploads[number]!.set(piece, this.offsets[number]);
        this.offsets[number] += piece.length;
        if (this.offsets[number] === this.uploads[number]!.length) {
          const sha256 = createHash('sha256').update(this.spoil(this.uploads[number]!)).digest('hex');
          this.recordings.set(this.captureIds[number]!, { sha256 });
        }
      }
      return new Response(null, { status: 200, headers: { 'Upload-Offset': String(this.offsets[number]) } });
    }
    if (address.endsWith('/slips')) this.slips.push(...(JSON.parse(init.body as string) as { slips: unknown[] }).slips);
    if (address.endsWith('/picture')) this.pictures++;
    return Response.json({});
  }) as typeof fetch;
}

let count = 0;
const opened: CaptureStore[] = [];
afterAll(() => opened.forEach((store) => store.close()));

async function waiting() {
  const store = await CaptureStore.open(`sender-${count++}`);
  opened.push(store);
  const capture = testCapture({ state: 'waiting' });
  await store.begin(capture);
  await store.addPiece(capture.id, 0, sound.slice(0, 1_000_000).buffer, 1000);
  await store.addPiece(capture.id, 1, sound.slice(1_000_000).buffer, 2000);
  return { store, id: capture.id };
}

describe('the hash of a sound', () => {
  it('is that of FIPS 180-4 (example "abc")', async () => {
    expect(await hashOf(new Blob(['abc']))).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  });
  it('is the same in pieces as Node’s own over the whole', async () => {
    expect(await hashOf(new Blob([sound]))).toBe(createHash('sha256').update(sound).digest('hex'));
  });
});

describe('sending', () => {
  it('lets go of the sound when the server has the same hash, and takes slips and pictures along', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    await store.keepSlip(id, { id: 'n1', kind: 'note', mark: null, startMs: 5, endMs: null, text: 'here' });
    const picture = { id: 'p1', kind: 'picture', mark: null, startMs: 9, endMs: null, text: '' } as const;
    await store.keepSlip(id, picture, new Blob([bytes(1)]));
    const sent: number[] = [];
    await sendCapture(store, id, { fetch: server.fetch, onProgress: (n) => sent.push(n) });
    expect(server.uploads).toHaveLength(1);
    expect(Buffer.from(server.uploads[0]!).equals(Buffer.from(sound))).toBe(true);
    expect(await store.get(id)).toMatchObject({ state: 'sent', recordingId: 'r1' });
    expect(await store.soundOf(id)).toBeNull();
    expect(server.slips).toHaveLength(2);
    expect(server.pictures).toBe(1);
    expect(sent.at(-1)).toBe(SIZE);
  });

  it('takes the words along that the device heard, some thousands at once', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    const words = Array.from({ length: 5001 }, (_, i) => ({
      ...{ text: `w${i}`, startMs: i * 300, endMs: i * 300 + 200, confidence: 0.8 },
    }));
    await store.keepText(id, words);
    await sendCapture(store, id, { fetch: server.fetch });
    expect(server.words.map((sent) => sent.length)).toEqual([5000, 1]);
    expect(server.words.flat().map((w) => w.text)).toEqual(words.map((w) => w.text));
    expect(await store.textOf(id)).toEqual([]);
  });

  it('is not held up by words that cannot be sent: the server finds its own', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    await store.keepText(id, [{ text: 'Water', startMs: 0, endMs: 300, confidence: 1 }]);
    server.before = (_, path) => (path.endsWith('/words') ? Response.json({}, { status: 500 }) : undefined);
    await sendCapture(store, id, { fetch: server.fetch });
    expect((await store.get(id))!.state).toBe('sent');
  });

  it('adds what goes on to the recording that was cut off, with its marks after what was there', async () => {
    const { store, id: first } = await waiting();
    const server = new Server();
    await sendCapture(store, first, { fetch: server.fetch });
    const { store: other, id } = await waiting();
    await other.change(id, { details: { continues: first, offsetMs: '14000' } });
    await other.keepSlip(id, { id: 'm1', kind: 'mark', mark: 'question', startMs: 500, endMs: 900, text: '' });
    await sendCapture(other, id, { fetch: server.fetch });
    expect(server.metadata[0]).not.toContain('appendTo');
    expect(server.metadata[1]).toContain(`appendTo ${btoa('r1')}`);
    expect(server.slips).toMatchObject([{ id: 'm1', startMs: 14_500, endMs: 14_900 }]);
  });

  it('goes on where the line broke, with one upload', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    let patches = 0;
    server.before = (method) => {
      if (method === 'PATCH' && ++patches === 2) throw new TypeError('broken');
    };
    await expect(sendCapture(store, id, { fetch: server.fetch })).rejects.toBeInstanceOf(Interruption);
    expect(await store.soundOf(id)).not.toBeNull();
    await sendCapture(store, id, { fetch: server.fetch });
    expect(server.uploads).toHaveLength(1);
    expect((await store.get(id))!.state).toBe('sent');
    expect(patches).toBe(4);
  });

  it('sends nothing twice when only the last answer was lost', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    let asked = 0;
    server.before = (_, path) => {
      if (path.startsWith('/api/captures/') && ++asked === 2) throw new TypeError('broken');
    };
    await expect(sendCapture(store, id, { fetch: server.fetch })).rejects.toBeInstanceOf(Interruption);
    await sendCapture(store, id, { fetch: server.fetch });
    expect(server.uploads).toHaveLength(1);
    expect((await store.get(id))!.state).toBe('sent');
  });

  it('keeps the sound and sends anew when what arrived is not what was sent', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    server.spoil = (content) => content.slice(1);
    await expect(sendCapture(store, id, { fetch: server.fetch })).rejects.toThrow('damaged on the way');
    expect(await store.soundOf(id)).not.toBeNull();
    server.spoil = (content) => content;
    await sendCapture(store, id, { fetch: server.fetch });
    expect(server.uploads).toHaveLength(2);
    expect((await store.get(id))!.state).toBe('sent');
  });

  it('starts over when the server has forgotten the upload', async () => {
    const { store, id } = await waiting();
    await store.change(id, { uploadAddress: '/api/uploads/99' });
    const server = new Server();
    await sendCapture(store, id, { fetch: server.fetch });
    expect((await store.get(id))!.state).toBe('sent');
  });

  it('believes the receipt more than a refusal that came after all had arrived', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    const sha256 = createHash('sha256').update(sound).digest('hex');
    server.before = (method) => {
      if (method !== 'POST') return undefined;
      server.recordings.set(id, { sha256 });
      return new Response(null, { status: 404 });
    };
    await sendCapture(store, id, { fetch: server.fetch });
    expect((await store.get(id))!.state).toBe('sent');
  });

  it('does not insist when the server refuses, and keeps the sound', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    server.before = (method) =>
      method === 'POST' ? Response.json({ detail: 'The name is not allowed.' }, { status: 400 }) : undefined;
    await expect(sendCapture(store, id, { fetch: server.fetch })).rejects.toThrow(Refusal);
    expect(await store.soundOf(id)).not.toBeNull();
  });
});

describe('the outbox', () => {
  const alone = async (work: () => Promise<void>) => {
    await work();
    return true;
  };

  it('tries again by itself until all has arrived', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    let isAway = true;
    server.before = () => {
      if (isAway) throw new TypeError('away');
    };
    const outbox = new Outbox(store, { alone, fetch: server.fetch });
    await outbox.wake();
    expect(await store.get(id)).toMatchObject({ state: 'waiting', problem: 'The server cannot be reached.' });
    isAway = false;
    for (let i = 0; i < 100 && (await store.get(id))!.state !== 'sent'; i++)
      await new Promise((r) => setTimeout(r, 50));
    outbox.stop();
    expect((await store.get(id))!.state).toBe('sent');
  });

  it('lets one that is refused not hold up the others', async () => {
    const { store, id } = await waiting();
    const second = testCapture({ state: 'waiting', startedAt: '2026-03-09T09:00:00' });
    await store.begin(second);
    await store.addPiece(second.id, 0, bytes(1, 2, 3), 10);
    const server = new Server();
    let posts = 0;
    server.before = (method) =>
      method === 'POST' && ++posts === 1 ? Response.json({ detail: 'No.' }, { status: 400 }) : undefined;
    await new Outbox(store, { alone, fetch: server.fetch }).wake();
    expect(await store.get(id)).toMatchObject({ state: 'refused', problem: 'No.' });
    expect((await store.get(second.id))!.state).toBe('sent');
  });

  it('lets a large one for which the server has no room wait, and sends the others', async () => {
    const { store, id } = await waiting();
    const second = testCapture({ state: 'waiting', startedAt: '2026-03-09T09:00:00' });
    await store.begin(second);
    await store.addPiece(second.id, 0, bytes(1, 2, 3), 10);
    const server = new Server();
    let posts = 0;
    server.before = (method) => (method === 'POST' && ++posts === 1 ? new Response('', { status: 507 }) : undefined);
    const outbox = new Outbox(store, { alone, fetch: server.fetch });
    await outbox.wake();
    outbox.stop();
    expect(await store.get(id)).toMatchObject({ state: 'waiting', problem: 'The server’s disk is full.' });
    expect((await store.get(second.id))!.state).toBe('sent');
  });

  it('leaves the work to another page that does it already', async () => {
    const { store, id } = await waiting();
    const server = new Server();
    const outbox = new Outbox(store, { alone: async () => false, fetch: server.fetch });
    await outbox.wake();
    outbox.stop();
    expect((await store.get(id))!.state).toBe('waiting');
    expect(server.uploads).toHaveLength(0);
  });
});
