import fs from 'node:fs';
import type { Note } from '@immeld/core/contract/notes';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import type { ChangeEntry, Done, Folder, Named, Shelves } from '@immeld/core/contract/shelves';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const ask = async <T>(method: string, address: string, body?: unknown) =>
  (await askJson<T>(server, method, address, body)).body;
const get = (id: string) => ask<Recording>('GET', `/recordings/${id}`);
const shelves = () => ask<Shelves>('GET', '/shelves');
const folder = (name: string, parentId: string | null = null) => ask<Folder>('POST', '/folders', { name, parentId });
const undo = (id: string | null) => ask<{ undone: number; kept: number }>('POST', `/history/${id}/undo`);
const list = async (query: string) =>
  (await ask<{ items: RecordingCard[] }>('GET', `/recordings?limit=200&${query}`)).items.map((r) => r.id);

describe('many recordings at once', () => {
  it('are filed as suggested and all go back with one undo', async () => {
    const home = await folder('Home');
    const ids = await Promise.all(
      ['milk', 'bread', 'soap'].map((text) =>
        say({
          text: `Buy ${text}.`,
          suggestion: {
            title: `Buy ${text}`,
            folderId: home.id,
            tags: ['errand'],
            people: ['Petra Sund'],
            project: 'House',
          },
        }),
      ),
    );
    const done = await ask<Done>('POST', '/recordings/batch', { ids, asSuggested: true });
    expect(done).toMatchObject({ text: '3 recordings are filed.', count: 3 });
    expect(await get(ids[0]!)).toMatchObject({
      ...{
        title: 'Buy milk',
        folderId: home.id,
        tags: ['errand'],
        people: ['Petra Sund'],
        project: 'House',
        isFiled: true,
      },
    });
    expect((await shelves()).folders.find((f) => f.id === home.id)!.itemCount).toBe(3);
    await undo(done.deedId);
    expect(await get(ids[2]!)).toMatchObject({
      title: null,
      folderId: null,
      tags: [],
      people: [],
      project: null,
      isFiled: false,
    });
  });

  it('are tagged, archived and binned; what was changed since stays as it is', async () => {
    const ids = [await say({ text: 'One.' }), await say({ text: 'Two.' })];
    await ask('POST', '/recordings/batch', { ids, addTags: ['late'] });
    expect((await get(ids[1]!)).tags).toEqual(['late']);
    await ask('POST', '/recordings/batch', { ids, removeTags: ['LATE'] });
    expect((await get(ids[1]!)).tags).toEqual([]);
    const archived = await ask<Done>('POST', '/recordings/batch', { ids, isArchived: true });
    expect(await list('place=all')).not.toContain(ids[0]);
    expect(await list('place=archive')).toEqual(expect.arrayContaining(ids));
    await ask('PATCH', `/recordings/${ids[0]}`, { isArchived: false });
    expect(await undo(archived.deedId)).toEqual({ undone: 1, kept: 1 });
    expect(await list('place=archive')).toEqual([]);
    await ask('POST', '/recordings/batch', { ids, isBinned: true });
    expect(await list('place=bin')).toEqual(expect.arrayContaining(ids));
  });

  it('and notes with them, go together and come back together', async () => {
    const home = await folder('Evening');
    const id = await say({ text: 'Something said.' });
    const note = async (title: string) => (await ask<Note>('POST', '/notes', { title })).id;
    const [first, second] = [await note('Written one'), await note('')];
    const noteOf = (noteId: string) => ask<Note>('GET', `/notes/${noteId}`);
    const batch = { ids: [id], noteIds: [first, second] };
    const moved = await ask<Done>('POST', '/recordings/batch', {
      ...{ ...batch, folderId: home.id, isFiled: true, addTags: ['both'] },
    });
    expect(moved).toMatchObject({ text: '1 recording and 2 notes are in Evening.', count: 3 });
    expect(await get(id)).toMatchObject({ folderId: home.id, tags: ['both'], isFiled: true });
    expect(await noteOf(second)).toMatchObject({ folderId: home.id, tags: ['both'], title: '' });
    await undo(moved.deedId);
    expect([await get(id), await noteOf(first)]).toMatchObject([
      { folderId: null, tags: [], isFiled: false },
      { folderId: null, tags: [] },
    ]);
    await ask('POST', '/recordings/batch', { ids: [], noteIds: [first], addTags: ['one', 'two'] });
    await ask('POST', '/recordings/batch', { ids: [], noteIds: [first], removeTags: ['ONE'], isFavourite: true });
    expect(await noteOf(first)).toMatchObject({ tags: ['two'], isFavourite: true });
    const binned = await ask<Done>('POST', '/recordings/batch', { ids: [], noteIds: [second], isBinned: true });
    expect(binned.text).toBe('“Untitled note” is in the bin for 30 days.');
    expect((await noteOf(second)).isBinned).toBe(true);
    expect((await ask<Done>('POST', '/recordings/batch', { ids: [], noteIds: [id], isArchived: true })).text).toBe(
      'These items no longer exist.',
    );
  });

  it('refuses none, and a folder that is gone', async () => {
    expect(await ask<ProblemDetails>('POST', '/recordings/batch', { ids: [] })).toMatchObject({
      detail: 'Choose at least one recording or note.',
    });
    const gone = await folder('Gone');
    await ask('PATCH', `/folders/${gone.id}`, { isBinned: true });
    const id = await say({ text: 'Here.' });
    expect(await ask('POST', '/recordings/batch', { ids: [id], folderId: gone.id })).toMatchObject({ status: 400 });
    // Suggested before it was removed, it is left out and the recording filed all the same.
    const other = await say({ text: 'There.', suggestion: { folderId: gone.id } });
    await ask('POST', '/recordings/batch', { ids: [other], asSuggested: true });
    expect(await get(other)).toMatchObject({ folderId: null, isFiled: true });
  });

  it('go to the default folder where none is suggested', async () => {
    const usual = await folder('Usual');
    await ask('PATCH', '/settings', { defaultFolderId: usual.id });
    const id = await say({ text: 'Whatever.' });
    await ask('POST', '/recordings/batch', { ids: [id], asSuggested: true });
    expect((await get(id)).folderId).toBe(usual.id);
    await ask('PATCH', '/settings', { defaultFolderId: null });
  });
});

