import type { Pack } from '@immeld/core/contract/captures';
import type { FromLiveWorker, ToLiveWorker } from '../workers/liveMessages';
import { LiveText } from './liveText';

const pack: Pack = { name: 'one', title: '', language: 'en', licence: '', files: [] };
const word = (text: string, startMs = 0) => ({ text, startMs, endMs: startMs + 200, confidence: 1 });

/** A worker whose answers the test gives. */
class FakeWorker {
  readonly heard: ToLiveWorker[] = [];
  isGone = false;
  private readonly listeners = new Map<string, ((event: never) => void)[]>();
  postMessage = (message: ToLiveWorker) => void this.heard.push(message);
  terminate = () => void (this.isGone = true);
  addEventListener = (type: string, listen: (event: never) => void) =>
    void this.listeners.set(type, [...(this.listeners.get(type) ?? []), listen]);
  say(message: FromLiveWorker): void {
    this.listeners.get('message')?.forEach((listen) => listen({ data: message } as never));
  }
  break(): void {
    this.listeners.get('error')?.forEach((listen) => listen({} as never));
  }
}

function open() {
  const worker = new FakeWorker();
  const live = new LiveText(() => worker as never);
  return { worker, live };
}
const text = (session: number, fixed: string[], tentative: string[]): FromLiveWorker => ({
  ...{ type: 'text', session, lagMs: 100, heardMs: 0 },
  ...{ fixed: fixed.map((t) => word(t)), tentative: tentative.map((t) => word(t)) },
});
const shown = (live: LiveText) => [live.state.fixed.map((w) => w.text), live.state.tentative.map((w) => w.text)];

describe('the words while somebody speaks', () => {
  it('keep what is fixed and replace what is not', () => {
    const { worker, live } = open();
    live.load(pack);
    live.begin();
    worker.say({ type: 'ready', loadMs: 1 });
    worker.say(text(1, [], ['Water', 'moose']));
    worker.say(text(1, ['Water'], ['moves']));
    worker.say(text(1, ['moves'], ['down']));
    expect(shown(live)).toEqual([['Water', 'moves'], ['down']]);
  });

  it('wait for the pack with the first sound, so that no word is missing', () => {
    const { worker, live } = open();
    live.begin();
    live.push(new Float32Array(10), 48_000);
    live.push(new Float32Array(20), 48_000);
    expect(worker.heard).toEqual([]);
    live.load(pack);
    live.push(new Float32Array(30), 48_000);
    const heard = worker.heard.map((m) => (m.type === 'sound' ? m.samples.length : m.type));
    expect(heard).toEqual(['load', 'names', 10, 20, 30]);
  });

  it('of an earlier recording do not come into the next one', () => {
    const { worker, live } = open();
    live.load(pack);
    live.begin();
    live.begin();
    worker.say(text(1, ['old'], []));
    worker.say(text(2, ['new'], []));
    expect(shown(live)).toEqual([['new'], []]);
  });

  it('are complete at the end, or given up after a while', async () => {
    const { worker, live } = open();
    live.load(pack);
    live.begin();
    worker.say({ type: 'ready', loadMs: 1 });
    const ended = live.end();
    worker.say(text(1, ['last'], []));
    worker.say({ type: 'ended', session: 1 });
    expect((await ended).map((w) => w.text)).toEqual(['last']);
    live.begin();
    expect(await live.end(10)).toEqual([]);
  });

  it('expect the listed names, whenever these become known', () => {
    const { worker, live } = open();
    const names = [{ text: 'Ottoline', soundsLike: ['otto line'] }];
    live.expectNames(names);
    live.load(pack);
    live.expectNames([]);
    expect(worker.heard.filter((m) => m.type === 'names')).toEqual([
      { type: 'names', names },
      { type: 'names', names: [] },
    ]);
  });

  it('that fail are said to fail, and a new worker is made the next time', () => {
    const { worker, live } = open();
    live.load(pack);
    worker.break();
    expect(live.state).toMatchObject({ state: 'failed', problem: expect.stringContaining('could not transcribe') });
    expect(worker.isGone).toBe(true);
    live.load(pack);
    expect(live.state.state).toBe('loading');
  });

  it('take no memory once the pack is removed', () => {
    const { worker, live } = open();
    live.load(pack);
    live.unload();
    expect(worker.isGone).toBe(true);
    expect(live.state.state).toBe('off');
  });
});
