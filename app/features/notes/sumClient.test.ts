import { SumClient } from './sumClient';

class FakeWorker {
  sent: { number: number }[] = [];
  isGone = false;
  private listener: (event: { data: object }) => void = () => undefined;
  postMessage = (message: { number: number }) => void this.sent.push(message);
  terminate = () => void (this.isGone = true);
  addEventListener = (_: string, listener: never) => void (this.listener = listener);
  say = (number: number, text: string) => this.listener({ data: { number, answers: [{ kind: 'answer', text }] } });
}

let workers: FakeWorker[];
let client: SumClient;
const heard: string[] = [];
const SETTINGS = { day: '2026-03-09', currencies: null };
const ask = (text: string) =>
  client.ask([{ text }], SETTINGS, ([first]) => heard.push((first as { text: string }).text));

beforeEach(() => {
  jest.useFakeTimers();
  workers = [];
  heard.length = 0;
  client = new SumClient(() => {
    workers.push(new FakeWorker());
    return workers.at(-1)! as never;
  });
});
afterEach(() => jest.useRealTimers());

it('begins one thread with the first question, and hears the answer to the newest', () => {
  expect(workers).toHaveLength(0);
  ask('1 =');
  ask('12 =');
  workers[0]!.say(1, 'old');
  workers[0]!.say(2, 'new');
  expect([workers.length, heard]).toEqual([1, ['new']]);
});

it('gives up a thread that does not answer, and begins another with the next question', () => {
  ask('1 =');
  jest.advanceTimersByTime(5000);
  expect(workers[0]!.isGone).toBe(true);
  ask('2 =');
  workers[1]!.say(2, 'two');
  expect(heard).toEqual(['two']);
  jest.advanceTimersByTime(5000);
  expect(workers[1]!.isGone).toBe(false);
});
