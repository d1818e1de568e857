import fs from 'node:fs';
import path from 'node:path';
import type { Schema } from 'yup';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import type { Recording } from '@immeld/core/contract/recordings';
import type { RunningServer } from '../start';
import { ControlledPool, SPOKEN, startTestServer, temporaryFolder, until, upload } from '../testing/testServer';

const dataFolder = temporaryFolder();
const pool = new ControlledPool();
let server: RunningServer;

beforeAll(async () => {
  server = await startTestServer(dataFolder, pool);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

type Answered = {
  status: number;
  type: string;
  body: Record<string, never> & { detail: string; safe: string; code: string };
};

async function ask(
  method: string,
  address: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answered> {
  const response = await fetch(`${server.address}/api${address}`, {
    method,
    headers: { ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
  const type = response.headers.get('Content-Type') ?? '';
  return {
    status: response.status,
    type,
    body: type.includes('json') ? await response.json() : ((await response.text()) as never),
  };
}

const get = async (id: string) => (await ask('GET', `/recordings/${id}`)).body as unknown as Recording;
const whenReady = (id: string) =>
  until(
    () => get(id),
    (r) => r.state === 'ready',
  );

let counter = 0;
async function bringIn(name = 'memo.wav', metadata: Record<string, string> = {}): Promise<Recording> {
  const { recordingId } = await upload(server.address, Buffer.from(`sound ${counter++}`), name, metadata);
  return whenReady(recordingId);
}

describe('a recording', () => {
  it('comes in, is recognised and waits in the tray with its suggestions', async () => {
    const recording = await bringIn('Quay walk.wav', { startedAt: '2026-03-09T08:15:00', source: 'speak' });
    expect(recording).toMatchObject({
      ...{ title: null, fileName: 'Quay walk.wav', source: 'speak', isFiled: false, startedAt: '2026-03-09T08:15:00' },
      ...{
        durationMs: 8000,
        suggestion: { title: 'Call Bram', tags: ['limes'] },
        firstWords: 'I need to call Bram. The limes are thirsty.',
      },
    });
    expect(recording.passages.map((p) => p.words.length)).toEqual([5, 4]);
    expect(recording.todos).toMatchObject([{ text: 'Call Bram', state: 'pencil', startMs: 500 }]);
    expect(recording.writeUps).toMatchObject([
      { state: 'pencil', sentences: [{ text: 'The limes are thirsty.', startMs: 5000 }] },
    ]);
  });

  it('is filed with what is accepted, and taken back', async () => {
    const recording = await bringIn();
    const folder = (await ask('POST', '/folders', { name: 'Quayside' })).body as { id: string };
    const filing = {
      title: 'A call',
      folderId: folder.id,
      tags: ['limes', 'Limes', 'bram'],
      todoIds: [recording.todos[0]!.id],
    };
    const filed = (await ask('POST', `/recordings/${recording.id}/filing`, filing)).body as unknown as Recording;
    expect(filed).toMatchObject({ title: 'A call', folderId: folder.id, isFiled: true });
    expect(filed.tags.map((t) => t.toLowerCase())).toEqual(['bram', 'limes']);
    expect(filed.todos[0]!.state).toBe('ink');
    const shelves = (await ask('GET', '/shelves')).body as unknown as {
      folders: { name: string; itemCount: number }[];
    };
    expect(shelves.folders).toContainEqual(expect.objectContaining({ name: 'Quayside', itemCount: 1 }));
    await ask('PATCH', `/recordings/${recording.id}`, { isFiled: false, folderId: null, tags: [] });
    expect(await get(recording.id)).toMatchObject({ isFiled: false, folderId: null, tags: [] });
  });

  it('goes to the bin and comes out again with everything', async () => {
    const recording = await bringIn();
    await ask('PATCH', `/recordings/${recording.id}`, { isBinned: true });
    const tray = (await ask('GET', '/recordings?place=all')).body as unknown as { items: Recording[] };
    expect(tray.items.map((r) => r.id)).not.toContain(recording.id);
    expect((await ask('GET', '/recordings?place=bin')).body).toMatchObject({ items: [{ id: recording.id }] });
    await ask('PATCH', `/recordings/${recording.id}`, { isBinned: false });
    expect(await get(recording.id)).toMatchObject({ isBinned: false, passages: recording.passages });
  });

  it('is stored once, however often the same sound comes', async () => {
    const first = await upload(server.address, Buffer.from('the same'), 'a.wav', { startedAt: '2026-03-10T09:00:00' });
    const second = await upload(server.address, Buffer.from('the same'), 'b.wav');
    expect(second).toEqual({ recordingId: first.recordingId, alreadyHere: '2026-03-10T09:00:00' });
    expect(fs.readdirSync(path.join(dataFolder, 'sound')).filter((f) => f.startsWith(first.recordingId))).toHaveLength(
      1,
    );
  });

  it('keeps names with 300 characters and emoji, and no path', async () => {
    const recording = await bringIn(`../../etc/${'🌳'.repeat(300)}.wav`);
    expect([...recording.fileName]).toHaveLength(255);
    expect(recording.fileName).toMatch(/^🌳+….wav$/u);
    expect(fs.readdirSync(path.join(dataFolder, 'sound'))).toContain(`${recording.id}.bin`);
  });

  it('gives its sound in ranges', async () => {
    const { recordingId } = await upload(server.address, Buffer.from('0123456789'), 'digits.wav');
    const part = await fetch(`${server.address}/api/recordings/${recordingId}/sound`, {
      headers: { Range: 'bytes=2-5' },
    });
    expect(part.status).toBe(206);
    expect(await part.text()).toBe('2345');
  });

  it('says so when its sound is gone, and keeps the text', async () => {
    const recording = await bringIn();
    fs.rmSync(path.join(dataFolder, 'sound', `${recording.id}.bin`));
    const sound = await ask('GET', `/recordings/${recording.id}/sound`);
    expect(sound).toMatchObject({
      status: 410,
      body: { code: 'sound-missing', safe: expect.stringContaining('are safe') },
    });
    expect(await get(recording.id)).toMatchObject({ hasSound: false, passages: recording.passages });
  });

  it.each(['txt', 'vtt', 'srt', 'tsv', 'json'])('is taken along as %s', async (format) => {
    const recording = await bringIn();
    await ask('PATCH', `/recordings/${recording.id}`, { title: 'Über/den "Kai"' });
    const response = await fetch(`${server.address}/api/recordings/${recording.id}/export/${format}`);
    expect(await response.text()).toContain('thirsty');
    expect(response.headers.get('Content-Disposition')).toContain(`filename*=UTF-8''%C3%9Cber%20den%20`);
  });
});

describe('recognised again', () => {
  it('changes only what is in pencil, and adds nothing twice', async () => {
    const recording = await bringIn();
    await ask('PATCH', `/todos/${recording.todos[0]!.id}`, { text: 'Ring Bram up', state: 'ink' });
    pool.answer = async () => ({
      ...SPOKEN,
      proposals: {
        ...SPOKEN.proposals,
        todos: [...SPOKEN.proposals.todos, { ...SPOKEN.proposals.todos[0]!, text: 'Water the limes', startMs: 5000 }],
      },
    });
    const job = (await ask('POST', `/recordings/${recording.id}/recognition`)).body as { id: string };
    expect(job.id).toBeTruthy();
    await until(
      () => get(recording.id),
      (r) => r.state === 'ready' && r.todos.length === 2,
    );
    pool.answer = async () => SPOKEN;
    expect((await get(recording.id)).todos.map((t) => [t.text, t.state])).toEqual([
      ['Ring Bram up', 'ink'],
      ['Water the limes', 'pencil'],
    ]);
    expect((await get(recording.id)).writeUps).toHaveLength(1);
  });

  it('by the pack that was asked for, which is told afterwards; an unknown one is refused', async () => {
    const { id } = await bringIn();
    const asked: unknown[] = [];
    pool.answer = async ({ quality }) => {
      asked.push(quality);
      return { ...SPOKEN, model: 'english-base-1' };
    };
    expect((await ask('POST', `/recordings/${id}/recognition`, { quality: 'best' })).status).toBe(400);
    await ask('POST', `/recordings/${id}/recognition`, { quality: 'usual' });
    await until(
      () => get(id),
      (r) => r.state === 'ready' && r.model === 'english-base-1',
    );
    pool.answer = async () => SPOKEN;
    expect(asked).toEqual(['usual']);
  });
});

describe('jobs', () => {
  it('fail with a sentence, keep the sound and can be tried again', async () => {
    pool.answer = async () => {
      throw new Error('This file could not be read as sound.');
    };
    const { recordingId } = await upload(server.address, Buffer.from('broken'), 'broken.mp3');
    const failed = await until(
      () => get(recordingId),
      (r) => r.state === 'failed',
    );
    expect(failed).toMatchObject({ problem: 'This file could not be read as sound.', hasSound: true });
    pool.answer = async () => SPOKEN;
    const list = (await ask('GET', '/jobs')).body as unknown as { items: { id: string; recordingId: string }[] };
    const job = list.items.find((j) => j.recordingId === recordingId)!;
    expect((await ask('POST', `/jobs/${job.id}/retry`)).status).toBe(200);
    await whenReady(recordingId);
    expect((await ask('POST', `/jobs/${job.id}/retry`)).status).toBe(409);
  });

  it('run two at once, the third waits, and are cancelled', async () => {
    pool.answer = () => new Promise(() => undefined);
    const ids: string[] = [];
    for (const n of [1, 2, 3])
      ids.push((await upload(server.address, Buffer.from(`slow ${n}`), `slow${n}.wav`)).recordingId);
    const jobs = async () =>
      (
        (await ask('GET', '/jobs')).body as unknown as { items: { id: string; recordingId: string; state: string }[] }
      ).items.filter((j) => ids.includes(j.recordingId));
    const states = await until(jobs, (all) => all.filter((j) => j.state === 'running').length === 2);
    expect(states.map((j) => j.state)).toEqual(['running', 'running', 'waiting']);
    pool.answer = async () => SPOKEN;
    const cancelled = await ask('POST', `/jobs/${states[0]!.id}/cancel`);
    expect(cancelled.body).toMatchObject({ state: 'cancelled' });
    await whenReady(ids[2]!);
    expect((await get(ids[0]!)).state).toBe('cancelled');
    await ask('POST', `/jobs/${states[1]!.id}/cancel`);
  });

  it('tell their progress as server-sent events', async () => {
    const events = await fetch(`${server.address}/api/jobs/events`);
    expect(events.headers.get('Content-Type')).toBe('text/event-stream');
    const reader = events.body!.getReader();
    const { recordingId } = await upload(server.address, Buffer.from('told'), 'told.wav');
    let text = '';
    while (!text.includes('"state":"done"')) text += new TextDecoder().decode((await reader.read()).value);
    await reader.cancel();
    expect(text).toContain(`"recordingId":"${recordingId}"`);
    expect(text).toMatch(/^event: job\ndata: \{/);
  });
});

describe('finding', () => {
  it('finds titles and words in any form, in context, and leaves the bin out', async () => {
    const recording = await bringIn('Lock.wav');
    await ask('PATCH', `/recordings/${recording.id}`, { title: 'Zebra crossing' });
    const found = async (q: string) =>
      (
        (await ask('GET', `/find?q=${encodeURIComponent(q)}`)).body as unknown as {
          results: { id: string; hits: { snippet: string; startMs: number | null }[] }[];
        }
      ).results;
    expect((await found('zeb')).map((r) => r.id)).toEqual([recording.id]);
    const lime = (await found('lime thirst')).find((r) => r.id === recording.id)!;
    expect(lime.hits).toContainEqual({
      ...{ kind: 'passage', startMs: 5000, snippet: 'The \u2068limes\u2069 are \u2068thirsty\u2069.' },
    });
    expect(await found('"thirsty limes"')).toEqual([]);
    expect((await found('limes -thirsty')).flatMap((r) => r.hits.map((h) => h.snippet)).join()).not.toContain(
      'thirsty',
    );
    expect(await found('NEAR( "')).toEqual([]);
    await ask('PATCH', `/recordings/${recording.id}`, { isBinned: true });
    expect(await found('zebra')).toEqual([]);
  });
});

describe('the day', () => {
  it('has its recordings and due to-dos, and the week from Monday', async () => {
    const recording = await bringIn('early.wav', { startedAt: '2025-06-12T06:30:00' });
    await ask('POST', '/todos', { text: 'Water', due: '2025-06-12T18:00' });
    const { body } = await ask('GET', '/days/2025-06-12');
    expect(body).toMatchObject({ recordings: [{ id: recording.id }], todos: [{ text: 'Water' }] });
    const week = (body as unknown as { week: { date: string; spokenMs: number }[] }).week;
    expect(week.map((d) => d.date.slice(8))).toEqual(['09', '10', '11', '12', '13', '14', '15']);
    expect(week[3]!.spokenMs).toBe(8000);
  });
});

describe('write-ups', () => {
  it('keep the length that is asked for, take an own wording and go back', async () => {
    const { writeUps } = await bringIn();
    const address = `/write-ups/${writeUps[0]!.id}`;
    expect((await ask('PATCH', address, { editedText: 'My words.', state: 'ink' })).body).toMatchObject({
      editedText: 'My words.',
      state: 'ink',
    });
    const remade = (await ask('PATCH', address, { sentencesAsked: 1 })).body as unknown as {
      sentences: unknown[];
      editedText: null;
    };
    expect(remade.sentences.length).toBeLessThanOrEqual(1);
    expect(remade.editedText).toBeNull();
  });
});

describe('bad requests', () => {
  const ID = '00000000-0000-4000-8000-000000000000';
  it.each([
    ['GET', '/recordings/nonsense', undefined, 404],
    ['GET', `/recordings/${ID}`, undefined, 404],
    ['GET', '/nothing', undefined, 404],
    ['PATCH', `/recordings/${ID}`, { title: 'x' }, 404],
    ['PATCH', `/todos/${ID}`, { isDone: true }, 404],
    ['PATCH', `/write-ups/${ID}`, { state: 'ink' }, 404],
    ['POST', `/jobs/${ID}/cancel`, undefined, 404],
    ['GET', `/recordings/${ID}/export/exe`, undefined, 404],
    ['GET', '/recordings?limit=9999', undefined, 400],
    ['GET', '/recordings?place=moon', undefined, 400],
    ['GET', '/days/2025-13-45', undefined, 404],
    ['GET', '/days/yesterday', undefined, 404],
    ['POST', '/todos', {}, 400],
    ['POST', '/todos', { text: 'x', due: 'soon' }, 400],
    ['POST', '/todos', { text: 'x', due: '2026-02-30' }, 400],
    ['POST', '/todos', { text: 'x'.repeat(501) }, 400],
    ['POST', '/todos', { text: 'x', colour: 'red' }, 400],
    ['POST', '/todos', '{"text":', 400],
    ['POST', '/folders', { name: '  ' }, 400],
    ['POST', '/folders', { name: 'a', parentId: ID }, 400],
  ])('%s %s %j', async (method, address, body, status) => {
    const answered = await ask(method, address, body);
    expect(answered.status).toBe(status);
    // RFC 9457, section 3: media type and members of problem details.
    expect(answered.type).toContain('application/problem+json');
    expect(answered.body).toMatchObject({
      status,
      type: expect.stringMatching(/^urn:/),
      title: expect.any(String),
      detail: expect.any(String),
    });
    expect(answered.body.detail).not.toMatch(/undefined|\[object|must be a `/);
  });

  it('a page from elsewhere may read nothing into this one', async () => {
    const answered = await ask('POST', '/folders', { name: 'Evil' }, { Origin: 'http://elsewhere.example' });
    expect(answered).toMatchObject({ status: 403, body: { code: 'other-origin' } });
    expect((await ask('POST', '/folders', { name: 'Odd' }, { Origin: 'null' })).status).toBe(403);
  });

  it('a folder never lies inside itself', async () => {
    const outer = (await ask('POST', '/folders', { name: 'Outer' })).body as { id: string };
    const inner = (await ask('POST', '/folders', { name: 'Inner', parentId: outer.id })).body as { id: string };
    expect((await ask('PATCH', `/folders/${outer.id}`, { parentId: inner.id })).status).toBe(400);
  });

  it('an upload that is announced larger than it comes goes on later; nothing is made of a part', async () => {
    const metadata = `filename ${Buffer.from('big.wav').toString('base64')}`;
    const created = await fetch(`${server.address}/api/uploads`, {
      method: 'POST',
      headers: { 'Tus-Resumable': '1.0.0', 'Upload-Length': String(2 * 1024 ** 3), 'Upload-Metadata': metadata },
    });
    const place = new URL(created.headers.get('Location')!, server.address);
    const count = async () => ((await ask('GET', '/recordings')).body as unknown as { total: number }).total;
    const before = await count();
    const part = await fetch(place, {
      method: 'PATCH',
      headers: { 'Tus-Resumable': '1.0.0', 'Upload-Offset': '0', 'Content-Type': 'application/offset+octet-stream' },
      body: new Uint8Array(1024 ** 2),
    });
    expect(part.status).toBe(204);
    const head = await fetch(place, { method: 'HEAD', headers: { 'Tus-Resumable': '1.0.0' } });
    expect(head.headers.get('Upload-Offset')).toBe(String(1024 ** 2));
    expect(await count()).toBe(before);
    expect((await ask('GET', '/status')).status).toBe(200);
  });

  it('an upload over the limit is refused at once', async () => {
    const created = await fetch(`${server.address}/api/uploads`, {
      method: 'POST',
      headers: { 'Tus-Resumable': '1.0.0', 'Upload-Length': String(10 ** 12) },
    });
    expect(created.status).toBe(413);
  });
});

describe('answers keep to the contract', () => {
  it.each([
    ['status', '/status'],
    ['listRecordings', '/recordings'],
    ['listTodos', '/todos?state=all'],
    ['getShelves', '/shelves'],
    ['find', '/find?q=limes'],
    ['getDay', '/days/2026-03-09'],
    ['listJobs', '/jobs'],
  ] as const)('%s', async (key, address) => {
    const { body } = await ask('GET', address);
    await (ENDPOINTS[key].response as Schema).validate(body, { strict: true });
  });

  it('getRecording', async () => {
    await ENDPOINTS.getRecording.response!.validate(await bringIn(), { strict: true });
  });
});
