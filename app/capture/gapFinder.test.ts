/** @jest-environment node */
import { type Gap, GapFinder, gapWords } from './gapFinder';

let clock: number;
let wall: number;
let heardMs: number;
let gaps: Gap[];
let finder: GapFinder;

beforeEach(() => {
  [clock, wall, heardMs, gaps] = [1000, 1_000_000, 0, []];
  finder = new GapFinder(
    () => clock,
    () => wall,
  );
});

function pass(ms: number): void {
  clock += ms;
  wall += ms;
}

/** Pieces of a tenth of a second that come so far apart. */
function hear(count: number, everyMs = 100): void {
  for (let i = 0; i < count; i++) {
    pass(everyMs);
    const gap = finder.add(100, heardMs);
    if (gap) gaps.push(gap);
    heardMs += 100;
  }
}

describe('a gap', () => {
  it('is not there when sound comes evenly, or a little late', () => {
    hear(50);
    for (let i = 0; i < 20; i++) {
      pass(2500);
      hear(26, 0);
      hear(10);
    }
    expect(gaps).toEqual([]);
    expect(finder.settle()).toBeNull();
  });

  it.each([0, 5, 20, 60])('is not there when a busy page got all of its sound late, a piece each %d ms', (everyMs) => {
    hear(20);
    pass(6000);
    const late = Math.ceil(6000 / (100 - everyMs));
    hear(late, everyMs);
    hear(60);
    expect(gaps).toEqual([]);
  });

  it('is not there when the page stopped again before it had caught up', () => {
    hear(20);
    pass(6000);
    hear(20, 5);
    pass(4000);
    hear(80, 2);
    hear(40);
    expect(gaps).toEqual([]);
  });

  it('is as long as what never came, and where the sound breaks off', () => {
    hear(20);
    pass(8000);
    hear(30, 0);
    hear(30);
    expect(gaps).toEqual([{ atMs: 2000, missingMs: 5000, why: 'stopped' }]);
    hear(50);
    expect(gaps).toHaveLength(1);
  });

  it('is there also when nothing came late', () => {
    hear(20);
    pass(20_000);
    hear(12);
    expect(gaps).toEqual([{ atMs: 2000, missingMs: 20_000, why: 'stopped' }]);
  });

  it('is found at the end of a recording that ends before it is certain', () => {
    hear(20);
    pass(8000);
    hear(2);
    expect(gaps).toEqual([]);
    expect(finder.settle()).toEqual({ atMs: 2000, missingMs: 8000, why: 'stopped' });
    expect(finder.settle()).toBeNull();
  });

  it('is not the time of a pause', () => {
    hear(20);
    pass(60_000);
    finder.restart();
    hear(40);
    expect(gaps).toEqual([]);
  });

  it('is found when the clock of the page stood still while the device slept', () => {
    hear(20);
    wall += 12 * 60_000;
    hear(40);
    expect(gaps).toEqual([{ atMs: 2000, missingMs: 12 * 60_000, why: 'slept' }]);
  });

  it('is not there when the clock on the wall is put back, or set right by seconds', () => {
    hear(20);
    wall -= 2 * 3_600_000;
    hear(20);
    wall += 4000;
    hear(20);
    expect(gaps).toEqual([]);
  });
});

describe('what is said', () => {
  it.each<[Gap, string]>([
    [{ atMs: 0, missingMs: 4600, why: 'stopped' }, '5 s are missing'],
    [{ atMs: 0, missingMs: 45_000, why: 'slept' }, '45 s may be missing'],
    [{ atMs: 0, missingMs: 720_000, why: 'slept' }, '12 min may be missing'],
  ])('has the time in it (%#)', (gap, text) => {
    expect(gapWords(gap)).toContain(text);
  });
});
