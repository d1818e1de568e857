import fc from 'fast-check';
import { changesBetween, shortened } from './changes';

describe('changes between two texts', () => {
  it('tell what went and what came, in order', () => {
    expect(changesBetween(['along the key now'], ['along the', 'quay now'])).toEqual([
      { kind: 'same', text: 'along the' },
      { kind: 'gone', text: 'key' },
      { kind: 'new', text: 'quay' },
      { kind: 'same', text: 'now' },
    ]);
    expect(changesBetween([], [])).toEqual([]);
  });

  it('give back both texts', () => {
    const text = fc.array(fc.constantFrom('the', 'quay', 'lime', 'pit', 'a'), { maxLength: 20 });
    fc.assert(
      fc.property(text, text, (a, b) => {
        const changes = changesBetween([a.join(' ')], [b.join(' ')]);
        const side = (without: string) =>
          changes
            .filter((c) => c.kind !== without)
            .map((c) => c.text)
            .join(' ');
        expect(side('new')).toBe(a.join(' '));
        expect(side('gone')).toBe(b.join(' '));
      }),
    );
  });

  it('are shown without the long stretches between them', () => {
    const long = Array.from({ length: 100 }, (_, i) => `w${i}`).join(' ');
    const [same, gone] = shortened(changesBetween([`${long} key`], [`${long} quay`]));
    expect(same!.text).toMatch(/^… w88 .* w99$/);
    expect(gone!.text).toBe('key');
  });
});
