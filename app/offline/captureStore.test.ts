/** @jest-environment node */
import 'fake-indexeddb/auto';
import { localTime } from '../ui/dates';
import { captureOf } from './captures';
import { CaptureStore } from './captureStore';
import { bytes, testCapture } from './testCapture';

let count = 0;
const opened: CaptureStore[] = [];
afterAll(() => opened.forEach((store) => store.close()));
const open = async (name = `store-${count++}`) => {
  opened.push(await CaptureStore.open(name));
  return opened.at(-1)!;
};
const contentOf = async (sound: Blob | null) => (sound ? [...new Uint8Array(await sound.arrayBuffer())] : null);
const slip = { id: 's1', kind: 'mark', mark: 'question', startMs: 700, endMs: null, text: '' } as const;

describe('what this device keeps', () => {
  it('joins the pieces of a recording in their order, whenever they were written', async () => {
    const store = await open();
    const capture = testCapture();
    await store.begin(capture);
    await store.addPiece(capture.id, 1, bytes(3, 4), 2000);
    await store.addPiece(capture.id, 0, bytes(1, 2), 1000);
    await store.addPiece('another', 0, bytes(9), 1000);
    expect(await contentOf(await store.soundOf(capture.id))).toEqual([1, 2, 3, 4]);
  });

  it('writes a recording through to the disk every ten seconds, and what lies between only to the system', async () => {
    const store = await open();
    const transaction = jest.spyOn(IDBDatabase.prototype, 'transaction');
    const clock = jest.spyOn(performance, 'now');
    let sequence = 0;
    const at = async (ms: number) => {
      clock.mockReturnValue(ms);
      await store.addPiece('spoken', sequence++, bytes(1), ms);
      return transaction.mock.calls.at(-1)![2]?.durability;
    };
    const said: unknown[] = [];
    // A page that has long been open: the first piece waits for no disk.
    for (const ms of [50_000, 50_250, 59_999, 60_000, 60_250, 90_000]) said.push(await at(ms));
    clock.mockRestore();
    transaction.mockRestore();
    expect(said).toEqual(['relaxed', 'relaxed', 'relaxed', 'strict', 'relaxed', 'strict']);
  });

  it('brings back a recording that was cut off, with length, slips and words', async () => {
    const name = `crash-${count++}`;
    const before = await open(name);
    const capture = testCapture();
    await before.begin(capture);
    await before.addPiece(capture.id, 0, bytes(1, 2), 1000);
    await before.addPiece(capture.id, 1, bytes(3), 1900);
    await before.keepSlip(capture.id, slip);
    await before.keepText(capture.id, [{ text: 'Water', startMs: 0, endMs: 300, confidence: 1 }]);
    before.close();

    const after = await open(name);
    const [recovered] = await after.recover(() => false);
    expect(recovered).toMatchObject({ state: 'waiting', isRecovered: true, durationMs: 1900, sizeBytes: 3 });
    expect(await contentOf(await after.soundOf(capture.id))).toEqual([1, 2, 3]);
    expect((await after.slipsOf(capture.id))[0]!.slip).toEqual(slip);
    expect((await after.textOf(capture.id))[0]!.text).toBe('Water');
    expect(await after.recover(() => false)).toEqual([]);
  });

  it('lets a recording go on that was cut off a short while ago, and finishes it when nobody does', async () => {
    const store = await open();
    const now = jest.spyOn(Date, 'now');
    const capture = testCapture();
    const startedAt = +new Date(capture.startedAt);
    now.mockReturnValue(startedAt + 60_000);
    await store.begin(capture);
    await store.addPiece(capture.id, 0, bytes(1), 14_000);
    expect(await store.recover(() => false)).toMatchObject([{ state: 'stopped', durationMs: 14_000 }]);
    now.mockReturnValue(startedAt + 9 * 60_000);
    await store.recover(() => false);
    expect((await store.get(capture.id))!.state).toBe('stopped');
    now.mockReturnValue(startedAt + 14_000 + 10 * 60_000);
    await store.recover(() => false);
    expect((await store.get(capture.id))!.state).toBe('waiting');
    now.mockRestore();
  });

  it('does not bring back to the person what was thrown away just before the page was closed', async () => {
    const store = await open();
    const capture = testCapture({ startedAt: localTime(new Date()), thrownAt: Date.now() });
    await store.begin(capture);
    await store.addPiece(capture.id, 0, bytes(1), 1000);
    await store.recover(() => false);
    expect((await store.get(capture.id))!.state).toBe('thrown');
  });

  it('keeps what was thrown away for thirty days', async () => {
    const store = await open();
    const now = jest.spyOn(Date, 'now').mockReturnValue(1e12);
    const capture = testCapture({ state: 'thrown', thrownAt: 1e12 });
    await store.begin(capture);
    await store.addPiece(capture.id, 0, bytes(1), 1000);
    now.mockReturnValue(1e12 + 29 * 24 * 3600_000);
    await store.recover(() => false);
    expect((await store.get(capture.id))!.state).toBe('thrown');
    now.mockReturnValue(1e12 + 31 * 24 * 3600_000);
    await store.recover(() => false);
    expect(await store.list()).toEqual([]);
    expect(await store.soundOf(capture.id)).toBeNull();
    now.mockRestore();
  });

  it('leaves a recording alone that goes on in another tab', async () => {
    const store = await open();
    const capture = testCapture();
    await store.begin(capture);
    await store.addPiece(capture.id, 0, bytes(1), 1000);
    expect(await store.recover((id) => id === capture.id)).toEqual([]);
    expect((await store.get(capture.id))!.state).toBe('recording');
  });

  it('drops a recording of which nothing was ever heard', async () => {
    const store = await open();
    await store.begin(testCapture());
    await store.recover(() => false);
    expect(await store.list()).toEqual([]);
  });

  it('sends again what was being sent when the page died', async () => {
    const store = await open();
    const capture = testCapture({ state: 'sending' });
    await store.begin(capture);
    await store.addPiece(capture.id, 0, bytes(1), 1000);
    await store.recover(() => false);
    expect((await store.get(capture.id))!.state).toBe('waiting');
  });

  it('forgets the sound but not what became of it', async () => {
    const store = await open();
    const capture = testCapture();
    await store.begin(capture);
    await store.addPiece(capture.id, 0, bytes(1), 1000);
    await store.keepSlip(capture.id, slip);
    await store.forgetSound(capture.id);
    expect(await store.soundOf(capture.id)).toBeNull();
    expect(await store.slipsOf(capture.id)).toEqual([]);
    expect(await store.get(capture.id)).toBeDefined();
  });

  it('keeps a chosen file with its name and time', async () => {
    const store = await open();
    const file = new File([new Uint8Array([7, 8])], 'Lecture.m4a', { type: 'audio/mp4', lastModified: 0 });
    const capture = captureOf(file);
    await store.addFile(capture, file);
    expect(await store.get(capture.id)).toMatchObject({ name: 'Lecture.m4a', state: 'waiting', sizeBytes: 2 });
    expect(store.isOnlyInPage(capture.id)).toBe(false);
  });

  it('keeps a video of which only the sound is sent, once, until it is taken away', async () => {
    const store = await open();
    const room = (quota: number) =>
      Object.defineProperty(globalThis, 'navigator', {
        configurable: true,
        value: { storage: { estimate: async () => ({ quota, usage: 0 }) } },
      });
    const video = { name: 'walk.mp4', size: 400 } as File;
    room(500);
    expect(await store.keepVideo('too-large', video)).toBe(false);
    room(1e9);
    const capture = { ...testCapture(), id: 'first' };
    await store.begin(capture);
    expect(await store.keepVideo('first', video)).toBe(true);
    expect(await store.videosOf('r1')).toEqual([]);
    await store.belongsTo('first', 'r1');
    // The list of what was sent is cleared; the video stays.
    await store.remove('first');
    await store.keepVideo('again', video);
    await store.belongsTo('again', 'r1');
    expect((await store.videosOf('r1')).map((v) => v.captureId)).toEqual(['again']);
    await store.removeVideo('again');
    expect(await store.videosOf('r1')).toEqual([]);
    // What is dismissed before it was sent takes its video along.
    await store.begin({ ...capture, id: 'refused' });
    await store.keepVideo('refused', video);
    await store.remove('refused');
    await store.belongsTo('refused', 'r2');
    expect(await store.videosOf('r2')).toEqual([]);
  });

  it('tells its listeners of every change', async () => {
    const store = await open();
    let told = 0;
    const stop = store.subscribe(() => told++);
    await store.begin(testCapture());
    stop();
    await store.begin(testCapture());
    expect(told).toBe(1);
  });
});

describe('a browser that keeps nothing', () => {
  const original = indexedDB.open.bind(indexedDB);
  beforeEach(() => {
    indexedDB.open = () => {
      throw new DOMException('no', 'SecurityError');
    };
  });
  afterEach(() => {
    indexedDB.open = original;
  });

  it('keeps the recording in the page, and says that it does not last', async () => {
    const store = await open();
    expect(store.isLasting).toBe(false);
    const capture = testCapture();
    await store.begin(capture);
    expect(await store.addPiece(capture.id, 0, bytes(1, 2), 1000)).toBe(true);
    await store.keepSlip(capture.id, slip);
    await store.change(capture.id, { state: 'waiting' });
    expect(await contentOf(await store.soundOf(capture.id))).toEqual([1, 2]);
    expect(await store.slipsOf(capture.id)).toHaveLength(1);
    expect(store.isOnlyInPage(capture.id)).toBe(true);
    await store.remove(capture.id);
    expect(await store.list()).toEqual([]);
  });
});
