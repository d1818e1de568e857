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
const asked = { isAsked: true };
const CODE = /^[2-9B-Z]{4}-[2-9B-Z]{4}$/mu;

/** The mail that came after `before` others. */
const nextMail = async (before: number) =>
  (await until(
    async () => post.got[before]?.mail,
    (mail) => mail !== undefined,
  ))!;

async function signUp(device: Device) {
  const before = post.got.length;
  expect((await device.ask('POST', '/account/sign-up-code', { email })).body).toEqual(asked);
  const code = CODE.exec((await nextMail(before)).text ?? '')![0];
  return device.ask<Account>('POST', '/account', { email, password: oldPassword, code });
}

test('who signs up proves with a code that the address is theirs', async () => {
  const phone = await someone();
  const guess = (code: string | null) => phone.ask('POST', '/account', { email, password: oldPassword, code });
  expect([(await guess(null)).status, (await guess('AAAA-AAAA')).status]).toEqual([403, 403]);
  expect((await signUp(phone)).body.email).toBe(email);
});

test('an address that has an account gets the same answers, and an email that says so', async () => {
  const stranger = await someone();
  const before = post.got.length;
  const answers = async (address: string) => {
    const first = await stranger.ask('POST', '/account/sign-up-code', { email: address });
    const second = await stranger.ask('POST', '/account', { email: address, password: oldPassword, code: 'AAAA-AAAA' });
    return [first.status, first.body, second.status, second.body];
  };
  expect(await answers(email)).toEqual(await answers('nobody-yet@harrowmere.example'));
  const mails = [await nextMail(before), await nextMail(before + 1)];
  expect(mails.map(({ subject }) => subject).sort()).toEqual(['You already have an account', 'Your code to sign up']);
  expect(mails.filter(({ text }) => CODE.test(text ?? ''))).toHaveLength(1);
});

test('who has forgotten the password gets in with a code by mail, once, and every other device is out', async () => {
  const laptop = await someone();
  await laptop.ask('POST', '/session', { email, password: oldPassword });
  const phone = await someone();
  const before = post.got.length;
  expect((await phone.ask('POST', '/session/forgotten', { email })).body).toEqual(asked);
  const { text = '', subject } = await nextMail(before);
  expect(subject).toBe('Your code for a new password');
  const code = CODE.exec(text)![0];
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
  expect({ status, body }).toEqual({ status: 200, body: asked });
  expect(post.got).toHaveLength(before);
});

test('asked again and again, it says to wait', async () => {
  const phone = await someone();
  const statuses: number[] = [];
  for (let i = 0; i < 6; i++)
    statuses.push((await phone.ask('POST', '/session/forgotten', { email: 'nobody@harrowmere.example' })).status);
  expect(statuses.at(-1)).toBe(429);
});
