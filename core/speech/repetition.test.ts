import { loopAtEnd, supportedRepetitions } from './repetition';

describe('guard against loops', () => {
  it('finds one token five times, groups of two or three four times, longer groups three times', () => {
    expect(loopAtEnd([9, 5, 5, 5, 5])).toBeNull();
    expect(loopAtEnd([9, 5, 5, 5, 5, 5])).toEqual({ groupLength: 1, times: 5 });
    expect(loopAtEnd([1, 2, 1, 2, 1, 2])).toBeNull();
    expect(loopAtEnd([1, 2, 1, 2, 1, 2, 1, 2])).toEqual({ groupLength: 2, times: 4 });
    expect(loopAtEnd([1, 2, 3, 4, 1, 2, 3, 4, 1, 2, 3, 4])).toEqual({ groupLength: 4, times: 3 });
  });

  it('finds a long group that comes twice: nobody says eleven words the same way twice in a row', () => {
    const group = Array.from({ length: 15 }, (_, i) => 100 + i);
    expect(loopAtEnd([7, ...group, ...group])).toEqual({ groupLength: 15, times: 2 });
    expect(loopAtEnd([7, ...group, ...group.slice(0, 14)])).toBeNull();
  });

  it('finds nothing in a sequence that goes on', () => {
    expect(loopAtEnd([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])).toBeNull();
    expect(loopAtEnd([5, 5, 5, 5, 5, 9])).toBeNull();
  });

  it('lets words that were really said again and again pass: the attention moves on', () => {
    const eightTimes = Array.from({ length: 8 }, (_, i) => 0.2 + i * 0.3);
    expect(supportedRepetitions({ groupLength: 1, times: 8 }, eightTimes)).toBe(8);
    expect(supportedRepetitions({ groupLength: 1, times: 8 }, [0, ...eightTimes.map(() => 2.2)])).toBe(1);
  });

  it('takes away only what was added at the end', () => {
    expect(supportedRepetitions({ groupLength: 2, times: 4 }, [1, 1.2, 2, 2.2, 3, 3.2, 3.1, 3.2])).toBe(3);
  });

  it('takes attention that jumps back for a loop', () => {
    expect(supportedRepetitions({ groupLength: 2, times: 4 }, [3, 3.2, 1, 1.2, 3, 3.2, 1, 1.2])).toBe(1);
  });
});
