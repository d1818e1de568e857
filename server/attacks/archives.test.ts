import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { Readable } from 'node:stream';
import JSZip from 'jszip';
import type { RestoreJob } from '@immeld/core/contract/archiveEndpoints';
import type { LanguageModel } from '@immeld/core/contract/languageModel';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { type Manifest, ArchiveProblem } from '../backup/archive';
import { backup } from '../backup/backup';
import { LineTooLong, linesOf } from '../backup/lines';
import { restore } from '../backup/restore';
import type { RunningServer } from '../start';
import { inProcess } from '../tasks/inProcess';
import { Device } from '../testing/device';
import { say } from '../testing/filledServer';
import { ControlledPool, startTestServer, temporaryFolder, until } from '../testing/testServer';

const folder = temporaryFolder();
const at = (name: string) => path.join(folder, name);
let server: RunningServer;
let owner: Device;
beforeAll(async () => {
  server = await startTestServer(at('data'), new ControlledPool(), false);
  owner = await Device.guest(() => server.address);
  await say({ title: 'Quay', text: 'The limes need water.' });
  const note = (await owner.ask<{ id: string }>('POST', '/notes', { title: 'Limes' })).body;
  await owner.ask('POST', '/share-links', { item: { kind: 'note', id: note.id } });
  await owner.ask('PUT', '/todo-feed', { isOn: true });
  await owner.ask('PATCH', '/language-model', { address: 'https://model.example', token: 'secret-token' });
  await backup(at('data'), at('good.zip'), { account: FIRST_ACCOUNT });
});
afterAll(async () => {
  await server.close();
  fs.rmSync(folder, { recursive: true });
});

/** The good archive with one file made anew, as its manifest then says. */
async function changed(name: string, content: string, archive: string): Promise<string> {
  const zip = await JSZip.loadAsync(fs.readFileSync(at('good.zip')));
  const manifest = JSON.parse(await zip.file('manifest.json')!.async('string')) as Manifest;
  zip.file(name, content);
  manifest.files = [
    ...manifest.files.filter((f) => f.path !== name),
    { path: name, size: Buffer.byteLength(content), sha256: createHash('sha256').update(content).digest('hex') },
  ];
  zip.file('manifest.json', JSON.stringify(manifest));
  fs.writeFileSync(at(archive), await zip.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' }));
  return at(archive);
}

async function broughtBack(device: Device, archive: string): Promise<RestoreJob> {
  const id = (await device.send(fs.readFileSync(archive), { archive: '1', filename: 'a.zip' })).get('Immeld-Archive')!;
  await device.ask('POST', `/archives/${id}/return`, { passphrase: null });
  return until(
    async () => (await device.ask<RestoreJob>('GET', `/archives/${id}/return`)).body,
    ({ state }) => state !== 'working',
  );
}

it('an archive with a line without end ends in a sentence; the server goes on', async () => {
  const archive = await changed('objects/notes.jsonl', `{"a":"${'x'.repeat(70_000_000)}"}`, 'line.zip');
  expect(fs.statSync(archive).size).toBeLessThan(1_000_000);
  const { state, problem } = await broughtBack(owner, archive);
  expect([state, problem]).toEqual(['failed', 'This archive was changed after Immeld made it.']);
  expect((await owner.ask('GET', '/status')).status).toBe(200);
  expect(fs.readdirSync(at('data/work'))).toEqual([]);
});

it('an archive that unpacks to more than it holds is refused before anything is written', async () => {
  const archive = await changed('sound/zeros.wav', '\0'.repeat(50_000_000), 'bomb.zip');
  await expect(restore(archive, at('bombed'))).rejects.toThrow(ArchiveProblem);
  expect(fs.existsSync(at('bombed'))).toBe(false);
});

it('work that takes too much memory or time ends by itself, and nothing of it stays', async () => {
  const rules = { memoryMb: 1000, limitMs: 60_000 };
  const picture = { type: 'png' as const, bytes: Buffer.alloc(10), width: 1, height: 1 };
  const sheet = { title: 'T', facts: [], hasHeader: true, hasTitlePage: false, language: 'en', footnotes: [] };
  const text = Array.from({ length: 20_000 }, (_, i) => `lime ${i}`).join(' ');
  const blocks = Array.from({ length: 300 }, () => ({
    kind: 'paragraph' as const,
    lead: '',
    runs: [{ text }],
    notes: [],
  }));
  const task = { kind: 'page', form: 'pdf', sheet: { ...sheet, blocks }, pictures: new Map([['a', picture]]) } as const;
  await expect(inProcess(task, { ...rules, limitMs: 1500 })).rejects.toThrow('more memory or time');
  await expect(inProcess(task, { ...rules, memoryMb: 300 })).rejects.toThrow();
  expect(fs.readdirSync(at('data/work'))).toEqual([]);
});

it('an archive carries nothing that opens anything', async () => {
  const zip = await JSZip.loadAsync(fs.readFileSync(at('good.zip')));
  const lines = async (table: string) => (await zip.file(`objects/${table}.jsonl`)!.async('string')).trim();
  expect([await lines('sessions'), await lines('share_links'), await lines('todo_feeds')]).toEqual(['', '', '']);
  expect(JSON.parse(await lines('language_models'))).toMatchObject({ token: null, is_on: 0 });
  expect(JSON.parse(await lines('accounts'))).toMatchObject({ password_hash: null });
});

it('an archive that was made up switches no language model on', async () => {
  const model = {
    account_id: FIRST_ACCOUNT,
    is_on: 1,
    has_agreed: 1,
    address: 'https://evil.example',
    model: '',
    token: 'x',
  };
  const times = { timeout_seconds: 60, created_at: '2026-03-09', updated_at: '2026-03-09' };
  const archive = await changed('objects/language_models.jsonl', JSON.stringify({ ...model, ...times }), 'model.zip');
  const other = await startTestServer(at('other'), new ControlledPool(), false);
  const stranger = await Device.guest(() => other.address);
  expect((await broughtBack(stranger, archive)).state).toBe('done');
  expect((await stranger.ask<LanguageModel>('GET', '/language-model')).body).toMatchObject({
    isOn: false,
    address: '',
  });
  await other.close();
});

it('lines come one at a time, however the bytes are parted', async () => {
  const read = async (parts: string[], longest = 10) => {
    const lines: string[] = [];
    for await (const line of linesOf(Readable.from(parts.map((p) => Buffer.from(p))), longest)) lines.push(line);
    return lines;
  };
  expect(await read(['a\nb', 'c\r\n', '\n', 'é', '\nlast'])).toEqual(['a', 'bc', '', 'é', 'last']);
  await expect(read(['12345', '678901'])).rejects.toThrow(LineTooLong);
});
