import fs from 'node:fs';
import type { Day, Related, Week } from '@immeld/core/contract/find';
import type { LinkTarget, Note, NoteCard } from '@immeld/core/contract/notes';
import type { Todo } from '@immeld/core/contract/todos';
import { randomUUID } from 'node:crypto';
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
const paragraph = (...content: object[]) => ({ type: 'paragraph', content });
const text = (words: string) => ({ type: 'text', text: words });
const link = (kind: string, id: string, label: string) => ({ type: 'mention', attrs: { kind, id, label } });
const doc = (...content: object[]) => ({ type: 'doc', content });

describe('a note', () => {
  it('is written, filed, tagged, binned and brought back', async () => {
    const { id } = await ask<Note>('POST', '/notes', { title: 'Tools' });
    const body = doc(paragraph(text('A spade and a rake.')));
    const written = await ask<Note>('PATCH', `/notes/${id}`, { body, tags: ['shed'] });
    expect(written).toMatchObject({ body, tags: ['shed'], firstWords: 'A spade and a rake.' });
    await ask('PATCH', `/notes/${id}`, { isBinned: true });
    expect((await ask<{ items: NoteCard[] }>('GET', '/notes')).items.map((n) => n.id)).not.toContain(id);
    expect((await ask<{ items: NoteCard[] }>('GET', '/notes?place=bin')).items.map((n) => n.id)).toEqual([id]);
    expect(await ask('PATCH', `/notes/${id}`, { isBinned: false })).toMatchObject({ isBinned: false, body });
  });

  it('is not written over by a device that has not seen the last change', async () => {
    const first = await ask<Note>('POST', '/notes', { title: 'Two devices', body: doc(paragraph(text('one'))) });
    const second = await ask<Note>('PATCH', `/notes/${first.id}`, {
      body: doc(paragraph(text('two'))),
      seenAt: first.textChangedAt,
    });
    expect(second.firstWords).toBe('two');
    const late = await ask('PATCH', `/notes/${first.id}`, {
      body: doc(paragraph(text('three'))),
      seenAt: first.textChangedAt,
    });
    expect(late).toMatchObject({
      status: 409,
      safe: 'Both versions are safe: the other one in the note, yours on this page.',
    });
    expect((await ask<Note>('GET', `/notes/${first.id}`)).firstWords).toBe('two');
  });

  it('is written on after its title, folder or tags were changed, and after an answer got lost', async () => {
    const [one, two] = ['one', 'two'].map((word) => doc(paragraph(text(word))));
    const { id, textChangedAt: seenAt } = await ask<Note>('POST', '/notes', { title: '', body: one });
    await ask('PATCH', `/notes/${id}`, { title: 'Named later', tags: ['soil'] });
    const written = await ask<Note>('PATCH', `/notes/${id}`, { body: two, seenAt });
    expect(written).toMatchObject({ title: 'Named later', tags: ['soil'], firstWords: 'two' });
    expect(await ask('PATCH', `/notes/${id}`, { body: two, seenAt })).toMatchObject({ firstWords: 'two' });
    expect(await ask('PATCH', `/notes/${id}`, { body: one, seenAt })).toMatchObject({ status: 409 });
  });

  it('that a device began without the server is made once, however often it is sent', async () => {
    const id = randomUUID();
    const [first, second] = [
      await ask<Note>('POST', '/notes', { id, title: 'Offline', body: doc(paragraph(text('one'))) }),
      await ask<Note>('POST', '/notes', { id, title: 'Offline' }),
    ];
    expect([first.id, second.id]).toEqual([id, id]);
    expect(second.firstWords).toBe('one');
    const all = (await ask<{ items: NoteCard[] }>('GET', '/notes')).items;
    expect(all.filter((n) => n.title === 'Offline')).toHaveLength(1);
  });

  it.each([
    ['no document', { body: { type: 'paragraph' } }],
    ['no words', { body: doc({ type: 'text', text: 5 }) }],
    ['a title of 300 characters', { title: 'x'.repeat(300) }],
  ])('refuses %s', async (_, change) => {
    const { id } = await ask<Note>('POST', '/notes', { title: 'Kept' });
    expect(await ask('PATCH', `/notes/${id}`, change)).toMatchObject({ status: 400 });
    expect((await ask<Note>('GET', `/notes/${id}`)).title).toBe('Kept');
  });
});

