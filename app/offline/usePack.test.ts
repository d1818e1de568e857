import { readyWhileSeen } from './usePack';

let seen: DocumentVisibilityState;
const look = (state: DocumentVisibilityState) => {
  seen = state;
  document.dispatchEvent(new Event('visibilitychange'));
};
let happened: string[];
const live = { isListening: false, unload: () => void happened.push('unloaded') };
const load = () => void happened.push('loaded');
let stop: () => void;

beforeEach(() => {
  jest.useFakeTimers();
  happened = [];
  live.isListening = false;
  seen = 'visible';
  jest.spyOn(document, 'visibilityState', 'get').mockImplementation(() => seen);
});
afterEach(() => {
  stop();
  jest.useRealTimers();
});

describe('the pack in memory', () => {
  it('is loaded once the page has settled, not in its first second', () => {
    stop = readyWhileSeen(live, load);
    jest.advanceTimersByTime(1000);
    expect(happened).toEqual([]);
    jest.advanceTimersByTime(1000);
    expect(happened).toEqual(['loaded']);
  });

  it('is not loaded by a page that nobody sees, until somebody does', () => {
    seen = 'hidden';
    stop = readyWhileSeen(live, load);
    jest.advanceTimersByTime(60_000);
    expect(happened).toEqual([]);
    look('visible');
    jest.advanceTimersByTime(2000);
    expect(happened).toEqual(['loaded']);
  });

  it('is given back when the page is hidden for long, and comes again when it is seen', () => {
    stop = readyWhileSeen(live, load);
    jest.advanceTimersByTime(2000);
    look('hidden');
    jest.advanceTimersByTime(4 * 60_000);
    look('visible');
    jest.advanceTimersByTime(2000);
    expect(happened).toEqual(['loaded', 'loaded']);
    look('hidden');
    jest.advanceTimersByTime(6 * 60_000);
    expect(happened.at(-1)).toBe('unloaded');
  });

  it('stays while somebody speaks into a hidden page', () => {
    stop = readyWhileSeen(live, load);
    jest.advanceTimersByTime(2000);
    live.isListening = true;
    look('hidden');
    jest.advanceTimersByTime(60 * 60_000);
    expect(happened).toEqual(['loaded']);
  });

  it('is left alone when nothing waits for it any more', () => {
    stop = readyWhileSeen(live, load);
    stop();
    look('visible');
    jest.advanceTimersByTime(10_000);
    expect(happened).toEqual([]);
  });
});
