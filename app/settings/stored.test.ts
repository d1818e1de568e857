import { clearStored, writeStored, readStored } from './stored';

beforeEach(() => localStorage.clear());

test('what was kept is there again, whatever its form', () => {
  for (const value of [null, 0, 'words', { a: [1, 'ü'] }, true]) {
    writeStored('immeld-test', value);
    expect(readStored('immeld-test')).toEqual(value);
  }
  expect(readStored('immeld-nothing')).toBeNull();
});

test('what is damaged is nothing', () => {
  localStorage.setItem('immeld-test', '{half');
  expect(readStored('immeld-test')).toBeNull();
});

test('all of Immeld is forgotten, and nothing of anybody else', () => {
  writeStored('immeld-settings', { scale: 2 });
  writeStored('immeld-note-draft 1', { body: [] });
  localStorage.setItem('other', 'stays');
  clearStored();
  expect(Object.keys(localStorage)).toEqual(['other']);
});

test('a browser that keeps nothing breaks nothing', () => {
  const refuse = () => {
    throw new DOMException('no', 'SecurityError');
  };
  const storage = jest.spyOn(window, 'localStorage', 'get').mockImplementation(refuse);
  expect(() => writeStored('immeld-test', 1)).not.toThrow();
  expect(readStored('immeld-test')).toBeNull();
  expect(() => clearStored()).not.toThrow();
  storage.mockRestore();
});
