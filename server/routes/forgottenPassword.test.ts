import fs from 'node:fs';
import type { Account } from '@immeld/core/contract/account';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import { startServer, type RunningServer } from '../start';
import { Device } from '../testing/device';
import { outsideMail } from '../testing/outsideMail';
import { ControlledPool, temporaryFolder, until } from '../testing/testServer';

const dataFolder = temporaryFolder();
let post: Awaited<ReturnType<typeof outsideMail>>;
let server: RunningServer;
beforeAll(async () => {
  post = await outsideMail();
  server = await startServer({
    ...{ dataFolder, port: 0, pool: new ControlledPool(), appFolder: null, isDemo: false },
    mail: { url: `smtp://127.0.0.1:${post.port}`, from: 'Immeld <immeld@harrowmere.example>' },
  });
});
afterAll(async () => {
  await server.close();
  await post.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const someone = () => Device.guest(() => server.address);
const oldPassword = 'four words in a row';
const newPassword = 'five other words in rows';
const email = 'tamsin@harrowmere.example';
const forgotten = { isAsked: true };

test('who has forgotten the password gets in with a code by mail, once, and every other device is out', async () => {
  const laptop = await someone();
  await laptop.ask('POST', '/account', { email, password: oldPassword });
  const phone = await someone();
  expect((await phone.ask('POST', '/session/forgotten', { email })).body).toEqual(forgotten);
  const { text = '', subject } = (await until(
    async () => post.got[0]?.mail,
    (mail) => mail !== undefined,
  ))!;
  expect(subject).toBe('Your code for a new password');
  const code = /^[2-9B-Z]{4}-[2-9B-Z]{4}$/mu.exec(text)![0];
  const set = (body: object) =>
    phone.ask<Account & ProblemDetails>('POST', '/session/new-password', { email, code, newPassword, ...body });
  // A weak password and a wrong address do not use the code up.
  expect((await set({ newPassword: 'passwordpassword' })).status).toBe(400);
  expect((await set({ email: 'bram@harrowmere.example' })).body.detail ?? '').toMatch(/wrong or no longer valid/);
  expect((await set({})).body.email).toBe(email);
  expect((await phone.ask<Account>('GET', '/account')).body.email).toBe(email);
  expect((await set({})).status).toBe(403);
  expect((await laptop.ask('GET', '/account')).status).toBe(401);
  expect((await laptop.ask('POST', '/session', { email, password: oldPassword })).status).toBe(403);
  expect((await laptop.ask('POST', '/session', { email, password: newPassword })).status).toBe(200);
});

test('an address without an account gets the same answer and no mail', async () => {
  const before = post.got.length;
  const phone = await someone();
  const { status, body } = await phone.ask('POST', '/session/forgotten', { email: 'nobody@harrowmere.example' });
  expect({ status, body }).toEqual({ status: 200, body: forgotten });
  expect(post.got).toHaveLength(before);
});

test('asked again and again, it says to wait', async () => {
  const phone = await someone();
  const statuses: number[] = [];
  for (let i = 0; i < 6; i++)
    statuses.push((await phone.ask('POST', '/session/forgotten', { email: 'nobody@harrowmere.example' })).status);
  expect(statuses.at(-1)).toBe(429);
});
