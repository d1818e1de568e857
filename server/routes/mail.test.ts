import fs from 'node:fs';
import type { Export } from '@immeld/core/contract/exportEndpoints';
import { PLAIN_CHOICES } from '@immeld/core/contract/exports';
import type { StandInMail } from '@immeld/core/contract/mailEndpoints';
import { mailOptionsFrom } from '../mail/mailer';
import { startServer, type RunningServer } from '../start';
import { Device } from '../testing/device';
import { say } from '../testing/filledServer';
import { outsideMail } from '../testing/outsideMail';
import { ControlledPool, askJson, temporaryFolder, until } from '../testing/testServer';
import { log } from '../log';

const folders: string[] = [];
const open: RunningServer[] = [];
async function start(options: Partial<Parameters<typeof startServer>[0]> = {}): Promise<RunningServer> {
  const dataFolder = temporaryFolder();
  const server = await startServer({
    ...{ dataFolder, port: 0, pool: new ControlledPool(), appFolder: null, isDemo: true, ...options },
  });
  folders.push(dataFolder);
  open.push(server);
  return server;
}
afterEach(async () => {
  for (const server of open.splice(0)) await server.close();
  for (const folder of folders.splice(0)) fs.rmSync(folder, { recursive: true, force: true });
});

/** A text file that was made of a recording. */
async function made(server: RunningServer, text = 'The limes need water.'): Promise<string> {
  const id = await say({ title: 'Lime, “silver” – Kai', text });
  const wish = {
    items: [{ kind: 'recording', id }],
    ...{ files: [{ format: 'txt', choices: PLAIN_CHOICES }], sound: null, pattern: '{title}' },
  };
  const { body } = await askJson<Export>(server, 'POST', '/exports', wish);
  await until(
    async () => (await askJson<Export>(server, 'GET', `/exports/${body.id}`)).body,
    (e) => e.state === 'ready',
  );
  return body.id;
}
const mail = { to: ['bram@harrowmere.example'], subject: 'Minutes of the quay', text: 'Dear Bram,\nhere they are.' };

test('a file goes through a mail server, whole, with its name in any script; another parser reads it', async () => {
  const post = await outsideMail();
  const server = await start({
    mail: { url: `smtp://127.0.0.1:${post.port}`, from: 'Immeld <immeld@harrowmere.example>' },
  });
  expect((await askJson(server, 'GET', '/mail')).body).toMatchObject({ isPossible: true, isStandIn: false });
  const id = await made(server);
  const sent = await askJson<{ sentTo: string[] }>(server, 'POST', `/exports/${id}/mail`, {
    ...mail,
    to: ['bram@harrowmere.example', 'nobody@elsewhere.example'],
  });
  expect(sent.body).toEqual({ sentTo: ['bram@harrowmere.example'], isStandIn: false });
  const [{ mail: parsed, raw }] = post.got as [(typeof post.got)[number]];
  expect(parsed).toMatchObject({ subject: 'Minutes of the quay', text: 'Dear Bram,\nhere they are.' });
  expect(parsed.from?.text).toContain('immeld@harrowmere.example');
  expect(parsed.attachments.map((a) => a.filename)).toEqual(['Lime, “silver” – Kai.txt']);
  expect(parsed.attachments[0]!.content.toString()).toContain('The limes need water.');
  // Whose account it was stays here.
  expect(raw).not.toMatch(/X-Immeld/i);
  // A mail server that is real is not read by anybody.
  expect((await askJson(server, 'GET', '/mail/stand-in')).status).toBe(404);
  await post.close();
});

test('what cannot be sent is said, and the file waits', async () => {
  const errors = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  const post = await outsideMail();
  const server = await start({ mail: { url: `smtp://127.0.0.1:${post.port}`, from: 'immeld@harrowmere.example' } });
  const id = await made(server);
  const send = (body: object) => askJson<{ detail: string }>(server, 'POST', `/exports/${id}/mail`, body);
  const unknown = await send({ ...mail, to: ['nobody@elsewhere.example'] });
  expect([unknown.status, unknown.body.detail]).toEqual([409, expect.stringContaining('rejected these addresses')]);
  for (const to of [[], ['bram'], ['bram@harrowmere.example\r\nBcc: all@harrowmere.example'], ['a@b.c,d@e.f']]) {
    expect((await send({ ...mail, to })).status).toBe(400);
  }
  expect((await send({ ...mail, subject: ' ' })).status).toBe(400);
  // A subject with a line break stays one line.
  expect((await send({ ...mail, subject: 'One\r\nBcc: all@harrowmere.example' })).status).toBe(200);
  expect(post.got[0]!.mail.bcc).toBeUndefined();
  await post.close();
  const silent = await send(mail);
  expect([silent.status, silent.body.detail]).toEqual([409, expect.stringContaining('cannot be reached')]);
  expect((await askJson<Export>(server, 'GET', `/exports/${id}`)).body.state).toBe('ready');
  errors.mockRestore();
});

test('in the demo the stand-in takes it and shows it, to whoever sent it and nobody else', async () => {
  const server = await start();
  const id = await made(server);
  expect((await askJson(server, 'GET', '/mail')).body).toMatchObject({ isPossible: true, isStandIn: true });
  expect((await askJson<{ isStandIn: boolean }>(server, 'POST', `/exports/${id}/mail`, mail)).body.isStandIn).toBe(
    true,
  );
  const { items } = (await askJson<{ items: StandInMail[] }>(server, 'GET', '/mail/stand-in')).body;
  expect(items).toMatchObject([
    {
      to: mail.to,
      subject: mail.subject,
      files: [{ name: 'Lime, “silver” – Kai.txt', sizeBytes: expect.any(Number) }],
    },
  ]);
  const other = new Device(() => server.address);
  await other.ask('POST', '/account', { email: 'jun@harrowmere.example', password: 'four words in a row' });
  expect((await other.ask<{ items: unknown[] }>('GET', '/mail/stand-in')).body.items).toEqual([]);
  expect((await other.ask('POST', `/exports/${id}/mail`, mail)).status).toBe(404);
  // Not without end.
  let last = 200;
  for (let i = 0; i < 31 && last === 200; i++)
    last = (await askJson(server, 'POST', `/exports/${id}/mail`, mail)).status;
  expect(last).toBe(429);
});

test('without a mail server none is offered, and a wrong setting stops the start', async () => {
  const server = await start({ isDemo: false });
  const device = await Device.guest(() => server.address);
  expect((await device.ask('GET', '/mail')).body).toMatchObject({ isPossible: false, isStandIn: false });
  expect(mailOptionsFrom({})).toBeNull();
  expect(mailOptionsFrom({ IMMELD_SMTP_URL: 'smtps://a:b@mail.example', IMMELD_MAIL_FROM: 'a@b.example' })).toEqual({
    ...{ url: 'smtps://a:b@mail.example', from: 'a@b.example' },
  });
  expect(() => mailOptionsFrom({ IMMELD_SMTP_URL: 'mail.example' })).toThrow('IMMELD_SMTP_URL');
  expect(() => mailOptionsFrom({ IMMELD_SMTP_URL: 'smtp://mail.example' })).toThrow('IMMELD_MAIL_FROM');
});
