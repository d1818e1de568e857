import { forgetKept, keep, kept } from './kept';

beforeEach(() => localStorage.clear());

test('what was kept is there again, whatever its form', () => {
  for (const value of [null, 0, 'words', { a: [1, 'ü'] }, true]) {
    keep('immeld-test', value);
    expect(kept('immeld-test')).toEqual(value);
  }
  expect(kept('immeld-nothing')).toBeNull();
});

test('what is damaged is nothing', () => {
  localStorage.setItem('immeld-test', '{half');
  expect(kept('immeld-test')).toBeNull();
});

test('all of Immeld is forgotten, and nothing of anybody else', () => {
  keep('immeld-settings', { scale: 2 });
  keep('immeld-note-draft 1', { body: [] });
  localStorage.setItem('other', 'stays');
  forgetKept();
  expect(Object.keys(localStorage)).toEqual(['other']);
});

test('a browser that keeps nothing breaks nothing', () => {
  const refuse = () => {
    throw new DOMException('no', 'SecurityError');
  };
  const storage = jest.spyOn(window, 'localStorage', 'get').mockImplementation(refuse);
  expect(() => keep('immeld-test', 1)).not.toThrow();
  expect(kept('immeld-test')).toBeNull();
  expect(() => forgetKept()).not.toThrow();
  storage.mockRestore();
});
