import fc from 'fast-check';
import { reassignRange, alignByTime } from './alignPassages';
import { type Passage, passageText } from './manuscript';

const passage = (startMs: number, endMs: number, text = `${startMs}`, speaker: string | null = null): Passage => ({
  ...{ startMs, endMs, speaker, startsParagraph: true },
  words: text
    .split(' ')
    .map((word, i) => ({ startMs: startMs + i * 100, endMs: startMs + i * 100 + 90, text: word, confidence: 1 })),
});

describe('two texts of one sound', () => {
  it('stand beside each other where they cover the same time', () => {
    const now = [passage(0, 1000), passage(1000, 2000), passage(2500, 4000)];
    const then = [passage(0, 900), passage(1000, 1500), passage(1500, 2100), passage(2600, 3900)];
    const shape = alignByTime(now, then).map(({ from, to, others }) => [from, to, others.map((o) => o.startMs)]);
    expect(shape).toEqual([
      [0, 1, [0]],
      [1, 2, [1000, 1500]],
      [2, 3, [2600]],
    ]);
  });

  it('leave nothing out, however they are cut', () => {
    const cuts = fc.array(fc.integer({ min: 1, max: 3000 }), { minLength: 1, maxLength: 12 });
    const cut = (lengths: number[]) => {
      let at = 0;
      return lengths.map((length) => {
        const p = passage(at, at + length);
        at += length + (length % 3) * 200;
        return p;
      });
    };
    fc.assert(
      fc.property(cuts, cuts, (a, b) => {
        const [now, then] = [cut(a), cut(b)];
        const groups = alignByTime(now, then);
        expect(groups.flatMap((g) => now.slice(g.from, g.to))).toEqual(now);
        expect(groups.flatMap((g) => g.others)).toEqual(then);
        expect(groups.every((g) => g.to > g.from && g.others.length > 0)).toBe(true);
      }),
    );
  });
});

describe('words given to somebody', () => {
  const text = [
    passage(0, 500, 'one two three four'),
    passage(1000, 1500, 'five six seven', 'Jun'),
    passage(2000, 2200, 'end'),
  ];

  it('part the passages in which they begin and end', () => {
    const given = reassignRange(text, { startMs: 200, endMs: 1100 }, 'Bram')!;
    expect([given.at, given.count]).toEqual([0, 2]);
    expect(given.added.map((p) => [passageText(p), p.speaker])).toEqual([
      ['one two', null],
      ['three four', 'Bram'],
      ['five', 'Bram'],
      ['six seven', 'Jun'],
    ]);
  });

  it('take the middle out of a passage', () => {
    const given = reassignRange(text, { startMs: 100, endMs: 250 }, 'Bram')!;
    expect(given.added.map((p) => [passageText(p), p.speaker])).toEqual([
      ['one', null],
      ['two three', 'Bram'],
      ['four', null],
    ]);
  });

  it('part nothing where they are a whole passage', () => {
    const given = reassignRange(text, { startMs: 2000, endMs: 2100 }, 'Bram')!;
    expect(given.added.map(passageText)).toEqual(['end']);
  });

  it('are none between the words', () => {
    expect(reassignRange(text, { startMs: 600, endMs: 900 }, 'Bram')).toBeNull();
  });

  it('never lose or move a word', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2200 }), fc.integer({ min: 0, max: 2200 }), (a, b) => {
        const given = reassignRange(text, { startMs: Math.min(a, b), endMs: Math.max(a, b) }, 'Bram');
        if (!given) return;
        const before = text.slice(given.at, given.at + given.count).flatMap((p) => p.words);
        expect(given.added.flatMap((p) => p.words)).toEqual(before);
      }),
    );
  });
});
