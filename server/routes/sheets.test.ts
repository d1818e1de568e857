import fs from 'node:fs';
import type { Note } from '@immeld/core/contract/notes';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import type { KeptTemplate, MadeSection, Sheet, Template } from '@immeld/core/contract/templates';
import type { Todo } from '@immeld/core/contract/todos';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
let recordingId = '';
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
  recordingId = await say({ text: 'We decided to plant twelve limes by the lock.', title: 'At the lock' });
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const ask = async <T>(method: string, address: string, body?: unknown) =>
  (await askJson<T>(server, method, address, body)).body;
const templates = async () => (await ask<{ items: KeptTemplate[] }>('GET', '/templates')).items;
const shipped = async (id: string): Promise<Template> => (await templates()).find((t) => t.id === id)!.template;
const linesOf = (sections: readonly MadeSection[]) => sections.flatMap((s) => s.groups.flatMap((g) => g.lines));

it('templates that ship are copied, changed, removed and had back', async () => {
  const minutes = await shipped('minutes');
  const copy = await ask<KeptTemplate>('POST', '/templates', { template: { ...minutes, name: 'Ours' } });
  const changed = { ...copy.template, sections: copy.template.sections.slice(0, 1) };
  await ask('PATCH', `/templates/${copy.id}`, { template: changed });
  expect((await templates())[0]).toMatchObject({ id: copy.id, isShipped: false, template: { sections: [{}] } });
  const removed = await ask<{ deedId: string }>('PATCH', `/templates/${copy.id}`, { isRemoved: true });
  expect((await templates()).every((t) => t.isShipped)).toBe(true);
  await ask('POST', `/history/${removed.deedId}/undo`);
  expect((await templates())[0]!.template.name).toBe('Ours');
});

it('refuses a template that is none, in a sentence', async () => {
  const add = (template: unknown) => askJson<ProblemDetails>(server, 'POST', '/templates', { template });
  const wrong = await add({ name: 'x', sections: [{ content: 'horoscope' }] });
  expect([wrong.status, wrong.body.detail]).toEqual([400, '“horoscope” is not a kind of content.']);
  expect((await add({ name: 'x', sections: [{ content: 'text', include: 'other' }] })).status).toBe(400);
  expect((await add({ name: '', sections: [{ content: 'text' }] })).body.detail).toBe('Enter a name for the template.');
  expect((await askJson(server, 'PATCH', '/templates/minutes', { isRemoved: true })).status).toBe(404);
});

it('to-dos for which nobody named a project stand under that of their recording, as on the list', async () => {
  const id = await say({ text: 'Order the ties.', title: 'Ties' });
  await ask('PATCH', `/recordings/${id}`, { project: 'Quayside limes' });
  await ask('POST', '/todos', { text: 'Order the ties', who: 'me', recordingId: id });
  const template = await shipped('todos-by-project');
  const { sections } = await ask<Sheet>('POST', `/recordings/${id}/sheets`, { template });
  expect(sections.flatMap((s) => s.groups.map((g) => g.name))).toContain('Quayside limes');
});

it('a write-up is made, made again in another way, and once only by a template', async () => {
  const template = await shipped('minutes');
  const first = await ask<Sheet>('POST', `/recordings/${recordingId}/sheets`, { template });
  // Written as people write it, from words as they were said.
  expect(linesOf(first.sections).map((l) => l.text)).toContain('We decided to plant 12 limes by the lock.');
  const second = await ask<Sheet>('POST', `/recordings/${recordingId}/sheets`, { template });
  const list = () => ask<{ items: Sheet[] }>('GET', `/recordings/${recordingId}/sheets`);
  expect((await list()).items.map((s) => s.id)).toEqual([second.id]);
  const short = { ...template, sections: [{ content: 'summary', form: 'text', most: 4, unit: 'words' }] };
  const again = await ask<Sheet>('PATCH', `/sheets/${second.id}`, { template: short });
  expect(linesOf(again.sections)[0]!.text.split(' ').length).toBeLessThanOrEqual(4);
  const dropped = await ask<{ deedId: string }>('DELETE', `/sheets/${second.id}`);
  expect((await list()).items).toEqual([]);
  await ask('POST', `/history/${dropped.deedId}/undo`);
  expect((await list()).items).toHaveLength(1);
  const preview = await ask<{ sections: MadeSection[] }>('POST', `/recordings/${recordingId}/preview`, { template });
  expect(preview.sections[0]!.heading).toBe('Summary');
  expect((await list()).items).toHaveLength(1);
});