describe('one recording filed on two devices', () => {
  it('keeps the tags of both and lies where it was put last', async () => {
    const [a, b] = [await folder('First'), await folder('Second')];
    const id = await say({ text: 'Both.' });
    await ask('POST', `/recordings/${id}/filing`, { folderId: a.id, tags: ['one'], people: ['Bram'] });
    await ask('POST', `/recordings/${id}/filing`, { folderId: b.id, tags: ['two'], people: [] });
    expect(await get(id)).toMatchObject({ folderId: b.id, tags: ['one', 'two'], people: ['Bram'] });
  });
});

describe('folders', () => {
  it('lie in each other, never in themselves', async () => {
    const outer = await folder('Outer');
    const inner = await folder('Inner', outer.id);
    expect(await ask('PATCH', `/folders/${outer.id}`, { parentId: inner.id })).toMatchObject({
      detail: 'A folder cannot be inside itself.',
    });
    expect(await ask('PATCH', `/folders/${outer.id}`, { parentId: outer.id })).toMatchObject({ status: 400 });
  });

  it('stand in the order of hand, and go back', async () => {
    const parent = await folder('Row');
    const [a, b, c] = [await folder('A', parent.id), await folder('B', parent.id), await folder('C', parent.id)];
    const order = async () => (await shelves()).folders.filter((f) => f.parentId === parent.id).map((f) => f.name);
    const moved = await ask<Done>('PATCH', `/folders/${c.id}`, { position: 0 });
    expect(await order()).toEqual(['C', 'A', 'B']);
    await undo(moved.deedId);
    expect(await order()).toEqual(['A', 'B', 'C']);
    expect([a.position, b.position]).toEqual([0, 1]);
  });

  it('with 2,000 recordings are moved by changing one row', async () => {
    const [from, to] = [await folder('Full'), await folder('Target')];
    const ids = await Promise.all(Array.from({ length: 20 }, () => say({ text: 'Much.' })));
    await ask('POST', '/recordings/batch', { ids, folderId: from.id, isFiled: true });
    const done = await ask<Done>('PATCH', `/folders/${from.id}`, { parentId: to.id });
    const row = (await ask<{ items: ChangeEntry[] }>('GET', '/history')).items.find((d) => d.id === done.deedId)!;
    expect(row.text).toBe('“Full” was moved.');
    expect((await shelves()).folders.find((f) => f.id === from.id)).toMatchObject({ parentId: to.id, itemCount: 20 });
  });
});

