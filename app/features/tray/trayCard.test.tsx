import type { RecordingCard } from '@immeld/core/contract/recordings';
import { screen, waitFor } from '@testing-library/react';
import { answering, mount } from '../../testing/mount';
import { TrayCard } from './trayCard';
import { useFilingActions } from './useFiling';

const mockPush = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ push: mockPush }) }));

const idOf = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const [RECORDING, HOME, WORK, CALL, BUY] = [1, 2, 3, 4, 5].map(idOf) as [string, string, string, string, string];
const folder = (id: string, name: string) => ({ id, name, parentId: null, tint: 'petrol', position: 0 });
const shelves = { folders: [folder(HOME, 'Home'), folder(WORK, 'Work')], tags: [], projects: [], people: [] };
const todo = (id: string, text: string, more: object = {}) => ({ id, text, who: 'me', due: null, ...more });
const card = (more: Partial<RecordingCard> = {}): RecordingCard =>
  ({
    ...{
      id: RECORDING,
      title: null,
      fileName: 'memo.ogg',
      source: 'speak',
      state: 'ready',
      problem: null,
      draft: null,
    },
    ...{ startedAt: '2026-03-09T07:40:00', durationMs: 64_000, firstWords: 'Call Petra about the beds.', strip: [] },
    ...{ folderId: null, tags: [], isFiled: false, isBinned: false, isArchived: false, isFavourite: false },
    ...{ project: null, people: [], isRecovered: false, appointment: null },
    suggestion: {
      ...{ title: 'The beds', folderId: HOME, tags: ['garden', 'spring'], people: ['Petra Sund'], project: 'Orchard' },
      otherTitles: ['Call about the beds'],
    },
    pencilTodos: [todo(CALL, 'Call Petra'), todo(BUY, 'Buy lime', { who: 'Bram' })],
    ...more,
  }) as RecordingCard;
function Card({ recording }: { recording: RecordingCard }) {
  const actions = useFilingActions();
  return <TrayCard recording={recording} {...actions} />;
}
const FILING = `POST /api/recordings/${RECORDING}/filing`;
const begin = async (recording: RecordingCard, more: Record<string, unknown> = {}) => {
  const server = answering({
    ...{ 'GET /api/shelves': shelves, 'GET /api/jobs': { items: [] }, [FILING]: { ...recording, isFiled: true } },
    ...{ [`PATCH /api/recordings/${RECORDING}`]: recording, [`PATCH /api/todos/${CALL}`]: {}, ...more },
  });
  const { hand } = mount(<Card recording={recording} />);
  await waitFor(() => expect(server.asked.some(({ address }) => address === '/api/jobs')).toBe(true));
  return {
    server,
    hand,
    press: (name: string) => hand.click(screen.getByRole('button', { name })),
    toggle: async (name: string) => hand.click(await screen.findByRole('checkbox', { name })),
  };
};
const filing = {
  title: 'The beds',
  folderId: HOME,
  tags: ['garden', 'spring'],
  people: ['Petra Sund'],
  project: 'Orchard',
};

test('one press files it with all that is proposed', async () => {
  const { server, press } = await begin(card());
  await screen.findByRole('checkbox', { name: 'Folder Home' });
  await press('File');
  await screen.findByText('“The beds” is filed.');
  expect(server.sent()[0]!.body).toEqual({ ...filing, todoIds: [CALL, BUY] });
});

test('what is taken off stays out, and what is taken off twice is in again', async () => {
  const { server, press, toggle } = await begin(card());
  for (const part of ['Tag garden', 'With Petra Sund', 'Project Orchard', 'Buy lime', 'Tag spring', 'Tag spring'])
    await toggle(part);
  expect(screen.getByRole('checkbox', { name: 'Tag garden' }).getAttribute('aria-checked')).toBe('false');
  await press('File');
  await screen.findByText('“The beds” is filed.');
  expect(server.sent()[0]!.body).toEqual({
    ...{ ...filing, tags: ['spring'], people: [], project: null, todoIds: [CALL] },
  });
});

