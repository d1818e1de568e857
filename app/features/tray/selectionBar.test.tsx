import { screen, waitFor } from '@testing-library/react';
import { allRecordings } from '../../api/queries';
import { answering, mount, Refusal } from '../../testing/mount';
import { SelectionBar } from './selectionBar';

const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush }) }));

const [A, B, NOTE] = ['a', 'b', 'c'].map((c) => `00000000-0000-4000-8000-00000000000${c}`) as [string, string, string];
const HOME = { id: '00000000-0000-4000-8000-0000000000ff', name: 'Home', parentId: null, tint: 'petrol', position: 0 };
const shelves = { folders: [HOME], tags: [], projects: [], people: [] };
const BATCH = 'POST /api/recordings/batch';
const done = { deedId: '00000000-0000-4000-8000-0000000000dd', text: '1 recording and 1 note are in Home.', count: 2 };
const button = (name: string) => screen.getByRole('button', { name });
const isOff = (name: string) => button(name).getAttribute('aria-disabled') === 'true';
beforeEach(() => mockPush.mockReset());

test('with nothing chosen nothing can be done but choosing and closing', () => {
  answering({ 'GET /api/shelves': shelves });
  mount(<SelectionBar ids={[]} where="shelf" onChooseAll={async () => undefined} onDone={() => undefined} />);
  expect(screen.getByText('Tick items to select them').getAttribute('role')).toBe('status');
  for (const name of ['Move to', 'Add tag', 'Add to favourites', 'Archive', 'Make a write-up', 'Export', 'Move to bin'])
    expect([name, isOff(name)]).toEqual([name, true]);
  expect([isOff('Select all'), isOff('Close')]).toEqual([false, false]);
});

test('all that there is can be chosen, also what was not scrolled to; a server that does not answer is said', async () => {
  const LIST = 'GET /api/recordings?place=tray&limit=200&offset=';
  const page = (count: number) => ({ items: Array.from({ length: count }, () => ({ id: A })), total: 230 });
  const answers = [new Refusal(503, 'The server is busy.'), page(200)];
  answering({ 'GET /api/shelves': shelves, [`${LIST}0`]: () => answers.shift(), [`${LIST}200`]: page(30) });
  const chosen: unknown[] = [];
  const choose = async () => void chosen.push((await allRecordings({ place: 'tray' })).length);
  const { hand } = mount(<SelectionBar ids={[]} where="tray" onChooseAll={choose} onDone={() => undefined} />);
  await hand.click(button('Select all'));
  expect((await screen.findByRole('alert')).textContent).toContain('The server is busy.');
  await hand.click(button('Select all'));
  await waitFor(() => expect(chosen).toEqual([230]));
  expect(screen.queryByRole('alert')).toBeNull();
});

test('recordings and notes move together, and one press brings both back', async () => {
  const server = answering({
    ...{ 'GET /api/shelves': shelves, [BATCH]: done },
    [`POST /api/history/${done.deedId}/undo`]: { undone: 2, kept: 0 },
  });
  const onDone = jest.fn();
  const { hand } = mount(<SelectionBar ids={[A]} noteIds={[NOTE]} where="shelf" onChooseAll={null} onDone={onDone} />);
  expect(screen.getByText('2 selected')).toBeTruthy();
  await hand.click(button('Move to'));
  await hand.click(await screen.findByRole('radio', { name: 'Home' }));
  await screen.findByText(done.text);
  expect(onDone).toHaveBeenCalledTimes(1);
  expect(server.sent()).toEqual([
    expect.objectContaining({ body: { ids: [A], noteIds: [NOTE], folderId: HOME.id, isFiled: true } }),
  ]);
  await hand.click(button('Undo'));
  await waitFor(() => expect(server.sent()[1]).toMatchObject({ address: `/api/history/${done.deedId}/undo` }));
});

test('a tag for all is sent without its blanks', async () => {
  const server = answering({ 'GET /api/shelves': shelves, [BATCH]: { ...done, text: 'Both are tagged late.' } });
  const { hand } = mount(<SelectionBar ids={[A, B]} where="archive" onChooseAll={null} onDone={() => undefined} />);
  expect(screen.queryByRole('button', { name: 'Archive' })).toBeNull();
  await hand.click(button('Add tag'));
  await hand.type(screen.getByRole('textbox', { name: 'Tag for all selected items' }), '  late {Enter}');
  await screen.findByText('Both are tagged late.');
  expect(server.sent()[0]!.body).toEqual({ ids: [A, B], noteIds: [], addTags: ['late'] });
});

test('what the server refuses is told, and what was chosen stays selected', async () => {
  answering({ 'GET /api/shelves': shelves, [BATCH]: new Refusal(500, 'The disk is full.', 'Nothing was moved.') });
  const onDone = jest.fn();
  const { hand } = mount(<SelectionBar ids={[A]} where="shelf" onChooseAll={null} onDone={onDone} />);
  await hand.click(button('Move to bin'));
  expect((await screen.findByRole('alert')).textContent).toBe('The disk is full.Nothing was moved.');
  expect(onDone).not.toHaveBeenCalled();
});

test('a write-up is made of recordings only; notes go along as files', async () => {
  answering({ 'GET /api/shelves': shelves });
  const bar = (noteIds: string[]) => (
    <SelectionBar ids={[A]} noteIds={noteIds} where="shelf" onChooseAll={null} onDone={() => undefined} />
  );
  const { hand, show } = mount(bar([NOTE]));
  expect(isOff('Make a write-up')).toBe(true);
  const why = () => screen.queryByText(/deselect the notes/);
  expect(why()).toBeTruthy();
  await hand.click(button('Export'));
  expect(mockPush).toHaveBeenCalledWith({ pathname: '/take', params: { items: `r${A},n${NOTE}` } });
  show(bar([]));
  expect([isOff('Make a write-up'), why()]).toEqual([false, null]);
});

test('in the bin there is one thing to do', async () => {
  const server = answering({ 'GET /api/shelves': shelves, [BATCH]: { ...done, text: 'It is restored.' } });
  const { hand } = mount(<SelectionBar ids={[A]} where="bin" onChooseAll={null} onDone={() => undefined} />);
  expect(screen.getAllByRole('button').map((b) => b.getAttribute('aria-label'))).toEqual([
    ...['Select all', 'Close', 'Restore'],
  ]);
  await hand.click(button('Restore'));
  await screen.findByText('It is restored.');
  expect(server.sent()[0]!.body).toMatchObject({ isBinned: false });
});
