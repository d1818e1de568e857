import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import { randomUUID } from 'node:crypto';
import type { Account, Session } from '@immeld/core/contract/account';
import { QueryTypes, Sequelize } from 'sequelize';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { isOwnHost } from '../accounts/hosts';
import { SessionRow } from '../models/account';
import { type RunningServer, startServer } from '../start';
import { FolderInUse } from '../storage/dataLock';
import { Device } from '../testing/device';
import { ControlledPool, startTestServer, temporaryFolder } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  server = await startServer({ dataFolder, port: 0, pool: new ControlledPool(), appFolder: null, trustProxy: 1 });
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const someone = () => Device.guest(() => server.address);
const password = 'four words in a row';
const address = () => `${randomUUID().slice(0, 8)}@harrowmere.example`;
/** A device that has stolen the cookie of another. */
function thief(of: Device): Device {
  const device = new Device(() => server.address);
  device.cookie = of.cookie;
  return device;
}
const isIn = async (device: Device) => (await device.ask('GET', '/account')).status === 200;

it('the first guest’s recordings are given to nobody else, whatever becomes of the guest’s cookie', async () => {
  const first = await someone();
  expect((await first.ask<Account>('GET', '/account')).body.id).toBe(FIRST_ACCOUNT);
  const [session] = (await first.ask<{ items: Session[] }>('GET', '/sessions')).body.items;
  expect((await first.ask('DELETE', `/sessions/${session!.id}`)).status).toBe(409);
  await SessionRow.destroy({ where: { owner: FIRST_ACCOUNT } });
  expect((await new Device(() => server.address).guest()).id).not.toBe(FIRST_ACCOUNT);
});

it('a cookie that was stolen from a guest is worth nothing once the guest has signed up', async () => {
  const guest = await someone();
  const stolen = thief(guest);
  await guest.ask('POST', '/account', { email: address(), password });
  expect([await isIn(guest), await isIn(stolen)]).toEqual([true, false]);
});

it('signing in once more ends the session before', async () => {
  const email = address();
  const device = await someone();
  await device.ask('POST', '/account', { email, password });
  const stolen = thief(device);
  await device.ask('POST', '/session', { email, password });
  expect([await isIn(device), await isIn(stolen)]).toEqual([true, false]);
});

it('a session ends after 400 days without a visit, also for a copy of its cookie', async () => {
  const device = await someone();
  const { id } = (await device.ask<Account>('GET', '/account')).body;
  await SessionRow.update({ lastSeenAt: new Date(Date.now() - 401 * 86_400_000) }, { where: { owner: id } });
  expect(await isIn(device)).toBe(false);
});

it('a new password signs all other devices out; the old one opens nothing', async () => {
  const email = address();
  const [phone, laptop] = [await someone(), new Device(() => server.address)];
  await phone.ask('POST', '/account', { email, password });
  await laptop.ask('POST', '/session', { email, password });
  const change = { password, newPassword: 'limes by the northern quay' };
  expect((await phone.ask('POST', '/account/password', { ...change, password: 'not this one' })).status).toBe(403);
  expect((await phone.ask('POST', '/account/password', change)).status).toBe(200);
  expect([await isIn(phone), await isIn(laptop)]).toEqual([true, false]);
  expect((await laptop.ask('POST', '/session', { email, password })).status).toBe(403);
  expect((await laptop.ask('POST', '/session', { email, password: change.newPassword })).status).toBe(200);
  expect((await phone.ask<{ signedOut: number }>('DELETE', '/sessions')).body.signedOut).toBe(1);
  expect([await isIn(phone), await isIn(laptop)]).toEqual([true, false]);
});

it.each(['1234567890', 'password123', 'qwertyuiop', 'aaaaaaaaaaaa'])('the password %s is refused', async (weak) => {
  const refused = await (
    await someone()
  ).ask<{ detail: string }>('POST', '/account', { email: address(), password: weak });
  expect(refused.status).toBe(400);
  expect(refused.body.detail).toContain('too easy to guess');
});

