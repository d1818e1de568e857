import { ApiProblem, UNREACHABLE, call } from '../api/call';
import { dropDraft, keepDraft, noteOnlyHere, readDraft, sendDraft, sendDrafts, withNotesOnlyHere } from './noteDrafts';

jest.mock('../api/call', () => ({ ...jest.requireActual('../api/call'), call: jest.fn() }));
const asked = jest.mocked(call);

const [NEW, OLD, OPEN] = ['new', 'old', 'open'];
const doc = { type: 'doc' as const, content: [] };
const seenAt = '2026-03-09T10:00:00.000Z';
/** The names that some page holds. */
let held: string[];

beforeEach(() => {
  localStorage.clear();
  asked.mockReset();
  asked.mockResolvedValue({ id: NEW, textChangedAt: seenAt } as never);
  held = [];
  const request = async (name: string, _: object, work: (lock: unknown) => unknown) =>
    work(held.includes(name) ? null : {});
  Object.defineProperty(navigator, 'locks', { value: { request }, configurable: true });
});

it('a new note is begun under its own id, then written; one without words is begun only', async () => {
  await sendDraft(NEW, { seenAt: null, folderId: 'f', title: 'Soils', body: doc });
  expect(asked.mock.calls).toEqual([
    ['addNote', { body: { id: NEW, title: 'Soils', folderId: 'f' } }],
    ['changeNote', { params: { id: NEW }, body: { title: 'Soils', body: doc, seenAt } }],
  ]);
  asked.mockClear();
  await sendDraft(NEW, { seenAt: null });
  expect(asked.mock.calls).toEqual([['addNote', { body: { id: NEW, title: '', folderId: null } }]]);
});

it('a change is sent with the state it was made on', async () => {
  await sendDraft(OLD, { seenAt, body: doc });
  expect(asked.mock.calls).toEqual([['changeNote', { params: { id: OLD }, body: { body: doc, seenAt } }]]);
});

it('what nobody has open is sent by itself; what is open, refused or not answered stays', async () => {
  for (const id of [NEW, OLD, OPEN]) keepDraft(id, { seenAt, body: doc });
  held = [`immeld-note ${OPEN}`];
  asked.mockImplementation((_, sent) => {
    if ((sent!.params as { id: string }).id === OLD) throw new ApiProblem('Changed elsewhere.', '', 409);
    return Promise.resolve({ id: NEW } as never);
  });
  expect(await sendDrafts()).toBe(1);
  expect([NEW, OLD, OPEN].map((id) => readDraft(id) !== null)).toEqual([false, true, true]);
  held = [];
  asked.mockRejectedValue(UNREACHABLE);
  expect(await sendDrafts()).toBe(0);
  expect(readDraft(OPEN)).not.toBeNull();
});

it('what only this device has stands in its lists until the server has it', () => {
  keepDraft(NEW, { seenAt: null, title: 'Soils', folderId: 'f', begunAt: seenAt });
  keepDraft(OLD, { seenAt, title: 'Known there' });
  expect(noteOnlyHere(OLD)).toBeNull();
  expect(noteOnlyHere('nobody')).toBeNull();
  const own = noteOnlyHere(NEW)!;
  expect(own).toMatchObject({ id: NEW, title: 'Soils', folderId: 'f', changedAt: seenAt, body: null });
  expect(withNotesOnlyHere([]).map((n) => n.id)).toEqual([NEW]);
  expect(withNotesOnlyHere([own])).toHaveLength(1);
  expect(withNotesOnlyHere([], 'another folder')).toEqual([]);
  dropDraft(NEW);
  expect(withNotesOnlyHere([])).toEqual([]);
});
