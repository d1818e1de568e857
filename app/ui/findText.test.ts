import { renderHook } from '@testing-library/react';
import { findText, useFindText } from './findText';

const now = (): string => renderHook(useFindText).result.current;

describe('what stands in the find bar', () => {
  beforeEach(() => findText.clear());

  it('is what is typed, however late the address follows', () => {
    for (const typed of ['l', 'li', 'lim', 'lime']) findText.type(typed);
    findText.hear('l');
    findText.hear('lim');
    expect(now()).toBe('lime');
    findText.hear('lime');
    expect(now()).toBe('lime');
  });

  it('is what a chip or a voice put there', () => {
    findText.type('lime');
    findText.hear('lime');
    findText.hear('lime tag:walk');
    expect(now()).toBe('lime tag:walk');
  });

  it('goes over to the next bar while somebody types', () => {
    findText.type('l');
    expect(findText.isBeingTyped()).toBe(true);
    expect(findText.typeOn('i')).toBe('li');
    expect(now()).toBe('li');
    findText.arrive();
    expect([findText.isBeingTyped(), findText.typeOn('m')]).toEqual([false, null]);
  });
});
