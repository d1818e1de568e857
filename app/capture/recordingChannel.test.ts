/** @jest-environment node */
import { Listeners } from '../state/listeners';
import type { CaptureEngine } from './captureEngine';
import type { CaptureNow } from './captureNow';
import { RecordingChannel } from './recordingChannel';

/** An engine of which only what the channel looks at is there. */
function engine() {
  const listeners = new Listeners();
  const done: string[] = [];
  const fake = {
    state: { stage: 'idle', elapsedMs: 0 } as CaptureNow,
    subscribe: listeners.subscribe,
    pause: () => done.push('pause'),
    resume: () => done.push('resume'),
    finish: () => done.push('finish'),
  };
  const set = (part: Partial<CaptureNow>) => {
    fake.state = { ...fake.state, ...part };
    listeners.tell();
  };
  return { engine: fake as unknown as CaptureEngine, set, done };
}
const soon = () => new Promise((resolve) => setTimeout(resolve, 20));
const channels: RecordingChannel[] = [];
const open = (of: CaptureEngine) => {
  const channel = new RecordingChannel(of);
  channels.push(channel);
  return channel;
};
afterEach(() => channels.splice(0).forEach((c) => c.close()));

it('shows the other tabs what is recorded in one, and does what they ask for', async () => {
  const [here, there] = [engine(), engine()];
  open(here.engine);
  const other = open(there.engine);
  here.set({ stage: 'recording', elapsedMs: 1200.4 });
  await soon();
  expect(other.elsewhere).toEqual({ stage: 'recording', elapsedMs: 1200 });
  other.ask('pause');
  await soon();
  expect(here.done).toEqual(['pause']);
  expect(there.done).toEqual([]);
  here.set({ stage: 'paused' });
  await soon();
  expect(other.elsewhere!.stage).toBe('paused');
  other.ask('resume');
  other.ask('finish');
  await soon();
  expect(here.done).toEqual(['pause', 'resume', 'finish']);
  here.set({ stage: 'finishing' });
  await soon();
  expect(other.elsewhere).toBeNull();
});

it('tells the time once a second, not at every tenth', async () => {
  const here = engine();
  open(here.engine);
  const other = open(engine().engine);
  let told = 0;
  other.subscribe(() => told++);
  for (let i = 1; i <= 9; i++) here.set({ stage: 'recording', elapsedMs: i * 100 });
  await soon();
  expect(told).toBe(1);
});
