import { act } from 'react';
import { type Root, createRoot } from 'react-dom/client';
import { PaperProvider } from 'react-native-paper';
import { UndoBarProvider, useUndoBar } from './undoBar';

let show: ReturnType<typeof useUndoBar>;
function Hand() {
  show = useUndoBar();
  return null;
}
let root: Root;
let page: HTMLElement;
const pass = (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));
const offer = (text: string, undo: () => void) => act(async () => show(text, undo));
const pressUndo = () =>
  act(async () => {
    const button = [...page.querySelectorAll('[role=button], button')].find((b) => b.textContent === 'Undo');
    if (!button) throw new Error('There is no Undo.');
    (button as HTMLElement).click();
  });

beforeEach(async () => {
  Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });
  jest.useFakeTimers();
  page = document.body.appendChild(document.createElement('div'));
  root = createRoot(page);
  await act(async () =>
    root.render(
      <PaperProvider>
        <UndoBarProvider>
          <Hand />
        </UndoBarProvider>
      </PaperProvider>,
    ),
  );
});
afterEach(async () => {
  await act(async () => root.unmount());
  page.remove();
  jest.useRealTimers();
});

test('what was done can be taken back for ten seconds', async () => {
  const undo = jest.fn();
  await offer('To-do removed.', undo);
  await pass(9_900);
  await pressUndo();
  expect(undo).toHaveBeenCalledTimes(1);
  await pass(1_000);
  expect(page.textContent).not.toContain('To-do removed.');
});

test('what is done right after an undo has its own, though the bar before is still fading', async () => {
  const [first, second] = [jest.fn(), jest.fn()];
  await offer('Put off.', first);
  await pass(2_000);
  await pressUndo();
  await pass(30);
  await offer('Done.', second);
  await pass(5_000);
  await pressUndo();
  expect([first, second].map((f) => f.mock.calls.length)).toEqual([1, 1]);
});

test('each has its ten seconds, also when it takes the place of another', async () => {
  await offer('Put off.', jest.fn());
  await pass(8_000);
  const undo = jest.fn();
  await offer('Done.', undo);
  await pass(9_000);
  await pressUndo();
  expect(undo).toHaveBeenCalledTimes(1);
});