test('another shelf is one press more, and files at once', async () => {
  const { server, hand, press } = await begin(card());
  await press('Other folder');
  await hand.click(await screen.findByRole('radio', { name: 'Work' }));
  await waitFor(() => expect(server.sent()).toHaveLength(1));
  expect(server.sent()[0]!.body).toMatchObject({ folderId: WORK, todoIds: [CALL, BUY] });
});

test('undo puts it back as it was, and its to-dos into pencil', async () => {
  const { server, press, toggle } = await begin(card({ title: 'Mine', tags: ['own'] }));
  await toggle('Buy lime');
  await press('File');
  await screen.findByText('“Mine” is filed.');
  expect(server.sent()[0]!.body).toMatchObject({ title: 'Mine', tags: ['own', 'garden', 'spring'] });
  await press('Undo');
  await waitFor(() => expect(server.sent()).toHaveLength(3));
  expect(server.sent().slice(1)).toMatchObject([
    {
      body: {
        isFiled: false,
        isBinned: false,
        title: 'Mine',
        folderId: null,
        tags: ['own'],
        people: [],
        project: null,
      },
    },
    { address: `/api/todos/${CALL}`, body: { state: 'pencil' } },
  ]);
});

test('what the person has set already stands firm and is not proposed again', async () => {
  await begin(card({ folderId: WORK, tags: ['garden'], project: 'House' }));
  await screen.findByText('Work · House · garden');
  expect(screen.getAllByRole('checkbox').map((c) => c.getAttribute('aria-label'))).toEqual([
    ...['Tag spring', 'With Petra Sund', 'Call Petra', 'Buy lime'],
  ]);
});

test('another title is asked for, the bin can be taken back, and words and changes lead to the recording', async () => {
  const { server, press, hand } = await begin(card());
  await press('Another title');
  await waitFor(() => expect(server.sent()[0]!.body).toEqual({ suggestedTitle: 'Call about the beds' }));
  await press('Move to bin');
  await screen.findByText('“The beds” is in the bin for 30 days.');
  await press('Undo');
  await waitFor(() => expect(server.sent()[2]!.body).toMatchObject({ isBinned: false }));
  await press('Edit');
  await hand.click(screen.getByRole('link', { name: 'Open The beds' }));
  expect(mockPush.mock.calls.map(([to]) => (to as { params: object }).params)).toEqual([
    { id: RECORDING, part: 'about' },
    { id: RECORDING },
  ]);
});

test('without words the sound is said to be kept; without any suggestion, where suggestions come from', async () => {
  const nothing = { title: null, folderId: null, tags: [] };
  await begin(card({ firstWords: '', suggestion: nothing, pencilTodos: [] }));
  expect(screen.getByText('No speech was found in this recording. The audio is saved.')).toBeTruthy();
  expect(screen.getByText('No folder suggested yet. Suggestions improve as you file.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Another title' })).toBeNull();
});

test('what could not be transcribed has no filing, but a way to the bin', async () => {
  await begin(card({ state: 'failed', firstWords: '', pencilTodos: [] }));
  expect(screen.getAllByRole('button').map((b) => b.getAttribute('aria-label'))).toEqual(['Move to bin']);
});

test('a to-do that is not sure is filed only when it is put on', async () => {
  const unsure = card({ pencilTodos: [todo(CALL, 'Call Petra'), todo(BUY, 'Buy lime', { isUnsure: true })] } as never);
  const { server, press, toggle } = await begin(unsure);
  expect(screen.getByText('not sure')).toBeTruthy();
  expect(screen.getByRole('checkbox', { name: 'Buy lime' }).getAttribute('aria-checked')).toBe('false');
  await press('File');
  await screen.findByText('“The beds” is filed.');
  expect(server.sent()[0]!.body).toMatchObject({ todoIds: [CALL] });
  await toggle('Buy lime');
  await press('File');
  await waitFor(() => expect(server.sent()).toHaveLength(2));
  expect(server.sent()[1]!.body).toMatchObject({ todoIds: [CALL, BUY] });
});