it('kept, it is a note whose check boxes are the to-dos, and nothing is left in pencil; all of it can go back', async () => {
  const todo = await ask<Todo>('POST', '/todos', { text: 'Order the limes', who: 'me', recordingId, startMs: 500 });
  await ask('PATCH', `/todos/${todo.id}`, { state: 'pencil' });
  const sheet = await ask<Sheet>('POST', `/recordings/${recordingId}/sheets`, {
    template: await shipped('todos-by-project'),
  });
  const kept = await ask<{ noteId: string; done: { deedId: string } }>('POST', `/sheets/${sheet.id}/note`, {
    acceptsTodos: true,
  });
  const note = () => ask<Note>('GET', `/notes/${kept.noteId}`);
  const { title, body } = await note();
  expect(title).toBe('To-dos by project: At the lock');
  const text = JSON.stringify(body);
  expect(text).toContain(`"checked":false,"todoId":"${todo.id}"`);
  // The moment says its time, not the title of what it leads to.
  expect(text).toContain('"label":"0:00"');
  const state = async () =>
    (await ask<{ items: Todo[] }>('GET', '/todos?state=all')).items.find((t) => t.id === todo.id)!.state;
  expect(await state()).toBe('ink');
  await ask('PATCH', `/todos/${todo.id}`, { isDone: true });
  expect(JSON.stringify((await note()).body)).toContain(`"checked":true,"todoId":"${todo.id}"`);
  await ask('PATCH', `/todos/${todo.id}`, { isDone: false });
  expect((await askJson(server, 'POST', `/sheets/${sheet.id}/note`, {})).status).toBe(404);
  await ask('POST', `/history/${kept.done.deedId}/undo`);
  expect((await askJson(server, 'GET', `/notes/${kept.noteId}`)).status).toBe(404);
  expect(await state()).toBe('pencil');
});

it('kept without a word about its to-dos it accepts none: they stand in the note as proposed', async () => {
  const todo = await ask<Todo>('POST', '/todos', { text: 'Order the oaks', who: 'me', recordingId, startMs: 500 });
  await ask('PATCH', `/todos/${todo.id}`, { state: 'pencil' });
  const template = await shipped('todos-by-project');
  const sheet = await ask<Sheet>('POST', `/recordings/${recordingId}/sheets`, { template });
  const { noteId } = await ask<{ noteId: string }>('POST', `/sheets/${sheet.id}/note`, {});
  const text = JSON.stringify((await ask<Note>('GET', `/notes/${noteId}`)).body);
  expect(text).toContain('Order the oaks (suggested)');
  expect(text).not.toContain(todo.id);
  const { items } = await ask<{ items: Todo[] }>('GET', '/todos?state=pencil');
  expect(items.map((t) => t.id)).toContain(todo.id);
});

