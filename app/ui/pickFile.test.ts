import { copyFormatted } from './clipboard';
import { countName } from './counts';
import { PICTURE_TYPES, pickFile } from './pickFile';

/** The field that the page opened last. */
function lastField(): { field: HTMLInputElement; isPressed: boolean } {
  const state = { field: null as unknown as HTMLInputElement, isPressed: false };
  const make = document.createElement.bind(document);
  jest.spyOn(document, 'createElement').mockImplementation((name: string) => {
    const element = make(name);
    if (name === 'input') {
      state.field = element as HTMLInputElement;
      element.click = () => (state.isPressed = true);
    }
    return element;
  });
  return state;
}
afterEach(() => jest.restoreAllMocks());

test('a file is asked for within the press, and given when it is selected', async () => {
  const state = lastField();
  const picked = pickFile(PICTURE_TYPES);
  expect(state.isPressed).toBe(true);
  expect([state.field.type, state.field.accept]).toEqual(['file', PICTURE_TYPES]);
  const file = new File(['x'], 'leaf.png', { type: 'image/png' });
  Object.defineProperty(state.field, 'files', { value: [file] });
  state.field.dispatchEvent(new Event('change'));
  expect(await picked).toBe(file);
});

test('called off, there is none, and without a kind everything may be selected', async () => {
  const state = lastField();
  const picked = pickFile();
  expect(state.field.hasAttribute('accept')).toBe(false);
  state.field.dispatchEvent(new Event('cancel'));
  expect(await picked).toBeNull();
});

test('one and many', () => {
  expect([0, 1, 2].map((n) => countName(n, 'note'))).toEqual(['0 notes', '1 note', '2 notes']);
});

describe('the clipboard', () => {
  const written: Record<string, Promise<Blob>>[] = [];
  beforeEach(() => {
    written.length = 0;
    Object.assign(globalThis, {
      ClipboardItem: class {
        constructor(items: Record<string, Promise<Blob>>) {
          written.push(items);
        }
      },
    });
    Object.assign(navigator, { clipboard: { write: async () => undefined } });
  });

  test('gets what is formatted with its plain form beside it', async () => {
    await copyFormatted(Promise.resolve({ plain: 'a < b', html: '<p>a &lt; b</p>' }), true);
    const [item] = written;
    expect(Object.keys(item!).sort()).toEqual(['text/html', 'text/plain']);
    expect((await item!['text/plain'])!.type).toBe('text/plain');
    expect((await item!['text/html'])!.size).toBe('<p>a &lt; b</p>'.length);
  });

  test('gets plain text alone, and a browser that refuses is told', async () => {
    await copyFormatted(Promise.resolve({ plain: 'a', html: null }), false);
    expect(Object.keys(written[0]!)).toEqual(['text/plain']);
    Object.assign(navigator, { clipboard: { write: () => Promise.reject(new Error('not allowed')) } });
    await expect(copyFormatted(Promise.resolve({ plain: 'a', html: null }), false)).rejects.toThrow('not allowed');
  });
});
