/** @jest-environment node */
import 'fake-indexeddb/auto';
import { CaptureStore } from '../offline/captureStore';
import { CaptureEngine } from './captureEngine';
import { LiveText } from './liveText';
import { type OpenSources, SourceProblem, USUAL_SOURCE } from './sources';

const RATE = 48_000;

/** The parts of a browser that record, under the test's control. */
class FakeRecorder {
  static isTypeSupported = (type: string) => type.startsWith('audio/webm');
  static last: FakeRecorder;
  state: 'inactive' | 'recording' | 'paused' = 'inactive';
  mimeType = 'audio/webm';
  ondataavailable: (event: { data: Blob }) => void = () => {};
  onstop: () => void = () => {};
  onerror: () => void = () => {};
  constructor() {
    FakeRecorder.last = this;
  }
  start = () => (this.state = 'recording');
  pause = () => (this.state = 'paused');
  resume = () => (this.state = 'recording');
  give = (text: string) => this.ondataavailable({ data: new Blob([text]) });
  stop = () => {
    this.state = 'inactive';
    this.give('end');
    this.onstop();
  };
}

let tap: { port: { onmessage?: (event: { data: Float32Array }) => void } };
let free: number;
let clock: number;
let track: EventTarget;
let isClosed: boolean;

beforeEach(() => {
  free = 1e9;
  clock = 1000;
  isClosed = false;
  jest.spyOn(performance, 'now').mockImplementation(() => clock);
  Object.assign(globalThis, {
    MediaRecorder: FakeRecorder,
    AudioWorkletNode: class {
      port = {};
      constructor() {
        tap = this as never;
      }
    },
    document: Object.assign(new EventTarget(), { visibilityState: 'visible' }),
    navigator: { storage: { estimate: async () => ({ quota: free, usage: 0 }) } },
  });
});
let engines: CaptureEngine[] = [];
/** What a test began, ends before the storage is closed under it. */
afterEach(async () => {
  jest.restoreAllMocks();
  engines.forEach((engine) => engine.finish());
  await settled(() => engines.every((engine) => engine.state.stage === 'idle'));
  await new Promise((resolve) => setTimeout(resolve, 30));
  engines = [];
});

const sources = (): OpenSources => {
  track = new EventTarget();
  return {
    stream: {} as MediaStream,
    node: { connect: () => undefined } as unknown as AudioNode,
    audio: {
      sampleRate: RATE,
      state: 'running',
      resume: async () => undefined,
      audioWorklet: { addModule: async () => undefined },
    } as unknown as AudioContext,
    isMicrophone: true,
    tracks: [track as MediaStreamTrack],
    setGains: () => undefined,
    announce: async () => undefined,
    close: () => void (isClosed = true),
  };
};

let count = 0;
const opened: CaptureStore[] = [];
afterAll(() => opened.forEach((store) => store.close()));

async function speaking(open: () => Promise<OpenSources> = async () => sources(), live = new LiveText()) {
  const store = await CaptureStore.open(`engine-${count++}`);
  opened.push(store);
  const finished: string[] = [];
  const late: string[][] = [];
  const engine = new CaptureEngine(
    ...([store, live, (id: string) => void finished.push(id), open] as const),
    async (_, words) => void late.push(words.map((w) => w.text)),
  );
  engines.push(engine);
  await engine.start({ sources: USUAL_SOURCE, details: { zone: 'Europe/Berlin' } });
  return { store, engine, finished, late };
}

/** Tenths of a second of sound at this level. */
function hear(tenths: number, level = 0.4, everyMs = 100): void {
  for (let i = 0; i < tenths; i++) {
    clock += everyMs;
    tap.port.onmessage!({ data: new Float32Array(RATE / 10).fill(level) });
  }
}
const settled = async (isDone: () => boolean) => {
  for (let i = 0; i < 200 && !isDone(); i++) await new Promise((resolve) => setTimeout(resolve, 5));
};
const textOf = async (store: CaptureStore, id: string) => (await store.soundOf(id))!.text();

