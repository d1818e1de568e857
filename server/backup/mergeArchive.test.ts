import JSZip from 'jszip';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { Note } from '@immeld/core/contract/notes';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import { asAccount } from '../accounts/currentAccount';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { AccountRow } from '../models/account';
import { PassageRow } from '../models/passage';
import { Recording } from '../models/recording';
import type { RunningServer } from '../start';
import { filesOfAccount } from '../storage/accountFiles';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';
import { say } from '../testing/filledServer';
import { type Manifest, ArchiveProblem } from './archive';
import { backup } from './backup';
import { mergeArchive } from './mergeArchive';

const folder = temporaryFolder();
const ours = path.join(folder, 'ours');
const archive = path.join(folder, 'mine.zip');
let manifest: Manifest;
let server: RunningServer;

const ask = async <T>(method: string, address: string, body?: unknown): Promise<T> =>
  (await askJson<T>(server, method, address, body)).body;
const recordings = async () => (await ask<{ items: RecordingCard[] }>('GET', '/recordings?place=all&limit=200')).items;

/** Ten recordings with everything that hangs on them, and somebody else's who must not go along. */
beforeAll(async () => {
  server = await startTestServer(ours, new ControlledPool());
  const shelf = await ask<{ id: string }>('POST', '/folders', { name: 'Quay' });
  const inner = await ask<{ id: string }>('POST', '/folders', { name: 'Pits', parentId: shelf.id });
  for (let i = 0; i < 10; i++) {
    const id = await say({ text: `The lime number ${i} stands by the lock.`, title: `Lime ${i}` });
    await ask('PATCH', `/recordings/${id}`, { tags: ['limes'], folderId: inner.id, people: ['Bram'], project: 'Quay' });
    await ask('POST', '/todos', { text: `Water lime ${i}`, recordingId: id });
    await Recording.update({ soundFile: `${id}.m4a` }, { where: { id } });
    fs.writeFileSync(path.join(ours, 'sound', `${id}.m4a`), `sound of ${i}`);
  }
  await ask<Note>('POST', '/notes', { title: 'About limes' });
  await ask('PATCH', '/settings', { names: [{ text: 'Tamsin', soundsLike: [] }] });
  const other = await AccountRow.create({ email: 'other@example.org', passwordHash: 'secret of another' });
  const id = await say({ text: 'Nobody else may hear this.', title: 'Private' });
  await Recording.update({ soundFile: `${id}.m4a`, accountId: other.id }, { where: { id } });
  fs.writeFileSync(path.join(ours, 'sound', `${id}.m4a`), 'private sound');
  manifest = await backup(ours, archive, { account: FIRST_ACCOUNT });
  await server.close();
});
afterEach(() => server.close());
afterAll(() => fs.rmSync(folder, { recursive: true, force: true }));

const open = async (name: string) => {
  server = await startTestServer(path.join(folder, name), new ControlledPool());
  return path.join(folder, name);
};

test('the archive of an account holds what is its own and nothing of anybody else', async () => {
  await open('ours');
  expect(manifest.objects).toMatchObject({ accounts: 1, recordings: 10, notes: 1, todos: 10, folders: 2 });
  expect(manifest.files.filter((f) => f.path.startsWith('sound/'))).toHaveLength(10);
  const bytes = fs.readFileSync(archive);
  for (const secret of ['private sound', 'Nobody else', 'secret of another'])
    expect(bytes.includes(secret)).toBe(false);
});

test('into an empty account everything comes back, with its sound, filed as it was and found', async () => {
  const data = await open('theirs');
  const guest = (await AccountRow.create({ email: null, passwordHash: null })).id;
  const progress: number[] = [];
  const result = await mergeArchive(archive, data, guest, { onProgress: (share) => progress.push(share) });
  expect(result).toEqual({ recordings: 10, notes: 1, todos: 10, alreadyHere: 0 });
  expect(progress).toEqual([...progress].sort((a, b) => a - b));
  await asAccount(guest, async () => {
    const rows = await Recording.findAll();
    expect(rows).toHaveLength(10);
    for (const row of rows) {
      expect(row.accountId).toBe(guest);
      expect(fs.readFileSync(path.join(data, 'sound', row.soundFile), 'utf8')).toMatch(/^sound of \d$/);
    }
  });
  expect(await PassageRow.count()).toBe(10);
  // The first account, which opened this server, sees nothing of it.
  expect(await recordings()).toHaveLength(0);
  expect(fs.readdirSync(path.join(data, 'archives'))).toEqual([]);
});

