import fs from 'node:fs';
import type { Recording as View } from '@immeld/core/contract/recordings';
import { Recording } from '../models/recording';
import { TodoRow } from '../models/todo';
import type { RunningServer } from '../start';
import { ControlledPool, askJson, startTestServer, temporaryFolder, until, upload } from '../testing/testServer';

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
const ask = <T = View>(method: string, address: string, body?: unknown) => askJson<T>(server, method, address, body);
let counter = 0;
async function recorded(): Promise<View> {
  const { recordingId } = await upload(server.address, Buffer.from(`a message ${counter++}`), 'Message.webm');
  return until(
    async () => (await ask('GET', `/recordings/${recordingId}`)).body,
    (r) => r.state === 'ready',
  );
}

test('it says what it is, and what its person says instead', async () => {
  const { id, kind, voice } = await recorded();
  expect({ kind, voice }).toEqual({ kind: 'memo', voice: null });
  const { body } = await ask('PATCH', `/recordings/${id}`, { kind: 'lecture' });
  expect(body.kind).toBe('lecture');
  expect((await ask('PATCH', `/recordings/${id}`, { kind: null })).body.kind).toBe('memo');
});

test('said by somebody else, what “I” promise is no longer mine', async () => {
  const { id, todos } = await recorded();
  expect(todos.map((t) => [t.text, t.who])).toEqual([['Call Bram', 'me']]);
  const other = (await ask('PATCH', `/recordings/${id}`, { voice: 'other' })).body;
  expect(other.todos.map((t) => [t.text, t.who])).toEqual([['Call Bram', null]]);
  const own = (await ask('PATCH', `/recordings/${id}`, { voice: 'own' })).body;
  expect(own.todos.map((t) => t.who)).toEqual(['me']);
});

test('kinds and voices that there are not are refused', async () => {
  const { id } = await recorded();
  for (const change of [{ kind: 'song' }, { voice: 'choir' }])
    expect((await ask('PATCH', `/recordings/${id}`, change)).status).toBe(400);
});

test('what is found unsurely stays in pencil when everything is filed as suggested', async () => {
  const { id } = await recorded();
  await TodoRow.update({ sure: 0.2 }, { where: { recordingId: id }, hooks: false });
  expect((await ask('GET', `/recordings/${id}`)).body.todos[0]).toMatchObject({ state: 'pencil', isUnsure: true });
  await ask('POST', '/recordings/batch', { ids: [id], asSuggested: true });
  const { body } = await ask('GET', `/recordings/${id}`);
  expect(body.isFiled).toBe(true);
  expect(body.todos[0]!.state).toBe('pencil');
});

test('a file that was brought in stands in the tray where it came, however old its sound is', async () => {
  const spoken = await recorded();
  const old = await Recording.create({
    ...{ title: 'An old tape', fileName: 'tape.mp3', source: 'import', mediaType: 'audio/mpeg', soundFile: 'none.mp3' },
    ...{ playbackFile: null, sha256: 'f'.repeat(64), sizeBytes: 1, durationMs: 60_000, state: 'ready', problem: null },
    ...{ startedAt: '1998-05-01T09:00:00', arrivedAt: '2999-01-01T00:00:00', folderId: null, filedAt: null },
    ...{ binnedAt: null, peaks: [], model: null, language: 'en' },
    suggestion: { title: null, folderId: null, tags: [] },
    accountId: (await Recording.findByPk(spoken.id))!.accountId,
  });
  const first = async (sort: string) =>
    (await ask<{ items: View[] }>('GET', `/recordings?place=tray&sort=${sort}`)).body.items.map((r) => r.id);
  expect((await first('arrived'))[0]).toBe(old.id);
  expect((await first('newest')).at(-1)).toBe(old.id);
});