it('behind a proxy with TLS the cookie is only sent by TLS, and each visitor has limits of their own', async () => {
  const from = (ip: string) => ({ 'X-Forwarded-Proto': 'https', 'X-Forwarded-For': ip });
  const made = await new Device(() => server.address).ask('POST', '/session/guest', undefined, from('203.0.113.7'));
  expect(made.headers.get('Set-Cookie')).toMatch(/Secure/);
  expect(made.headers.get('Strict-Transport-Security')).toBe('max-age=31536000');
  const tries = async (ip: string) => {
    const guess = { email: 'a@b.example', password: 'guess' };
    return (await new Device(() => server.address).ask('POST', '/session', guess, from(ip))).status;
  };
  for (let i = 0; i < 10; i++) await tries('203.0.113.8');
  expect([await tries('203.0.113.8'), await tries('203.0.113.9')]).toEqual([429, 403]);
});

it('answers are kept by no cache', async () => {
  expect((await (await someone()).ask('GET', '/account')).headers.get('Cache-Control')).toBe('no-store');
});

describe('a name that a stranger lets lead to this machine', () => {
  const ask = (host: string) =>
    new Promise<number>((resolve, reject) => {
      const { port } = new URL(server.address);
      http
        .get({ port, path: '/api/status', headers: { host } }, (r) => resolve(r.resume().statusCode!))
        .on('error', reject);
    });

  it('is not answered', async () => {
    expect(await ask('evil.example')).toBe(403);
    expect(await ask('127.0.0.1.evil.example:80')).toBe(403);
    expect(await ask('localhost:4710')).toBe(200);
  });

  it.each<[string, boolean]>([
    ['127.0.0.1:4710', true],
    ['[::1]:4710', true],
    ['192.168.1.20', true],
    ['tamsin-laptop.local:4710', true],
    ['Notes.Harrowmere.example', true],
    ['harrowmere.example', false],
    ['notes.harrowmere.example.evil.example', false],
  ])('%s: %s', (host, isOwn) => {
    expect(isOwnHost(host, ['notes.harrowmere.example'], 'tamsin-laptop')).toBe(isOwn);
  });
});

it('two servers never work in one data folder, and the second one leaves everything as it is', async () => {
  const made = path.join(dataFolder, 'exports', 'made');
  fs.writeFileSync(made, 'a file that waits to be fetched');
  await expect(startTestServer(dataFolder, new ControlledPool())).rejects.toThrow(FolderInUse);
  expect(fs.readFileSync(made, 'utf8')).toBe('a file that waits to be fetched');
});

it('nobody else on the machine can look into the data folder', () => {
  expect(fs.statSync(dataFolder).mode & 0o777).toBe(0o700);
  expect(fs.statSync(path.join(dataFolder, 'seal.key')).mode & 0o777).toBe(0o600);
});

it('what opens something stands nowhere in the database as it is', async () => {
  const device = await someone();
  const { address: feed } = (await device.ask<{ address: string }>('PUT', '/todo-feed', { isOn: true })).body;
  const note = (await device.ask<{ id: string }>('POST', '/notes', { title: 'N' })).body;
  const link = (await device.ask<{ path: string }>('POST', '/share-links', { item: { kind: 'note', id: note.id } }))
    .body;
  await device.ask('PATCH', '/language-model', { address: 'https://model.example', token: 'model-token-123' });
  const storage = path.join(dataFolder, 'immeld.sqlite');
  const database = new Sequelize({ dialect: 'sqlite', storage, logging: false });
  const tables = ['share_links', 'todo_feeds', 'language_models', 'sessions'];
  const rows = await Promise.all(tables.map((t) => database.query(`SELECT * FROM ${t}`, { type: QueryTypes.SELECT })));
  await database.close();
  const said = JSON.stringify(rows);
  for (const secret of [
    feed.split('/').pop()!.replace('.ics', ''),
    link.path.slice(3),
    'model-token-123',
    device.cookie.split('=')[1]!,
  ]) {
    expect(secret.length).toBeGreaterThan(10);
    expect(said).not.toContain(secret);
  }
  expect((await fetch(server.address + feed)).status).toBe(200);
  expect((await fetch(server.address + link.path)).status).toBe(200);
});
