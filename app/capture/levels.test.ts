import { levelWord } from './levels';

const tenths = (count: number, value: number) => new Array<number>(count).fill(value);

describe('what the level display says', () => {
  it('judges nothing before three seconds', () => expect(levelWord(tenths(29, 1))).toBe('good'));
  it('tells a voice that is too far away', () => expect(levelWord(tenths(30, 2))).toBe('too quiet'));
  it('forgives one loud moment, not two', () => {
    expect(levelWord([...tenths(20, 30), 100])).toBe('good');
    expect(levelWord([...tenths(20, 30), 100, 100])).toBe('clipping');
  });
  it('tells silence after thirty seconds', () => {
    expect(levelWord(tenths(299, 0))).toBe('too quiet');
    expect(levelWord(tenths(300, 0))).toBe('silent');
    expect(levelWord([...tenths(300, 0), 20])).toBe('good');
  });
});
