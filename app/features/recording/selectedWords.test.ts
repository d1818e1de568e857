import { selectedWords } from './selectedWords';

const word = (text: string, from: number) => `<span data-from="${from}" data-to="${from + 90}">${text}</span>`;
document.body.innerHTML = `
  <main>
    <div data-speaker="Ida">${['Is', 'it', 'clay?'].map((t, i) => word(t, i * 100)).join(' ')}</div>
    <div data-speaker="">${word('Hm.', 300)}</div>
    <div data-speaker="Bram">${['It', 'is', 'loam.'].map((t, i) => word(t, 400 + i * 100)).join(' ')}</div>
    <textarea>typed</textarea>
  </main>`;
const at = (from: number) => document.querySelector(`[data-from="${from}"]`)!.firstChild as Text;
function select(from: Text, fromAt: number, to: Text, toAt: number) {
  const selection = window.getSelection()!;
  selection.removeAllRanges();
  const range = document.createRange();
  range.setStart(from, fromAt);
  range.setEnd(to, toAt);
  selection.addRange(range);
  return selectedWords();
}
afterEach(() => window.getSelection()!.removeAllRanges());

test('nothing selected, or only a place between letters, is nothing', () => {
  expect(selectedWords()).toBeNull();
  expect(select(at(100), 1, at(100), 1)).toBeNull();
});

test('a piece of a word is the whole word, with its times', () => {
  expect(select(at(200), 1, at(200), 3)).toMatchObject({
    ...{ startMs: 200, endMs: 290, text: 'clay?', parts: [{ speaker: 'Ida', text: 'clay?' }] },
  });
});

test('a border that only touches a word does not take it along', () => {
  expect(select(at(0), 2, at(200), 0)).toMatchObject({ startMs: 100, text: 'it' });
});

test('words of several paragraphs keep who says them', () => {
  expect(select(at(100), 0, at(500), 2)).toMatchObject({
    ...{ startMs: 100, endMs: 590, text: 'it clay? Hm. It is' },
    parts: [
      { speaker: 'Ida', text: 'it clay?' },
      { speaker: null, text: 'Hm.' },
      { speaker: 'Bram', text: 'It is' },
    ],
  });
});

test('what is selected in a field that is typed into is left to it', () => {
  const typed = document.querySelector('textarea')!.firstChild as Text;
  expect(select(typed, 0, typed, 3)).toBeNull();
});