describe('links between notes and recordings', () => {
  it('are known on both sides and follow a new title', async () => {
    const recording = await say({ text: 'The lock.', title: 'At the lock' });
    const other = await ask<Note>('POST', '/notes', { title: 'Split bark' });
    const body = doc(
      paragraph(
        text('See '),
        link('recording', recording, 'At the lock'),
        text(' and '),
        link('note', other.id, 'Split bark'),
      ),
    );
    const note = await ask<Note>('POST', '/notes', { title: 'Overview', body });
    expect(note.links.map((l) => l.title).sort()).toEqual(['At the lock', 'Split bark']);
    await ask('PATCH', `/recordings/${recording}`, { title: 'By the old lock' });
    await ask('PATCH', `/notes/${other.id}`, { title: 'Bark' });
    expect((await ask<Note>('GET', `/notes/${note.id}`)).body).toEqual(
      doc(
        paragraph(
          text('See '),
          link('recording', recording, 'By the old lock'),
          text(' and '),
          link('note', other.id, 'Bark'),
        ),
      ),
    );
    const { linkedFrom } = await ask<{ linkedFrom: Related[] }>('GET', `/recordings/${recording}/related`);
    expect(linkedFrom).toMatchObject([{ kind: 'note', id: note.id, title: 'Overview' }]);
    expect((await ask<Note>('GET', `/notes/${other.id}`)).linkedFrom).toEqual([
      { kind: 'note', id: note.id, title: 'Overview' },
    ]);
    await ask('PATCH', `/notes/${note.id}`, { body: doc(paragraph(text('Nothing.'))) });
    expect((await ask<Note>('GET', `/notes/${other.id}`)).linkedFrom).toEqual([]);
  });

  it('are offered by words of the title', async () => {
    const id = await say({ text: 'x.', title: 'Heron at the weir' });
    const targets = async (q: string) =>
      (await ask<{ items: LinkTarget[] }>('GET', `/link-targets?q=${encodeURIComponent(q)}`)).items;
    expect((await targets('weir heron')).map((t) => t.id)).toEqual([id]);
    expect(await targets('%')).not.toEqual([]);
    expect(await targets('no such title at all')).toEqual([]);
  });
});

describe('the note of a day', () => {
  it('collects quick words with their time', async () => {
    await ask('POST', '/days/2026-03-09/words', { text: 'The tide is out', at: '08:15' });
    await ask('POST', '/days/2026-03-09/words', { text: 'Rain at noon', at: '12:00' });
    expect((await ask<Day>('GET', '/days/2026-03-09')).note).toMatchObject({
      lines: ['08:15 The tide is out', '12:00 Rain at noon'],
    });
    expect((await ask<Day>('GET', '/days/2026-03-10')).note).toBeNull();
  });

  it('refuses a day that is none and words that are none', async () => {
    expect(await ask('POST', '/days/2026-02-31x/words', { text: 'x', at: '08:15' })).toMatchObject({ status: 404 });
    expect(await ask('POST', '/days/2026-03-09/words', { text: '  ', at: '08:15' })).toMatchObject({
      detail: 'Write something first.',
    });
  });
});

it('counts the weeks', async () => {
  await say({ text: 'x.', startedAt: '2025-06-11T09:00:00' });
  await say({ text: 'y.', startedAt: '2025-06-15T23:00:00', source: 'import' });
  await say({ text: 'z.', startedAt: '2025-06-16T00:30:00' });
  const { weeks } = await ask<{ weeks: Week[] }>('GET', '/weeks?until=2025-06-18&count=3');
  expect(weeks.map((w) => [w.monday, w.spokenMs, w.spoken, w.broughtIn])).toEqual([
    ['2025-06-02', 0, 0, 0],
    ['2025-06-09', 120_000, 1, 1],
    ['2025-06-16', 60_000, 1, 0],
  ]);
});

