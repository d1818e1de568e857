import fs from 'node:fs';
import path from 'node:path';
import type { Account } from '@immeld/core/contract/account';
import { sweepGuests } from '../accounts/sweepGuests';
import { AccountRow, SessionRow } from '../models/account';
import { type RunningServer, startServer } from '../start';
import { Device } from '../testing/device';
import { ControlledPool, temporaryFolder } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  const quotaBytes = 10_000;
  server = await startServer({ dataFolder, port: 0, pool: new ControlledPool(), appFolder: null, quotaBytes });
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});
afterEach(() => jest.restoreAllMocks());

const tus = { 'Tus-Resumable': '1.0.0' };
const announce = (device: Device, bytes: number) =>
  device.ask('POST', '/uploads', undefined, { ...tus, 'Upload-Length': String(bytes) });

it('what was announced is reserved: the disk is not promised twice', async () => {
  const [one, two] = [await Device.guest(() => server.address), await Device.guest(() => server.address)];
  const bsize = 4096;
  const bytes = 64 * 1024 ** 2 + 15_000;
  jest.spyOn(fs.promises, 'statfs').mockResolvedValue({ bsize, bavail: Math.ceil(bytes / bsize) } as never);
  expect((await announce(one, 9000)).status).toBe(201);
  expect((await announce(two, 9000)).status).toBe(507);
  expect((await announce(two, 1000)).status).toBe(201);
});

it('an account keeps no more than it may, what is on its way counted in', async () => {
  const device = await Device.guest(() => server.address);
  await device.bringIn('x'.repeat(4000));
  expect((await announce(device, 7000)).status).toBe(507);
  expect((await announce(device, 5000)).status).toBe(201);
  expect((await announce(device, 2000)).status).toBe(507);
});

it('the description of an upload cannot be taken away by its name', async () => {
  const [owner, stranger] = [await Device.guest(() => server.address), await Device.guest(() => server.address)];
  const location = (await announce(owner, 500)).headers.get('Location')!;
  const id = location.split('/').pop()!;
  for (const name of [`${id}.json`, `..%2Fuploads%2F${id}`, id.slice(1), `${id}.info`]) {
    expect((await stranger.ask('DELETE', `/uploads/${name}`, undefined, tus)).status).toBe(404);
  }
  expect(fs.existsSync(path.join(dataFolder, 'uploads', `${id}.json`))).toBe(true);
  expect((await owner.ask('HEAD', `/uploads/${id}`, undefined, tus)).status).toBe(200);
});

it('guests who kept nothing go after a month, those who kept something stay as long as their cookie opens it', async () => {
  const parts = {} as never;
  await Device.guest(() => server.address);
  const [empty, full] = [await Device.guest(() => server.address), await Device.guest(() => server.address)];
  await full.ask('POST', '/todos', { text: 'Water the limes' });
  const idOf = async (device: Device) => (await device.ask<Account>('GET', '/account')).body.id;
  const [gone, stays] = [await idOf(empty), await idOf(full)];
  const long = new Date(Date.now() - 31 * 86_400_000);
  await SessionRow.update({ lastSeenAt: long }, { where: { owner: [gone, stays] } });
  await AccountRow.sequelize!.query('UPDATE accounts SET created_at = ?', { replacements: [long] });
  expect(await sweepGuests(parts)).toBe(1);
  expect(await AccountRow.findByPk(gone)).toBeNull();
  expect(await AccountRow.findByPk(stays)).not.toBeNull();
});