describe('of several recordings', () => {
  type OfSeveral = { title: string; recordings: { id: string; title: string }[] };
  const describeScope = (scope: object) => ask<OfSeveral>('POST', '/together', { scope });

  it('one write-up is made, leads to each of them, and is kept as a note', async () => {
    const folder = await ask<{ id: string }>('POST', '/folders', { name: 'Locks' });
    const inner = await ask<{ id: string }>('POST', '/folders', { name: 'Upper lock', parentId: folder.id });
    const other = await say({ text: 'We decided to close the upper lock on Friday.', title: 'Upper lock' });
    await ask('PATCH', `/recordings/${recordingId}`, { folderId: folder.id, tags: ['lock'] });
    await ask('PATCH', `/recordings/${other}`, { folderId: inner.id });
    const scope = { folderId: folder.id };
    const { title, recordings } = await describeScope(scope);
    expect([title, recordings.map((r) => r.id).sort()]).toEqual(['Locks', [recordingId, other].sort()]);
    expect((await describeScope({ ...scope, tag: 'lock' })).recordings.map((r) => r.id)).toEqual([recordingId]);
    expect((await describeScope({ ...scope, to: '1999-12-31' })).recordings).toEqual([]);

    const template = { name: 'Decisions', sections: [{ heading: 'Decisions', content: 'decisions', hasTimes: true }] };
    const make = () => ask<Sheet>('POST', '/together/sheets', { scope, template });
    const first = await make();
    expect(
      linesOf(first.sections)
        .map((l) => l.recordingId)
        .sort(),
    ).toEqual([recordingId, other].sort());
    const second = await make();
    const list = async () => (await ask<{ items: Sheet[] }>('GET', '/together/sheets')).items;
    expect((await list()).map((s) => s.id)).toEqual([second.id]);
    const { noteId } = await ask<{ noteId: string }>('POST', `/sheets/${second.id}/note`, {});
    const note = await ask<Note>('GET', `/notes/${noteId}`);
    expect(note.title).toBe('Decisions: Locks');
    expect(JSON.stringify(note.body)).toContain(other);
    expect(await list()).toEqual([]);
  });

  it('refuses what holds no recording, in a sentence', async () => {
    const scope = { from: '1999-01-01', to: '1999-12-31' };
    const template = await shipped('minutes');
    const { status, body } = await askJson<ProblemDetails>(server, 'POST', '/together/sheets', { scope, template });
    expect([status, body.detail]).toEqual([400, 'None of these recordings is transcribed yet.']);
    expect((await askJson(server, 'POST', '/together', { scope: { colour: 'green' } })).status).toBe(400);
  });
});

it('what is kept stays in its place when the rest is made again', async () => {
  const section = (heading: string, content: string) => ({ heading, content, isOptional: false });
  const template = { name: 'Two', sections: [section('Decisions', 'decisions'), section('Asked', 'questions')] };
  const sheet = await ask<Sheet>('POST', `/recordings/${recordingId}/sheets`, { template });
  const kept = sheet.sections[0];
  const next = { name: 'Two', sections: [section('Asked', 'questions'), section('Said', 'text')] };
  const again = await ask<Sheet>('PATCH', `/sheets/${sheet.id}`, { template: next, kept: [0] });
  expect(again.sections.map((s) => [s.heading, s.isKept])).toEqual([
    ['Decisions', true],
    ['Asked', false],
    ['Said', false],
  ]);
  expect(again.sections[0]!.groups).toEqual(kept!.groups);
});

it('a usual write-up is made by itself of a kind and of a folder, once', async () => {
  const folder = await ask<{ id: string }>('POST', '/folders', { name: 'Usual' });
  const usualWriteUps = [
    { templateId: 'key-points', folderId: null, kind: 'memo' },
    { templateId: 'message', folderId: folder.id, kind: null },
  ];
  await ask('PATCH', '/settings', { usualWriteUps });
  const id = await say({ text: 'The gate of the lower lock has to be painted before the harbour festival begins.' });
  const names = async () =>
    (await ask<{ items: Sheet[] }>('GET', `/recordings/${id}/sheets`)).items.map((s) => s.template.name).sort();
  await ask('POST', `/recordings/${id}/filing`, {});
  expect(await names()).toEqual(['Key points']);
  await ask('PATCH', `/recordings/${id}`, { folderId: folder.id });
  expect(await names()).toEqual(['Key points', 'Message']);
  const { items } = await ask<{ items: Sheet[] }>('GET', `/recordings/${id}/sheets`);
  for (const sheet of items) await ask('DELETE', `/sheets/${sheet.id}`);
  await ask('PATCH', `/recordings/${id}`, { folderId: null });
  await ask('PATCH', `/recordings/${id}`, { folderId: folder.id });
  expect(await names()).toEqual([]);
  await ask('PATCH', '/settings', { usualWriteUps: [] });
});