describe('check boxes of a note', () => {
  const box = (todoId: string, words: string, checked = false) => ({
    ...{ type: 'taskItem', attrs: { checked, todoId } },
    content: [paragraph(...(words ? [text(words)] : []))],
  });
  const list = (...boxes: object[]) => doc({ type: 'taskList', content: boxes });
  const todos = async () => (await ask<{ items: Todo[] }>('GET', '/todos?state=ink')).items;
  const of = async (noteId: string) => (await todos()).filter((t) => t.noteId === noteId);

  it('are to-dos: written, ticked and reworded on both sides, taken out and put back', async () => {
    const [first, second] = [randomUUID(), randomUUID()];
    const { id } = await ask<Note>('POST', '/notes', { title: 'Shopping' });
    const write = (...boxes: object[]) => ask<Note>('PATCH', `/notes/${id}`, { body: list(...boxes) });
    await write(box(first, 'Order ties'), box(second, ''));
    expect(await of(id)).toMatchObject([{ id: first, text: 'Order ties', who: 'me', isDone: false }]);
    await write(box(first, 'Order forty ties', true), box(second, 'Buy gloves'));
    expect((await of(id)).map((t) => [t.text, t.isDone])).toEqual([
      ['Order forty ties', true],
      ['Buy gloves', false],
    ]);
    // What is changed on the list stays when the note is written elsewhere, and a tick shows in the note.
    await ask('PATCH', `/todos/${second}`, { text: 'Buy small gloves', isDone: true });
    const read = await ask<Note>('GET', `/notes/${id}`);
    expect(JSON.stringify(read.body)).toContain(`"checked":true,"todoId":"${second}"`);
    await write(box(first, 'Order forty ties', true), box(second, 'Buy gloves', true), paragraph(text('More.')));
    expect((await of(id)).map((t) => t.text)).toEqual(['Order forty ties', 'Buy small gloves']);
    await write(box(first, 'Order forty ties', true));
    expect((await of(id)).map((t) => t.id)).toEqual([first]);
    await write(box(first, 'Order forty ties', true), box(second, 'Buy gloves', true));
    expect((await of(id)).map((t) => t.id)).toEqual([first, second]);
  });

  it('of a recording stay its own', async () => {
    const recordingId = await say({ text: 'Call the nursery.' });
    const todo = await ask<Todo>('POST', '/todos', { text: 'Call the nursery', recordingId });
    const { id } = await ask<Note>('POST', '/notes', { title: 'Minutes', body: list(box(todo.id, 'Call them')) });
    expect(await of(id)).toEqual([]);
    await ask('PATCH', `/notes/${id}`, { body: doc(paragraph(text('Without it.'))) });
    expect((await todos()).find((t) => t.id === todo.id)!.text).toBe('Call the nursery');
  });
});

describe('earlier texts and pictures', () => {
  const versions = async (id: string) =>
    (await ask<{ items: { id: string; words: number }[] }>('GET', `/notes/${id}/versions`)).items;

  it('are kept now and then, and one is taken back without losing the last', async () => {
    const { id } = await ask<Note>('POST', '/notes', { title: 'Written twice' });
    const write = (words: string) => ask<Note>('PATCH', `/notes/${id}`, { body: doc(paragraph(text(words))) });
    await write('The first text.');
    expect(await versions(id)).toEqual([]);
    await write('The second text is longer.');
    await write('The third.');
    // Within ten minutes one version is enough.
    const [first, ...others] = await versions(id);
    expect([first!.words, others]).toEqual([3, []]);
    expect(await ask('GET', `/notes/${id}/versions/${first!.id}`)).toMatchObject({
      body: doc(paragraph(text('The first text.'))),
    });
    const back = await ask<Note>('POST', `/notes/${id}/versions/${first!.id}`, {});
    expect(back.firstWords).toBe('The first text.');
    const [last] = await versions(id);
    expect(await ask('GET', `/notes/${id}/versions/${last!.id}`)).toMatchObject({
      body: doc(paragraph(text('The third.'))),
    });
  });

  it('what was said is quoted at the end and leads to its moment', async () => {
    const recordingId = await say({ text: 'The limes need air.', title: 'Air' });
    const { id } = await ask<Note>('POST', '/notes', {
      title: 'Quoted',
      body: doc(paragraph(text('Before.')), paragraph()),
    });
    const quotation = { recordingId, startMs: 65_000, text: 'The limes need air.' };
    const note = await ask<Note>('POST', `/notes/${id}/quotations`, quotation);
    expect(note.body!.content!.map((n) => n.type)).toEqual(['paragraph', 'blockquote']);
    expect(JSON.stringify(note.body)).toContain('"label":"1:05"');
    expect(note.links).toMatchObject([{ kind: 'recording', id: recordingId }]);
    const elsewhere = { ...quotation, recordingId: id };
    expect((await askJson(server, 'POST', `/notes/${id}/quotations`, elsewhere)).status).toBe(404);
  });

  it('a picture is kept with the note and goes with it; what is no picture is refused', async () => {
    const { id } = await ask<Note>('POST', '/notes', { title: 'With a picture' });
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    );
    const put = (body: Buffer) =>
      fetch(`${server.address}/api/notes/${id}/pictures`, { method: 'POST', body: new Uint8Array(body) });
    const added = (await (await put(png)).json()) as { id: string };
    const picture = await fetch(`${server.address}/api/note-pictures/${added.id}`);
    expect(picture.headers.get('Content-Type')).toBe('image/png');
    expect(Buffer.from(await picture.arrayBuffer()).equals(png)).toBe(true);
    expect((await put(Buffer.from('not a picture'))).status).toBe(400);
    expect((await fetch(`${server.address}/api/note-pictures/${id}`)).status).toBe(404);
  });
});