describe('tags', () => {
  it('are renamed, joined and taken apart again by undo', async () => {
    const [a, b] = [await say({ text: 'A.' }), await say({ text: 'B.' })];
    await ask('PATCH', `/recordings/${a}`, { tags: ['plnting', 'both'] });
    await ask('PATCH', `/recordings/${b}`, { tags: ['planting', 'both'] });
    const joined = await ask<Done>('PATCH', '/tags/plnting', { name: 'Planting' });
    expect(joined.text).toBe('The tags plnting and Planting are merged.');
    expect((await get(a)).tags).toEqual(['both', 'planting']);
    await undo(joined.deedId);
    expect((await get(a)).tags).toEqual(['both', 'plnting']);
    await ask('PATCH', '/tags/both', { isPinned: true });
    expect((await shelves()).tags[0]).toMatchObject({ name: 'both', isPinned: true });
    const removed = await ask<Done>('PATCH', '/tags/both', { isRemoved: true });
    expect((await get(b)).tags).toEqual(['planting']);
    await undo(removed.deedId);
    expect((await get(b)).tags).toEqual(['both', 'planting']);
  });

  it('may be emoji, and at most 60 characters', async () => {
    const id = await say({ text: 'C.' });
    await ask('PATCH', `/recordings/${id}`, { tags: ['🌳🌳'] });
    expect((await get(id)).tags).toEqual(['🌳🌳']);
    const refused = await ask<ProblemDetails>('PATCH', `/recordings/${id}`, { tags: [`🌳${'x'.repeat(200)}`] });
    expect(refused.detail).toBe('A tag may have at most 60 characters.');
    expect((await get(id)).tags).toEqual(['🌳🌳']);
  });
});

describe('people and projects', () => {
  it('of two names become one, which keeps both names', async () => {
    const [a, b] = [await say({ text: 'D.' }), await say({ text: 'E.' })];
    await ask('PATCH', `/recordings/${a}`, { people: ['B. Vantongeren'], project: 'Limes' });
    await ask('PATCH', `/recordings/${b}`, { people: ['Bram Vantongeren'], project: 'Quayside limes' });
    await ask('POST', '/todos', { text: 'Water', project: 'Limes' });
    const find = (rows: Named[], name: string) => rows.find((r) => r.name === name)!;
    const { people, projects } = await shelves();
    const done = await ask<Done>('PATCH', `/people/${find(people, 'B. Vantongeren').id}`, { name: 'Bram Vantongeren' });
    expect((await get(a)).people).toEqual(['Bram Vantongeren']);
    expect(find((await shelves()).people, 'Bram Vantongeren')).toMatchObject({
      otherNames: ['B. Vantongeren'],
      itemCount: 2,
    });
    await undo(done.deedId);
    expect((await get(a)).people).toEqual(['B. Vantongeren']);
    await ask('PATCH', `/projects/${find(projects, 'Limes').id}`, { name: 'Quayside limes' });
    expect((await get(a)).project).toBe('Quayside limes');
    expect((await ask<{ items: { project: string }[] }>('GET', '/todos')).items[0]!.project).toBe('Quayside limes');
    expect(await list(`projectId=${find(projects, 'Quayside limes').id}`)).toEqual(expect.arrayContaining([a, b]));
  });
});

describe('the history', () => {
  it('undoes each deed once', async () => {
    const id = await say({ text: 'F.' });
    await ask('PATCH', `/recordings/${id}`, { isFavourite: true });
    const [deed] = (await ask<{ items: ChangeEntry[] }>('GET', '/history')).items;
    expect(deed!.text).toMatch(/is a favourite\.$/);
    await undo(deed!.id);
    expect((await get(id)).isFavourite).toBe(false);
    expect(await ask('POST', `/history/${deed!.id}/undo`)).toMatchObject({
      status: 409,
      detail: 'This change has already been undone.',
    });
  });
});

it('lists stand in the order that is asked for', async () => {
  const f = await folder('Sorted');
  const made = [
    await say({ text: 'x.', title: 'Beech', startedAt: '2026-01-02T10:00:00' }),
    await say({ text: 'x.', title: 'ash', startedAt: '2026-01-03T10:00:00' }),
    await say({ text: 'x.', title: 'Cherry', startedAt: '2026-01-01T10:00:00' }),
  ];
  await ask('POST', '/recordings/batch', { ids: made, folderId: f.id, isFiled: true });
  const [beech, ash, cherry] = made;
  expect(await list(`place=shelves&folderId=${f.id}`)).toEqual([ash, beech, cherry]);
  expect(await list(`place=shelves&folderId=${f.id}&sort=oldest`)).toEqual([cherry, beech, ash]);
  expect(await list(`place=shelves&folderId=${f.id}&sort=title`)).toEqual([ash, beech, cherry]);
});
