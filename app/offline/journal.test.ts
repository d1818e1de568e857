/** @jest-environment node */
import 'fake-indexeddb/auto';
import { webmCluster, webmEnd } from '@immeld/core/audio/webmEnd';
import { RING_SECONDS, RING_START } from '../workers/journalMessages';
import { CaptureStore } from './captureStore';
import { journalFrom } from './journal';
import { testCapture } from './testCapture';

const RATE = 1000;
const RING = RATE * RING_SECONDS;

/** The file of a journal after this many samples, each with its own number (modulo 30,000) as its value. */
function journalFile(count: number, rate = RATE): ArrayBuffer {
  const ring = rate * RING_SECONDS;
  const bytes = new ArrayBuffer(RING_START + ring * 2);
  new Float64Array(bytes, 0, 2).set([rate, count]);
  const samples = new Int16Array(bytes, RING_START);
  for (let i = Math.max(0, count - ring); i < count; i++) samples[i % ring] = i % 30_000;
  return bytes;
}

describe('the journal of a recording', () => {
  it('gives its samples in their order, also after the ring has gone round', () => {
    expect(journalFrom(journalFile(3))).toEqual({ rate: RATE, samples: Int16Array.of(0, 1, 2), before: 0 });
    const long = journalFrom(journalFile(RING + 2500))!;
    expect(long.before).toBe(2500);
    expect(long.samples).toHaveLength(RING);
    expect([long.samples[0], long.samples[1], long.samples.at(-1)]).toEqual([2500, 2501, 2499]);
  });

  it('is none when nothing was written, or the file is not whole', () => {
    expect(journalFrom(journalFile(0))).toBeNull();
    expect(journalFrom(new ArrayBuffer(4))).toBeNull();
    expect(journalFrom(journalFile(100).slice(0, 500))).toBeNull();
  });
});

describe('a recording whose page died', () => {
  const journals = new Map<string, ArrayBuffer>();
  /** The parts of a browser that are not there: its private files, and an encoder that gives silence of 20 ms (RFC 6716). */
  beforeAll(() => {
    const folder = {
      getFileHandle: async (name: string) => {
        if (!journals.has(name)) throw new Error('NotFoundError');
        return { getFile: async () => new Blob([journals.get(name)!]) };
      },
      keys: () => journals.keys(),
      removeEntry: async (name: string) => void journals.delete(name),
    };
    const root = { getDirectoryHandle: async () => folder };
    Object.assign(globalThis, {
      navigator: { storage: { getDirectory: async () => root } },
      AudioData: class {
        constructor(readonly about: { timestamp: number; numberOfFrames: number; sampleRate: number }) {}
      },
      AudioEncoder: class {
        state = 'configured';
        constructor(private readonly to: { output: (chunk: object) => void }) {}
        configure = () => undefined;
        flush = async () => undefined;
        close = () => undefined;
        encode({ about }: { about: { timestamp: number; numberOfFrames: number; sampleRate: number } }) {
          const packets = Math.ceil(about.numberOfFrames / about.sampleRate / 0.02);
          for (let i = 0; i < packets; i++) {
            const copyTo = (target: Uint8Array) => target.set(SILENCE);
            this.to.output({ timestamp: about.timestamp + i * 20_000, byteLength: 3, copyTo });
          }
        }
      },
    });
  });

  const SILENCE = Uint8Array.of(0xf8, 0xff, 0xfe);
  /** Two seconds of it. */
  const webm = webmCluster(
    1,
    Array.from({ length: 100 }, (_, i) => ({ startMs: i * 20, data: SILENCE })),
  );
  let count = 0;
  /** Brings back a recording of which the disk has these pieces, and the journal this many seconds. */
  async function recovered(pieces: Uint8Array[], seconds: number, isGoingOn = false) {
    const store = await CaptureStore.open(`journal-${count++}`);
    const capture = testCapture();
    await store.begin(capture);
    for (const [i, piece] of pieces.entries()) {
      await store.addPiece(capture.id, i, Uint8Array.from(piece).buffer, i * 250);
    }
    journals.set(capture.id, journalFile(seconds * RATE));
    const [back] = await store.recover(() => isGoingOn);
    const sound = new Uint8Array(await (await store.soundOf(capture.id))!.arrayBuffer());
    store.close();
    return { back, sound, hasJournal: journals.has(capture.id) };
  }

  it('gets what the recorder had not given yet, in the place of what it had only begun', async () => {
    const pieces = [webm.subarray(0, 400), Uint8Array.of(...webm.subarray(400), 0xa3)];
    const { back, sound, hasJournal } = await recovered(pieces, 3.5);
    expect(webmEnd(sound)).toMatchObject({ wholeBytes: sound.length });
    expect(webmEnd(sound)!.endMs).toBe(3500);
    expect(sound.slice(0, webm.length)).toEqual(webm);
    expect(back).toMatchObject({ state: 'waiting', isRecovered: true, durationMs: 3500, sizeBytes: sound.length });
    expect(hasJournal).toBe(false);
  });

  it('stays as it is when nothing is missing', async () => {
    const { back, sound } = await recovered([webm], 2);
    expect(sound).toHaveLength(webm.length);
    expect(back).toMatchObject({ durationMs: 0, sizeBytes: webm.length });
  });

  it.each([
    ['nothing at all', []],
    ['one byte', [Uint8Array.of(0x1a)]],
  ])('comes back from the journal alone when the recorder had given %s', async (_, pieces) => {
    const { back, sound } = await recovered(pieces, 0.7);
    expect(back).toMatchObject({ mediaType: 'audio/wav', name: 'Spoken.wav', durationMs: 700, isRecovered: true });
    expect(sound).toHaveLength(44 + 1400);
  });

  it('leaves nothing behind when the device is to forget everything', async () => {
    const store = await CaptureStore.open(`journal-${count++}`);
    journals.set('c1', journalFile(100));
    await store.forgetAll();
    store.close();
    expect([...journals.keys()]).toEqual([]);
  });

  it('is left alone with its journal while another page records it', async () => {
    const { back, sound, hasJournal } = await recovered([webm], 5, true);
    expect([back, sound.length, hasJournal]).toEqual([undefined, webm.length, true]);
  });
});
