import type { NewSlip } from '@immeld/core/contract/slips';
import { nowRows } from './nowRows';

const word = (text: string, startMs: number) => ({ text, startMs, endMs: startMs + 300, confidence: 1 });
const slip = (startMs: number): NewSlip => ({
  id: `slip-${startMs}`,
  kind: 'note',
  mark: null,
  startMs,
  endMs: null,
  text: 'look here',
});
const shape = (rows: ReturnType<typeof nowRows>) =>
  rows.map((r) =>
    r.kind === 'slip' ? `[${r.slip.startMs}]` : r.kind === 'aside' ? `(${r.text})` : `${r.fixed}|${r.tentative}`,
  );

describe('the words of now', () => {
  it('keeps what may still change apart from what is fixed', () => {
    expect(shape(nowRows([word('Water', 0), word('moves', 400)], [word('down', 800)], []))).toEqual([
      'Water moves |down ',
    ]);
  });
  it('begins a paragraph after a long pause', () => {
    expect(shape(nowRows([word('One', 0), word('Two', 5000)], [], []))).toEqual(['One |', 'Two |']);
  });
  it('puts each slip between the words of its second, and newer ones at the end', () => {
    const rows = nowRows([word('One', 0), word('two', 400), word('three', 800)], [], [slip(9000), slip(500)]);
    expect(shape(rows)).toEqual(['One two |', '[500]', 'three |', '[9000]']);
  });
  it('sets an aside apart from the text as soon as its opening is heard', () => {
    const words = 'Clay holds. Side note ask him. Back to it. Sand'.split(' ').map((text, i) => word(text, i * 350));
    const phrases = { opening: 'side note', closing: 'back to it' };
    expect(shape(nowRows(words.slice(0, 5), [], [], phrases))).toEqual(['Clay holds. |', '(ask)']);
    expect(shape(nowRows(words, [], [], phrases))).toEqual(['Clay holds. |', '(ask him.)', 'Sand |']);
  });
  it('draws only the newest words of a long talk, with the slips among them', () => {
    const words = Array.from({ length: 1000 }, (_, i) => word(`w${i}`, i * 500));
    const rows = nowRows(words, [], [slip(100), slip(499_000)]);
    expect(rows.filter((r) => r.kind === 'slip')).toHaveLength(1);
    expect(shape(rows)[0]).toMatch(/^w600 /);
  });
});
