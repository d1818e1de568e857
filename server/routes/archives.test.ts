import fs from 'node:fs';
import path from 'node:path';
import { type Account, DELETE_WORD, type Removed } from '@immeld/core/contract/account';
import type { RestoreJob, ScheduledBackupState } from '@immeld/core/contract/archiveEndpoints';
import type { Export } from '@immeld/core/contract/exportEndpoints';
import type { Note } from '@immeld/core/contract/notes';
import JSZip from 'jszip';
import { AccountRow } from '../models/account';
import { PassageRow } from '../models/passage';
import type { RunningServer } from '../start';
import { Device } from '../testing/device';
import { ControlledPool, startTestServer, temporaryFolder, until } from '../testing/testServer';

const dataFolder = temporaryFolder();
const passphrase = 'der alte Kahn liegt quer';
let server: RunningServer;

beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool(), false);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const someone = () => Device.guest(() => server.address);

/** Somebody with two recordings that were recognised, and a note. */
async function filled(word: string): Promise<Device> {
  const device = await someone();
  for (const n of [1, 2]) await device.bringIn(`RIFF the sound of ${word} ${n}`);
  const isReady = async () =>
    (await device.ask<{ items: { state: string }[] }>('GET', '/recordings?place=all')).body.items;
  await until(isReady, (items) => items.length === 2 && items.every((r) => r.state === 'ready'));
  await device.ask('POST', '/notes', { title: `Note about ${word}` });
  return device;
}

async function archiveOf(device: Device, phrase: string | null = null): Promise<{ name: string; bytes: Buffer }> {
  const { body } = await device.ask<Export>('POST', '/archives', { passphrase: phrase });
  const made = await until(
    async () => (await device.ask<Export>('GET', `/exports/${body.id}`)).body,
    (e) => e.state !== 'making',
  );
  expect(made).toMatchObject({ state: 'ready', done: 100, total: 100 });
  const response = await fetch(`${server.address}/api/exports/${body.id}/file`, { headers: { Cookie: device.cookie } });
  return { name: made.fileName!, bytes: Buffer.from(await response.arrayBuffer()) };
}

async function bringBack(device: Device, bytes: Buffer, phrase: string | null = null): Promise<RestoreJob> {
  const id = (await device.send(bytes, { filename: 'mine.immeld', archive: '1' })).get('Immeld-Archive')!;
  return returned(device, id, phrase);
}

async function returned(device: Device, id: string, phrase: string | null): Promise<RestoreJob> {
  const begun = await device.ask<RestoreJob>('POST', `/archives/${id}/return`, { passphrase: phrase });
  expect(begun.body.state).toBe('working');
  return until(
    async () => (await device.ask<RestoreJob>('GET', `/archives/${id}/return`)).body,
    (view) => view.state !== 'working',
  );
}

/** Every byte that lies in the data folder, file by file. */
const bytesBelow = (folder: string): [string, Buffer][] =>
  fs
    .readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((name) => path.join(folder, name))
    .filter((file) => fs.statSync(file).isFile())
    .map((file) => [file, fs.readFileSync(file)]);

test('everything is kept in one file, deleted, and brought back by another account', async () => {
  const device = await filled('willows');
  const { name, bytes } = await archiveOf(device);
  expect(name).toMatch(/^Immeld \d{4}-\d{2}-\d{2}\.immeld\.zip$/);
  const zip = await JSZip.loadAsync(bytes);
  expect(await zip.file('objects/notes.jsonl')!.async('string')).toContain('Note about willows');

  const removed = await device.ask<Removed>('POST', '/account/removal', { word: DELETE_WORD });
  expect(removed.body).toEqual({ recordings: 2, notes: 1, files: 2, left: [] });
  const again = await someone();
  expect(await bringBack(again, bytes)).toMatchObject({
    ...{ state: 'done', percent: 100, problem: null },
    result: { recordings: 2, notes: 1, todos: 0, alreadyHere: 0 },
  });
  expect(await again.recordings()).toHaveLength(2);
  const [id] = await again.recordings();
  const sound = await fetch(`${server.address}/api/recordings/${id}/sound`, { headers: { Cookie: again.cookie } });
  expect(await sound.text()).toMatch(/^RIFF the sound of willows \d$/);
  // What was sent is not kept when it is done with.
  expect(fs.readdirSync(path.join(dataFolder, 'archives'))).toEqual([]);
});

test('under a passphrase, which can be tried again', async () => {
  const device = await filled('alders');
  expect((await device.ask('POST', '/archives', { passphrase: 'short' })).status).toBe(400);
  const { name, bytes } = await archiveOf(device, passphrase);
  expect(name).toMatch(/\.immeld$/);
  const id = (await device.send(bytes, { filename: name, archive: '1' })).get('Immeld-Archive')!;
  expect(await returned(device, id, null)).toMatchObject({ state: 'failed', needsPassphrase: true, result: null });
  expect(await returned(device, id, 'another one')).toMatchObject({ state: 'failed', needsPassphrase: true });
  expect(await returned(device, id, passphrase)).toMatchObject({
    state: 'done',
    result: { recordings: 0, notes: 0, todos: 0, alreadyHere: 3 },
  });
});

