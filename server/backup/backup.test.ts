import JSZip from 'jszip';
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';
import type { Note } from '@immeld/core/contract/notes';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';
import { say } from '../testing/filledServer';
import { ArchiveProblem, type Manifest } from './archive';
import { backup } from './backup';
import { restore, verify } from './restore';
import { objectTables } from './tables';

const folder = temporaryFolder();
const dataFolder = path.join(folder, 'data');
const archive = path.join(folder, 'everything.immeld.zip');
const sound = randomBytes(200_000);
const passphrase = 'Die Gießkanne steht am Kai';
let manifest: Manifest;

/** All objects of a data folder, kind by kind. */
async function objectsIn(data: string): Promise<Record<string, unknown[]>> {
  const storage = path.join(data, 'immeld.sqlite');
  const database = new Sequelize({ dialect: 'sqlite', dialectModule: sqlite3, storage, logging: false });
  const found: Record<string, unknown[]> = {};
  for (const table of await objectTables(database)) {
    found[table] = await database.query(`SELECT * FROM "${table}" ORDER BY rowid`, { type: QueryTypes.SELECT });
  }
  await database.close();
  return found;
}

beforeAll(async () => {
  const server = await startTestServer(dataFolder, new ControlledPool());
  const ask = async <T>(method: string, address: string, body?: unknown) =>
    (await askJson<T>(server, method, address, body)).body;
  const folderRow = await ask<{ id: string }>('POST', '/folders', { name: 'Kai – 埠頭 🌳' });
  await ask('POST', '/folders', { name: 'Inside', parentId: folderRow.id });
  for (let i = 0; i < 30; i++) {
    const id = await say({ text: `The lime number ${i} stands by the lock. Who waters it?`, title: `Lime ${i}` });
    await ask('PATCH', `/recordings/${id}`, { tags: ['limes'], folderId: folderRow.id, people: ['Bram'] });
    await ask('POST', `/todos`, { text: `Water lime ${i}`, recordingId: id });
  }
  const body = {
    type: 'doc',
    content: [
      { type: 'paragraph', content: [{ type: 'text', text: '"Quotes", \\ and \u0000?'.replace('\u0000', '') }] },
    ],
  };
  await ask<Note>('POST', '/notes', { title: 'A note', body });
  fs.writeFileSync(path.join(dataFolder, 'sound', 'a.m4a'), sound);
  fs.writeFileSync(path.join(dataFolder, 'sound', 'half.m4a.part'), 'half');
  // While the server runs.
  manifest = await backup(dataFolder, archive).finally(() => server.close());
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

it('everything is back on another machine: every object, every byte, and what was said is found', async () => {
  const target = path.join(folder, 'other');
  await restore(archive, target);
  expect(await objectsIn(target)).toEqual(await objectsIn(dataFolder));
  expect(fs.readFileSync(path.join(target, 'sound', 'a.m4a')).equals(sound)).toBe(true);
  expect(fs.existsSync(path.join(target, 'sound', 'half.m4a.part'))).toBe(false);
  const server = await startTestServer(target, new ControlledPool());
  const found = await askJson<{ total: number }>(server, 'GET', '/recordings?place=all');
  expect(found.body.total).toBe(30);
  const { body } = await askJson<{ results: unknown[] }>(server, 'GET', `/find?q=${encodeURIComponent('lime lock')}`);
  expect(body.results).toHaveLength(30);
  await server.close();
});

it('is a plain zip with what its manifest says, read by another unzip', async () => {
  const zip = await JSZip.loadAsync(fs.readFileSync(archive));
  const told = JSON.parse(await zip.file('manifest.json')!.async('string')) as Manifest;
  expect(told).toEqual(manifest);
  expect(told.objects).toMatchObject({ recordings: 30, todos: 30, notes: 1, folders: 2 });
  const lines = (await zip.file('objects/recordings.jsonl')!.async('string')).trim().split('\n');
  expect(lines.map((l) => (JSON.parse(l) as { title: string }).title)).toContain('Lime 7');
  expect(
    Object.keys(zip.files)
      .filter((f) => f !== 'manifest.json')
      .sort(),
  ).toEqual(told.files.map((f) => f.path).sort());
  expect((await verify(archive)).madeAt).toBe(manifest.madeAt);
});

it('under a passphrase nothing can be read without it', async () => {
  const locked = path.join(folder, 'locked.immeld');
  await backup(dataFolder, locked, { passphrase });
  const bytes = fs.readFileSync(locked);
  expect(bytes.includes('recordings')).toBe(false);
  expect(bytes.includes('Lime')).toBe(false);
  await expect(verify(locked)).rejects.toThrow('Enter its passphrase');
  await expect(verify(locked, { passphrase: 'another one' })).rejects.toThrow('Wrong passphrase');
  expect((await verify(locked, { passphrase })).objects).toEqual(manifest.objects);
  // The same passphrase in another normal form of Unicode.
  await verify(locked, { passphrase: passphrase.normalize('NFD') });
  const target = path.join(folder, 'unlocked');
  await restore(locked, target, { passphrase });
  expect(await objectsIn(target)).toEqual(await objectsIn(dataFolder));
});

it('cut at any of fifty places it is refused, and nothing is there afterwards', async () => {
  const bytes = fs.readFileSync(archive);
  const target = path.join(folder, 'never');
  const cut = path.join(folder, 'cut.zip');
  for (let i = 0; i < 50; i++) {
    fs.writeFileSync(cut, bytes.subarray(0, Math.floor((bytes.length * i) / 50)));
    await expect(restore(cut, target)).rejects.toThrow(ArchiveProblem);
  }
  expect(fs.existsSync(target)).toBe(false);
  expect(fs.existsSync(`${target}.restoring`)).toBe(false);
});

it('with a byte changed in the sound it is told which file is not as it was', async () => {
  const bytes = Buffer.from(fs.readFileSync(archive));
  const at = bytes.indexOf(sound.subarray(1000, 1032));
  bytes[at]! ^= 1;
  const changed = path.join(folder, 'changed.zip');
  fs.writeFileSync(changed, bytes);
  await expect(verify(changed)).rejects.toThrow('“sound/a.m4a”');
});

it('does not write over data, and refuses what a newer version of Immeld made', async () => {
  await expect(restore(archive, dataFolder)).rejects.toThrow('is not empty');
  const zip = await JSZip.loadAsync(fs.readFileSync(archive));
  const write = async (change: Partial<Manifest>) => {
    zip.file('manifest.json', JSON.stringify({ ...manifest, ...change }));
    const file = path.join(folder, 'newer.zip');
    fs.writeFileSync(file, await zip.generateAsync({ type: 'nodebuffer' }));
    return file;
  };
  const target = path.join(folder, 'newer');
  await expect(restore(await write({ version: 2 }), target)).rejects.toThrow('newer version of Immeld');
  await expect(restore(await write({ migrations: ['9999-future'] }), target)).rejects.toThrow(
    'newer version of Immeld',
  );
  const files = [{ path: '../outside', size: 1, sha256: '0'.repeat(64) }];
  await expect(restore(await write({ files }), target)).rejects.toThrow(ArchiveProblem);
  await expect(restore(await write({ objects: { ...manifest.objects, recordings: 31 } }), target)).rejects.toThrow(
    'has 30 entries instead of 31',
  );
  expect(fs.existsSync(target)).toBe(false);
});

it('one that is longer than it says is refused before it is unpacked', async () => {
  const zip = await JSZip.loadAsync(fs.readFileSync(archive));
  zip.file('sound/a.m4a', Buffer.alloc(40_000_000));
  const swollen = path.join(folder, 'swollen.zip');
  fs.writeFileSync(swollen, await zip.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' }));
  expect(fs.statSync(swollen).size).toBeLessThan(1_000_000);
  await expect(verify(swollen)).rejects.toThrow('“sound/a.m4a” is missing or incomplete');
});

it('where the disk has too little room nothing is begun, and it is told how much is needed', async () => {
  const target = path.join(folder, 'full');
  const needed = manifest.files.reduce((sum, f) => sum + f.size, 0);
  await expect(restore(archive, target, { freeBytes: () => needed - 1 })).rejects.toThrow(
    /needs 0\.1 GB on Immeld’s disk.* Free up space/,
  );
  expect([target, `${target}.restoring`].some((f) => fs.existsSync(f))).toBe(false);
  await restore(archive, target, { freeBytes: () => needed * 3 });
  expect(fs.readFileSync(path.join(target, 'sound', 'a.m4a'))).toEqual(sound);
});

it('of nothing there is no archive', async () => {
  await expect(backup(path.join(folder, 'nowhere'), path.join(folder, 'x.zip'))).rejects.toThrow(
    'No Immeld data found',
  );
  await expect(verify(path.join(folder, 'nowhere.zip'))).rejects.toThrow('does not exist');
});
