/** @jest-environment node */
import type { LiveText } from './liveText';
import { type OpenSources, SourceProblem, USUAL_SOURCE } from './sources';
import { listenForQuestion } from './spokenQuestion';

type Word = { text: string };

/** A recogniser under the test's control. */
class FakeLive {
  state: { state: string; fixed: Word[]; tentative: Word[]; lagMs: number; problem?: string } = {
    ...{ state: 'on', fixed: [], tentative: [], lagMs: 0 },
  };
  begun = 0;
  ended = 0;
  private listeners = new Set<() => void>();
  begin = () => void this.begun++;
  push = jest.fn();
  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  end = async () => {
    this.ended++;
    return [...this.state.fixed, ...this.state.tentative];
  };
  say(fixed: string, tentative = '', lagMs = 0) {
    const words = (text: string) =>
      text
        .split(' ')
        .filter(Boolean)
        .map((w) => ({ text: w }));
    this.state = { ...this.state, fixed: words(fixed), tentative: words(tentative), lagMs };
    this.listeners.forEach((tell) => tell());
  }
}

let live: FakeLive;
let isClosed: boolean;
const heard: string[] = [];
let result: { text: string } | { problem: string } | null;

beforeEach(() => {
  jest.useFakeTimers();
  live = new FakeLive();
  isClosed = false;
  heard.length = 0;
  result = null;
  Object.assign(globalThis, {
    AudioWorkletNode: class {
      port = {};
    },
  });
});
afterEach(() => jest.useRealTimers());

const sources = async () =>
  ({
    node: { connect: () => undefined },
    audio: { audioWorklet: { addModule: async () => undefined }, sampleRate: 48_000 },
    close: () => (isClosed = true),
  }) as unknown as OpenSources;

const listen = (open: () => Promise<OpenSources> = sources) =>
  listenForQuestion(
    live as unknown as LiveText,
    USUAL_SOURCE,
    (text) => heard.push(text),
    (end) => (result = end),
    open,
  );
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);

test('a slow device goes on listening while a piece is open, or sound waits', async () => {
  await listen();
  live.say('', 'I need to');
  await pass(4000);
  expect(result).toBeNull();
  live.say('I need to move the sacks', '', 1500);
  await pass(4000);
  expect(result).toBeNull();
  await pass(1200);
  expect(result).toEqual({ text: 'I need to move the sacks' });
});

test('in a noise that never pauses it ends when no word is added', async () => {
  await listen();
  live.say('', 'who pays');
  await pass(5700);
  expect(result).toEqual({ text: 'who pays' });
});

test('ends by itself when nothing more is said, and lets the microphone go', async () => {
  await listen();
  live.say('who pays', 'for the');
  await pass(1000);
  live.say('who pays for the trench');
  await pass(1500);
  expect(result).toBeNull();
  await pass(600);
  expect(result).toEqual({ text: 'who pays for the trench' });
  expect(heard).toEqual(['who pays for the', 'who pays for the trench']);
  expect([isClosed, live.ended]).toEqual([true, 1]);
});

test('pressed by mistake, it does not listen on and on', async () => {
  await listen();
  await pass(8500);
  expect(result).toEqual({ problem: 'No speech was heard. Press and ask again.' });
  expect(isClosed).toBe(true);
});

test('while the pack is still being loaded, patience has not begun', async () => {
  live.state.state = 'loading';
  await listen();
  await pass(15_000);
  expect(result).toBeNull();
  live.state.state = 'on';
  await pass(7000);
  expect(result).toBeNull();
  await pass(2000);
  expect(result).toMatchObject({ problem: expect.any(String) });
});

test('who talks on and on is heard for half a minute', async () => {
  await listen();
  for (let i = 0; i < 31 && !result; i++) {
    live.say('word '.repeat(i + 1).trim());
    await pass(1000);
  }
  expect((result as unknown as { text: string }).text.split(' ').length).toBeGreaterThan(28);
});

test('stopped by hand it gives what was said so far, once', async () => {
  const { stop } = await listen();
  live.say('water', 'the limes');
  stop();
  stop();
  await pass(10);
  expect(result).toEqual({ text: 'water the limes' });
  expect(live.ended).toBe(1);
  live.say('more');
  expect(heard).toEqual(['water the limes']);
});

test('a microphone that does not open, and a recogniser that fails, are said', async () => {
  await listen(() => Promise.reject(new SourceProblem('The microphone is not allowed.')));
  expect(result).toEqual({ problem: 'The microphone is not allowed.' });
  await listen(() => Promise.reject(new Error('broken')));
  expect(result).toEqual({
    problem: 'The microphone could not be opened. Check that the browser may use it, then try again.',
  });
  expect(live.begun).toBe(0);
  await listen();
  live.state = { ...live.state, state: 'failed', problem: 'The pack is damaged.' };
  await pass(300);
  expect(result).toEqual({ problem: 'The pack is damaged.' });
});