test('what is no archive is refused in a sentence, and nothing is changed', async () => {
  const device = await filled('poplars');
  expect(await bringBack(device, Buffer.from('RIFF this is a sound'))).toMatchObject({
    ...{ state: 'failed', needsPassphrase: false },
    problem: expect.stringContaining('This is not a complete Immeld backup'),
  });
  expect(await device.recordings()).toHaveLength(2);
  const { bytes } = await archiveOf(device);
  const other = await someone();
  expect((await bringBack(other, bytes)).problem).toContain('belong to another account');
  expect(await other.recordings()).toEqual([]);
});

test('nobody else reaches what was sent or made', async () => {
  const [device, other] = [await filled('ashes'), await someone()];
  const made = (await device.ask<Export>('POST', '/archives', { passphrase: null })).body;
  expect((await other.ask('GET', `/exports/${made.id}`)).status).toBe(404);
  const id = (await device.send(Buffer.from('x'), { filename: 'x', archive: '1' })).get('Immeld-Archive')!;
  expect((await other.ask('POST', `/archives/${id}/return`, { passphrase: null })).status).toBe(404);
  expect((await device.ask('GET', `/archives/${id}/return`)).status).toBe(404);
});

test('an account that is deleted leaves no byte on the disk, and takes nobody else’s', async () => {
  const secret = 'zinnoberrot';
  const device = await filled(secret);
  const neighbour = await filled('neighbouring');
  const email = 'gone@harrowmere.example';
  await device.ask('POST', '/account', { email, password: 'four words in a row' });
  const note = await device.ask<Note>('POST', '/notes', { title: 'More' });
  const picture = new Uint8Array(
    Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    ),
  );
  expect(
    (await device.ask('POST', `/notes/${note.body.id}/pictures`, picture, { 'Content-Type': 'image/png' })).status,
  ).toBe(200);
  await PassageRow.update(
    { text: `Words about ${secret}` },
    { where: { recordingId: (await device.recordings())[0]! } },
  );
  await archiveOf(device);
  // An upload that is under way.
  await device.ask('POST', '/uploads', undefined, {
    ...{ 'Tus-Resumable': '1.0.0', 'Upload-Length': '1000' },
    'Upload-Metadata': `filename ${Buffer.from(`${secret}.wav`).toString('base64')}`,
  });
  const account = (await device.ask<Account>('GET', '/account')).body.id;
  const holding = (word: string) => bytesBelow(dataFolder).filter(([, bytes]) => bytes.includes(word));
  expect(holding(secret).length).toBeGreaterThan(3);
  expect(holding(account).length).toBeGreaterThan(0);

  expect((await device.ask('POST', '/account/removal', { password: 'not this one' })).status).toBe(403);
  expect((await device.ask('POST', '/account/removal', { word: DELETE_WORD })).status).toBe(403);
  expect(await device.recordings()).toHaveLength(2);
  const { body, headers } = await device.ask<Removed>('POST', '/account/removal', { password: 'four words in a row' });
  expect(body).toMatchObject({ recordings: 2, notes: 2, left: [] });
  expect(body.files).toBeGreaterThanOrEqual(5);
  expect(headers.get('Set-Cookie')).toMatch(/immeld_session=;/);
  expect(holding(secret).map(([file]) => file)).toEqual([]);
  expect(holding(account).map(([file]) => file)).toEqual([]);
  expect(await AccountRow.count({ where: { email } })).toBe(0);
  expect((await neighbour.ask<{ items: unknown[] }>('GET', '/recordings')).body.items).toHaveLength(2);
  expect(holding('neighbouring').length).toBeGreaterThan(2);
});

test('a guest types a word for it, and the shared demo cannot be deleted', async () => {
  const device = await filled('elms');
  const refused = await device.ask<{ detail: string }>('POST', '/account/removal', { word: 'yes' });
  expect([refused.status, refused.body.detail]).toEqual([400, expect.stringContaining(DELETE_WORD)]);
  expect(await device.recordings()).toHaveLength(2);
  const folder = temporaryFolder();
  const demo = await startTestServer(folder, new ControlledPool());
  const visitor = new Device(() => demo.address);
  expect((await visitor.ask('POST', '/account/removal', { word: DELETE_WORD })).status).toBe(403);
  expect((await visitor.ask<ScheduledBackupState>('GET', '/archives/kept')).body).toMatchObject({
    isOn: false,
    lastAt: null,
  });
  await demo.close();
  fs.rmSync(folder, { recursive: true });
});