test('what is missing comes back, what is here stays as it is', async () => {
  await open('ours');
  const all = await recordings();
  const [changed, gone] = [all.find((r) => r.title === 'Lime 3')!, all.find((r) => r.title === 'Lime 7')!];
  await ask('PATCH', `/recordings/${changed.id}`, { title: 'Changed since' });
  await Recording.destroy({ where: { id: gone.id } });
  fs.rmSync(path.join(ours, 'sound', `${gone.id}.m4a`));
  const result = await mergeArchive(archive, ours, FIRST_ACCOUNT);
  expect(result).toEqual({ recordings: 1, notes: 0, todos: expect.any(Number), alreadyHere: 10 });
  const now = await recordings();
  expect(now).toHaveLength(10);
  expect(now.find((r) => r.id === changed.id)!.title).toBe('Changed since');
  expect(now.find((r) => r.id === gone.id)!).toMatchObject({ title: 'Lime 7' });
  const whole = await ask<{
    passages: { words: { text: string }[] }[];
    tags: string[];
    people: string[];
    project: string;
  }>(...(['GET', `/recordings/${gone.id}`] as const));
  expect(whole.passages.flatMap((p) => p.words.map((w) => w.text)).join(' ')).toContain('lime number 7');
  expect(whole).toMatchObject({ tags: ['limes'], people: ['Bram'], project: 'Quay' });
  expect(fs.existsSync(path.join(ours, 'sound', `${gone.id}.m4a`))).toBe(true);
  const todos = (await ask<{ items: Todo[] }>('GET', '/todos')).items.filter((t) => t.text === 'Water lime 3');
  expect(todos).toHaveLength(1);
  // Once more, and nothing is doubled.
  expect(await mergeArchive(archive, ours, FIRST_ACCOUNT)).toMatchObject({ recordings: 0, alreadyHere: 11 });
  expect(await PassageRow.count({ where: { recordingId: gone.id } })).toBe(1);
});

test('tags and people of the same name are one, and settings of one’s own come first', async () => {
  const data = await open('named');
  await ask('PATCH', '/settings', { figures: { money: false } });
  const id = await say({ text: 'A lime of this house.', title: 'Here before' });
  await ask('PATCH', `/recordings/${id}`, { tags: ['limes'], people: ['Bram'] });
  await mergeArchive(archive, data, FIRST_ACCOUNT);
  const shelves = await ask<{ tags: { name: string }[]; people: { name: string }[] }>('GET', '/shelves');
  expect(JSON.stringify(shelves.tags).match(/limes/g)).toHaveLength(1);
  expect((await recordings()).filter((r) => r.tags.includes('limes'))).toHaveLength(11);
  expect(await ask('GET', '/settings')).toMatchObject({ names: [{ text: 'Tamsin' }] });
  const { results } = await ask<{ results: unknown[] }>('GET', '/find?q=lime%20lock');
  expect(results).toHaveLength(10);
});

test('an archive that was made up reaches no file of others, nor any outside', async () => {
  const data = await open('guarded');
  const secret = path.join(data, 'sound', 'of-somebody-else.m4a');
  fs.writeFileSync(secret, 'not for you');
  const made = async (soundFile: string): Promise<string> => {
    const zip = await JSZip.loadAsync(fs.readFileSync(archive));
    const table = 'objects/recordings.jsonl';
    const lines = (await zip.file(table)!.async('string')).trim().split('\n');
    const [first, ...rest] = lines.map((line) => JSON.parse(line) as Record<string, unknown>);
    const changed = [{ ...first, sound_file: soundFile }, ...rest].map((row) => JSON.stringify(row)).join('\n');
    const told = JSON.parse(await zip.file('manifest.json')!.async('string')) as Manifest;
    const sha256 = createHash('sha256').update(changed).digest('hex');
    const size = Buffer.byteLength(changed);
    zip.file(table, changed);
    zip.file(
      'manifest.json',
      JSON.stringify({ ...told, files: told.files.map((f) => (f.path === table ? { ...f, size, sha256 } : f)) }),
    );
    const file = path.join(folder, 'made-up.zip');
    fs.writeFileSync(file, await zip.generateAsync({ type: 'nodebuffer' }));
    return file;
  };
  const guest = (await AccountRow.create({ email: null, passwordHash: null })).id;
  await expect(mergeArchive(await made('of-somebody-else.m4a'), data, guest)).rejects.toThrow(
    'files that it does not contain',
  );
  expect(await Recording.count()).toBe(0);
  expect(fs.readFileSync(secret, 'utf8')).toBe('not for you');
  expect(fs.readdirSync(path.join(data, 'sound'))).toEqual(['of-somebody-else.m4a']);

  await mergeArchive(await made('../immeld.sqlite'), data, guest);
  const files = await filesOfAccount(Recording.sequelize!, guest);
  expect(files.every((f) => /^(?:sound|pictures)\/[^/]+$/.test(f))).toBe(true);
  expect(fs.existsSync(path.join(data, 'immeld.sqlite'))).toBe(true);
});

test('what cannot be used changes nothing', async () => {
  const data = await open('harmless');
  await say({ text: 'It stays.', title: 'Stays' });
  const bytes = fs.readFileSync(archive);
  const cut = path.join(folder, 'cut.zip');
  fs.writeFileSync(cut, bytes.subarray(0, bytes.length - 40));
  await expect(mergeArchive(cut, data, FIRST_ACCOUNT)).rejects.toThrow(ArchiveProblem);
  const empty = path.join(folder, 'empty.zip');
  await backup(data, empty, { account: (await AccountRow.create({ email: null, passwordHash: null })).id });
  await expect(mergeArchive(empty, data, FIRST_ACCOUNT)).rejects.toThrow('This backup is empty');
  expect((await recordings()).map((r) => r.title)).toEqual(['Stays']);
  // Two accounts, and none of them is this one.
  const both = path.join(folder, 'both.zip');
  await backup(ours, both);
  await expect(mergeArchive(both, data, FIRST_ACCOUNT)).rejects.toThrow('several accounts');
  // Here already, but somebody else's.
  const other = (await AccountRow.create({ email: null, passwordHash: null })).id;
  await mergeArchive(archive, data, other);
  await expect(mergeArchive(archive, data, FIRST_ACCOUNT)).rejects.toThrow('belong to another account');
  expect((await recordings()).map((r) => r.title)).toEqual(['Stays']);
});