describe('recording', () => {
  it('counts sound, keeps every piece, and hands a complete capture on', async () => {
    const { store, engine, finished } = await speaking();
    expect(engine.state.stage).toBe('recording');
    hear(10);
    FakeRecorder.last.give('one ');
    hear(10);
    FakeRecorder.last.give('two ');
    expect(Math.round(engine.state.elapsedMs)).toBe(2000);
    expect(engine.state.peaks.at(-1)).toBe(40);
    engine.finish();
    await settled(() => finished.length === 1);
    expect(await store.get(finished[0]!)).toMatchObject({
      ...{ state: 'waiting', durationMs: 2000, thrownAt: null, mediaType: 'audio/webm' },
      details: { zone: 'Europe/Berlin' },
    });
    expect(await textOf(store, finished[0]!)).toBe('one two end');
    expect(engine.state.stage).toBe('idle');
    expect(isClosed).toBe(true);
  });

  it('keeps what was written last on a slip, however slowly the disk answers, before it is sent', async () => {
    const { store, engine, finished } = await speaking();
    const keep = store.keepSlip.bind(store);
    let delayMs = 60;
    store.keepSlip = async (...args) => {
      // Each answer comes sooner than the one before: without an order the first would be the last.
      await new Promise((resolve) => setTimeout(resolve, (delayMs -= 15)));
      return keep(...args);
    };
    const slip = engine.addSlip({ kind: 'mark', mark: 'question' }, new Blob(['picture']))!;
    engine.changeSlip(slip.id, { mark: 'check-later' });
    engine.changeSlip(slip.id, { text: 'depth of the cable' });
    FakeRecorder.last.give('sound');
    engine.finish();
    await settled(() => finished.length === 1);
    const [kept] = await store.slipsOf(finished[0]!);
    expect(kept!.slip).toMatchObject({ mark: 'check-later', text: 'depth of the cable' });
    expect(kept!.picture).not.toBeNull();
  });

  it('leaves a seam where it paused, and no sound of the pause', async () => {
    const { engine } = await speaking();
    hear(10);
    engine.pause();
    hear(50);
    expect(Math.round(engine.state.elapsedMs)).toBe(1000);
    clock += 120_000;
    engine.resume();
    hear(5);
    expect(engine.state.slips).toMatchObject([{ kind: 'seam', startMs: 1000, text: 'Paused for 2 min' }]);
    engine.finish();
  });

  it('keeps its times when the clock of the device jumps', async () => {
    const { store, engine, finished } = await speaking();
    const { startedAt } = (await store.get(engine.state.captureId!))!;
    hear(10);
    jest.spyOn(Date, 'now').mockReturnValue(Date.now() - 3 * 3_600_000);
    engine.addSlip({ kind: 'mark', mark: 'question' });
    hear(10);
    engine.finish();
    await settled(() => finished.length === 1);
    expect(await store.get(finished[0]!)).toMatchObject({ durationMs: 2000, startedAt });
    expect((await store.slipsOf(finished[0]!)).map((k) => k.slip.startMs)).toEqual([1000]);
  });

  it('marks what it did not hear because the page was put to sleep', async () => {
    const { engine } = await speaking();
    hear(10);
    clock += 20_000;
    hear(12);
    expect(engine.state.slips).toMatchObject([
      { kind: 'gap', startMs: 1000, text: expect.stringContaining('20 s are missing') },
    ]);
    engine.finish();
  });

  it('marks nothing when the page was busy and the sound came late', async () => {
    const { engine } = await speaking();
    hear(10);
    clock += 6000;
    hear(60, 0.4, 1);
    hear(20);
    expect(Math.round(engine.state.elapsedMs)).toBe(9000);
    expect(engine.state.slips).toEqual([]);
    engine.finish();
  });

  it('marks what is missing also when it ends before that is certain', async () => {
    const { store, engine, finished } = await speaking();
    hear(10);
    clock += 20_000;
    hear(1);
    engine.finish();
    await settled(() => finished.length === 1);
    expect((await store.slipsOf(finished[0]!)).map((k) => k.slip)).toMatchObject([{ kind: 'gap', startMs: 1000 }]);
  });

  it('marks the time for which the system had muted the microphone', async () => {
    const { engine } = await speaking();
    hear(10);
    track.dispatchEvent(new Event('mute'));
    hear(20, 0);
    track.dispatchEvent(new Event('unmute'));
    expect(engine.state.slips).toMatchObject([{ kind: 'gap', startMs: 1000, endMs: 3000 }]);
    engine.finish();
  });

  it('says that the recorder gives nothing, or has stopped by itself', async () => {
    jest.useFakeTimers({ doNotFake: ['performance', 'setTimeout', 'setImmediate', 'nextTick', 'queueMicrotask'] });
    const { store, engine, finished } = await speaking();
    hear(40);
    jest.advanceTimersByTime(1000);
    expect(engine.state.warning).toBeNull();
    hear(20);
    jest.advanceTimersByTime(1000);
    expect(engine.state.warning).toContain('No audio has arrived');
    jest.useRealTimers();
    FakeRecorder.last.give('sound');
    FakeRecorder.last.onerror();
    FakeRecorder.last.stop();
    await settled(() => finished.length === 1);
    expect(engine.state.problem).toContain('browser stopped recording');
    expect(await textOf(store, finished[0]!)).toBe('soundend');
  });

  it('waits for the next microphone when its own is taken away, and keeps what there is', async () => {
    const { store, engine, finished } = await speaking();
    hear(10);
    FakeRecorder.last.give('said ');
    track.dispatchEvent(new Event('ended'));
    await settled(() => finished.length === 1);
    const [id] = finished;
    expect(engine.state).toMatchObject({ stage: 'idle', problem: null, unplugged: id });
    expect(await store.get(id!)).toMatchObject({ state: 'stopped', durationMs: 1000, stoppedAt: expect.any(Number) });
    expect(await textOf(store, id!)).toBe('said end');
    await engine.start({ sources: USUAL_SOURCE });
    expect(engine.state.unplugged).toBeNull();
  });

  it('ends when the tab that it hears is no longer shared', async () => {
    const { store, engine, finished } = await speaking(async () => ({ ...sources(), isMicrophone: false }));
    hear(10);
    FakeRecorder.last.give('said ');
    track.dispatchEvent(new Event('ended'));
    await settled(() => finished.length === 1);
    expect(engine.state).toMatchObject({ problem: expect.stringContaining('no longer shared'), unplugged: null });
    expect((await store.get(finished[0]!))!.state).toBe('waiting');
  });

  it('ends cleanly when the storage is full, with the last pieces in the page', async () => {
    const { store, engine, finished } = await speaking();
    hear(10);
    FakeRecorder.last.give('kept ');
    await new Promise((resolve) => setTimeout(resolve, 20));
    jest.spyOn(store, 'addPieces').mockImplementation(async () => false);
    FakeRecorder.last.give('too much ');
    await settled(() => finished.length === 1);
    expect(engine.state.problem).toContain('This device is full');
  });

  it('a slow disk makes no queue: what came meanwhile goes to it in one go, and all of it is there', async () => {
    const { store, engine, finished } = await speaking();
    const write = store.addPieces.bind(store);
    const sizes: number[] = [];
    jest.spyOn(store, 'addPieces').mockImplementation(async (pieces) => {
      sizes.push(pieces.length);
      await new Promise((resolve) => setTimeout(resolve, 60));
      return write(pieces);
    });
    hear(10);
    for (let i = 0; i < 20; i++) {
      FakeRecorder.last.give(`${i} `);
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
    engine.finish();
    await settled(() => finished.length === 1);
    expect(sizes.length).toBeLessThan(12);
    expect(Math.max(...sizes)).toBeGreaterThan(3);
    const text = await (await store.soundOf(finished[0]!))!.text();
    expect(text).toBe(`${Array.from({ length: 20 }, (_, i) => `${i} `).join('')}end`);
  });

  it('keeps slips at their second, reworded and taken away at will', async () => {
    const { store, engine, finished } = await speaking();
    hear(10);
    const mark = engine.addSlip({ kind: 'mark', mark: 'question' })!;
    const note = engine.addSlip({ kind: 'note', text: 'begun earlier', startMs: 400 })!;
    engine.changeSlip(mark.id, { mark: 'key-point', text: 'the trench' });
    engine.removeSlip(note.id);
    engine.finish();
    await settled(() => finished.length === 1);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect((await store.slipsOf(finished[0]!)).map((k) => k.slip)).toMatchObject([
      { kind: 'mark', mark: 'key-point', text: 'the trench', startMs: 1000 },
    ]);
  });

  it('thrown away is complete too, and waits for nothing', async () => {
    const { store, engine, finished } = await speaking();
    hear(10);
    const id = engine.state.captureId!;
    engine.throwAway();
    // Whoever wants it back waits for this: only then its end is there.
    await engine.ended(id);
    expect(finished).toEqual([id]);
    await engine.ended(id);
    expect(await store.get(finished[0]!)).toMatchObject({ state: 'thrown', thrownAt: expect.any(Number) });
  });

  it('says why it cannot begin, and can be tried again', async () => {
    let isThere = false;
    const { engine } = await speaking(async () => {
      if (!isThere) throw new SourceProblem('No microphone was found.');
      return sources();
    });
    expect(engine.state).toMatchObject({ stage: 'idle', problem: 'No microphone was found.' });
    isThere = true;
    await engine.start({ sources: USUAL_SOURCE });
    expect(engine.state).toMatchObject({ stage: 'recording', problem: null });
    engine.finish();
  });

  it('keeps the words that are on the screen when it is finished, and tells those that come after it was sent', async () => {
    const word = (text: string, startMs: number) => ({ text, startMs, endMs: startMs + 300, confidence: 1 });
    const live = new LiveText();
    let lastWord = (_: void) => undefined as void;
    const isOver = new Promise<void>((resolve) => (lastWord = resolve));
    Object.assign(live, {
      now: { ...live.state, state: 'on', fixed: [word('Call', 0)], tentative: [word('Bram', 400)] },
      begin: () => undefined,
      push: () => undefined,
      end: async () => {
        await isOver;
        return [word('Call', 0), word('Bram', 400), word('today', 800)];
      },
    });
    const { store, engine, finished, late } = await speaking(undefined, live);
    hear(10);
    engine.finish();
    await settled(() => finished.length === 1);
    const [id] = finished;
    expect((await store.textOf(id!)).map((w) => w.text)).toEqual(['Call', 'Bram']);
    await store.change(id!, { state: 'sent' });
    lastWord();
    await settled(() => late.length === 1);
    expect(late).toEqual([['Call', 'Bram', 'today']]);
  });

  it('says that nothing arrives where every sample is nothing, and not where it is quiet', async () => {
    const { engine } = await speaking();
    hear(16, 0);
    expect(engine.state.level).toBe('dead');
    hear(1, 0.0001);
    expect(engine.state.level).not.toBe('dead');
    engine.finish();
  });

  it('does not begin while another tab records', async () => {
    const held = [{ name: 'immeld-capture-1' }];
    Object.assign(navigator, { locks: { query: async () => ({ held }), request: async () => undefined } });
    const { engine, store } = await speaking();
    expect(engine.state.problem).toMatch(/^Another tab is recording already/);
    expect(await store.list()).toEqual([]);
  });

  it('knows the appointment that it is of, and the recording that it is added to', async () => {
    const { engine } = await speaking();
    engine.finish();
    await settled(() => engine.state.stage === 'idle');
    const appointment = { title: 'Walk with Bram', people: ['Bram Vantongeren'] };
    await engine.start({ sources: USUAL_SOURCE, details: { appendTo: 'r1' }, appointment });
    expect(engine.state).toMatchObject({ appointment: 'Walk with Bram', people: appointment.people, addedTo: 'r1' });
    engine.finish();
  });

  it('is not started twice', async () => {
    const { engine, store } = await speaking();
    await engine.start({ sources: USUAL_SOURCE });
    expect(await store.list()).toHaveLength(1);
    engine.finish();
  });
});
