import { levelWord } from './levels';

const tenths = (count: number, value: number) => new Array<number>(count).fill(value);

describe('what the level display says', () => {
  it('judges nothing before three seconds', () => expect(levelWord(tenths(29, 1), 0)).toBe('unknown'));
  it('tells a voice that is too far away', () => expect(levelWord(tenths(30, 2), 0)).toBe('too quiet'));
  it('tells a microphone that gives nothing at all from a quiet room', () => {
    expect(levelWord(tenths(16, 0), 1600)).toBe('dead');
    expect(levelWord(tenths(16, 0), 1400)).toBe('unknown');
  });
  it('forgives one loud moment, not two', () => {
    expect(levelWord([...tenths(20, 30), 100], 0)).toBe('good');
    expect(levelWord([...tenths(20, 30), 100, 100], 0)).toBe('clipping');
  });
  it('tells silence after thirty seconds', () => {
    expect(levelWord(tenths(299, 0), 0)).toBe('too quiet');
    expect(levelWord(tenths(300, 0), 0)).toBe('silent');
    expect(levelWord([...tenths(300, 0), 20], 0)).toBe('good');
  });
});
