import fs from 'node:fs';
import path from 'node:path';
import type { RunningServer } from '../start';
import { Recording } from '../models/recording';
import { TodoRow } from '../models/todo';
import { ControlledPool, startTestServer, temporaryFolder, until, upload } from '../testing/testServer';
import { emptyBin } from './emptyBin';
import { shortenedName } from './importUpload';
import { SoundStore } from './soundStore';
import { log } from '../log';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});
const soundFiles = () => fs.readdirSync(path.join(dataFolder, 'sound'));
const isReady = (id: string) =>
  until(
    async () => (await Recording.findByPk(id))?.state,
    (state) => state === 'ready',
  );

it('the bin is emptied after 30 days and not before; an accepted to-do outlives its recording', async () => {
  const { recordingId } = await upload(server.address, Buffer.from('old sound'), 'old.wav');
  await isReady(recordingId);
  await TodoRow.update({ state: 'ink' }, { where: { recordingId } });
  await Recording.update({ binnedAt: new Date() }, { where: { id: recordingId } });
  const sounds = new SoundStore(dataFolder);
  const inDays = (days: number) => new Date(Date.now() + days * 86_400_000);
  expect(await emptyBin(sounds, inDays(29))).toBe(0);
  expect(soundFiles()).toEqual([`${recordingId}.bin`]);
  expect(await emptyBin(sounds, inDays(31))).toBe(1);
  expect(soundFiles()).toEqual([]);
  expect(await TodoRow.findAll({ raw: true })).toMatchObject([{ text: 'Call Bram', recordingId: null }]);
});

it('an upload that was whole when the server died becomes a recording at the next start', async () => {
  await server.close();
  const uploads = path.join(dataFolder, 'uploads');
  const metadata = { filename: 'Saved.wav', startedAt: '2026-03-09T07:40:00' };
  fs.writeFileSync(path.join(uploads, 'whole'), 'twelve bytes');
  fs.writeFileSync(path.join(uploads, 'whole.json'), JSON.stringify({ id: 'whole', size: 12, offset: 0, metadata }));
  fs.writeFileSync(path.join(uploads, 'part'), 'six');
  fs.writeFileSync(path.join(uploads, 'part.json'), JSON.stringify({ id: 'part', size: 12, offset: 0, metadata }));
  fs.writeFileSync(path.join(uploads, 'torn.json'), '{"id":');
  jest.spyOn(log, 'error').mockImplementation(() => undefined);
  server = await startTestServer(dataFolder, new ControlledPool());
  const [saved] = await Recording.findAll({ where: { fileName: 'Saved.wav' } });
  expect(saved).toMatchObject({ startedAt: '2026-03-09T07:40:00', sizeBytes: 12 });
  await isReady(saved!.id);
  expect(fs.readdirSync(uploads).sort()).toEqual(['part', 'part.json', 'torn.json']);
});

it.each([
  ['memo.m4a', 'memo.m4a'],
  ['C:\\sound\\memo.m4a', 'memo.m4a'],
  ['../../etc/passwd', 'passwd'],
  ['a\u0000b\n.wav', 'a b .wav'],
  ['   ', 'Recording'],
])('the name %j is kept as %j', (given, kept) => expect(shortenedName(given)).toBe(kept));
