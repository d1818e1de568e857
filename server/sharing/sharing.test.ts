import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import type { Note } from '@immeld/core/contract/notes';
import type { ShareLink } from '@immeld/core/contract/shareLinks';
import { asAccount } from '../accounts/currentAccount';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { Recording } from '../models/recording';
import { ShareLinkRow } from '../models/shareLink';
import { SlipRow } from '../models/slip';
import { projectRoot } from '../projectRoot';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';
import { Visits } from './visits';

const dataFolder = temporaryFolder();
let server: RunningServer;
let quay: string;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
  quay = await say({ title: 'The <quay>', text: 'The limes need water. It is said softly.' });
  const sound = path.join(projectRoot(), 'demo', 'sound', 'lecture.m4a');
  const copy = path.join(dataFolder, 'sound', 'quay.m4a');
  fs.copyFileSync(sound, copy);
  // More than the buffers between server and listener take at once: a sound that is on its way can be cut off.
  fs.appendFileSync(copy, Buffer.alloc(32 * 1024 ** 2));
  await Recording.update({ soundFile: 'quay.m4a', mediaType: 'audio/mp4' }, { where: { id: quay } });
  await asAccount(FIRST_ACCOUNT, () =>
    SlipRow.create({
      ...{ id: randomUUID(), recordingId: quay, kind: 'note', mark: null, startMs: 300, endMs: null },
      ...{ text: 'Between us', pictureFile: null, binnedAt: null },
    }),
  );
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const made = async (more = {}) => {
  const body = { item: { kind: 'recording', id: quay }, ...more };
  const answer = await askJson<ShareLink>(server, 'POST', '/share-links', body);
  expect(answer.status).toBe(200);
  return answer.body;
};
const open = (link: { path: string }, cookie = '', below = '') =>
  fetch(`${server.address}${link.path}${below}`, { headers: cookie ? { cookie } : {}, redirect: 'manual' });
const cookieOf = (response: Response) => response.headers.get('set-cookie')?.split(';')[0] ?? '';
const enter = (link: ShareLink, password: string) =>
  fetch(`${server.address}${link.path}`, {
    method: 'POST',
    body: new URLSearchParams({ password }),
    redirect: 'manual',
  });

it('shows the words and nothing more, safely, hidden from search engines', async () => {
  const link = await made();
  expect(link.path).toMatch(/^\/s\/[A-Za-z0-9_-]{22}$/);
  const page = await open(link);
  const html = await page.text();
  expect(html).toContain('<h1 dir="auto">The &lt;quay&gt;</h1>');
  expect(html).toContain('The limes need water.');
  expect(html).not.toContain('Between us');
  expect(html).not.toContain('<audio');
  expect(html).toContain('<meta name="robots" content="noindex, nofollow">');
  expect(page.headers.get('x-robots-tag')).toBe('noindex, nofollow');
  expect(page.headers.get('content-security-policy')).toMatch(/^default-src 'none'/);
  expect(page.headers.get('cache-control')).toBe('no-store');
  // No style, script or handler stands in the page itself.
  expect(html).not.toMatch(/<style|style=|<script>|\son\w+=/);
  expect((await open(link, cookieOf(page), '/sound')).status).toBe(404);
  const listed = await open(await made({ isListed: true }));
  expect([listed.headers.get('x-robots-tag'), (await listed.text()).includes('robots')]).toEqual([null, false]);
});

it('has the margin where it is wanted, and the sound by ranges, with the time of each word', async () => {
  const link = await made({ withSound: true, withSlips: true });
  const page = await open(link);
  const html = await page.text();
  expect(html).toContain('Between us');
  expect(html).toMatch(/ <span data-ms="300">limes<\/span>/);
  const cookie = cookieOf(page);
  // Without having opened the page nobody gets the sound.
  expect((await open(link, '', '/sound')).status).toBe(404);
  const part = await fetch(`${server.address}${link.path}/sound`, { headers: { cookie, range: 'bytes=100-199' } });
  expect([part.status, part.headers.get('content-type'), (await part.arrayBuffer()).byteLength]).toEqual([
    206,
    'audio/mp4',
    100,
  ]);
});

it('is stopped at once, also a sound on its way; others do not notice', async () => {
  const [link, other] = [await made({ withSound: true }), await made()];
  const cookie = cookieOf(await open(link));
  const { port } = new URL(server.address);
  // A listener that reads slowly, so that most of it is still to come.
  const cutOff = new Promise<boolean>((resolve) => {
    http.get({ port, path: `${link.path}/sound`, headers: { cookie } }, (response) => {
      response.pause();
      response.once('aborted', () => resolve(true)).once('error', () => resolve(true));
      void askJson(server, 'PATCH', `/share-links/${link.id}`, { isStopped: true }).then(() => response.resume());
      response.once('end', () => resolve(false));
    });
  });
  expect(await cutOff).toBe(true);
  expect((await open(link, cookie)).status).toBe(404);
  expect((await open(link, cookie, '/open')).status).toBe(404);
  expect((await open(other)).status).toBe(200);
  const { body } = await askJson<{ items: ShareLink[] }>(server, 'GET', '/share-links');
  expect(body.items.find((l) => l.id === link.id)).toMatchObject({ isStopped: true, openings: 1, title: 'The <quay>' });
});

it('opens as often as it may and no more, also when many come at once; a visit is one opening', async () => {
  const once = await made({ mostOpenings: 1 });
  const first = await open(once);
  const second = await open(once);
  expect([first.status, second.status]).toEqual([200, 404]);
  expect(await second.text()).toContain('turned off or has expired');
  expect((await open(once, cookieOf(first))).status).toBe(200);
  const five = await made({ mostOpenings: 5 });
  const all = await Promise.all(Array.from({ length: 20 }, () => open(five)));
  expect(all.filter((r) => r.status === 200)).toHaveLength(5);
});

it('opens until the end of its last day, and not once what it shows is in the bin', async () => {
  const link = await made({ lastDay: '2020-01-01' });
  expect((await open(link)).status).toBe(404);
  expect((await open(await made({ lastDay: '2999-01-01' }))).status).toBe(200);
  const { body: note } = await askJson<Note>(server, 'POST', '/notes', { title: 'Alone' });
  const item = { kind: 'note', id: note.id };
  const ofNote = (await askJson<ShareLink>(server, 'POST', '/share-links', { item, withSound: true })).body;
  expect(await (await open(ofNote)).text()).toContain('Alone');
  expect(ofNote.withSound).toBe(false);
  await askJson(server, 'PATCH', `/notes/${note.id}`, { isBinned: true });
  expect((await open(ofNote)).status).toBe(404);
});

it('tells nothing about what is not there', async () => {
  const bodies = await Promise.all(
    ['A'.repeat(22), 'x', '..%2f..', 'A'.repeat(5000)].map(async (token) => {
      const response = await fetch(`${server.address}/s/${token}`);
      return [response.status, (await response.text()).includes('This link is not available')];
    }),
  );
  expect(bodies.slice(0, 3)).toEqual(bodies.slice(0, 3).map(() => [404, true]));
  const none = { item: { kind: 'recording', id: randomUUID() } };
  expect((await askJson(server, 'POST', '/share-links', none)).status).toBe(404);
  expect((await askJson(server, 'POST', '/share-links', { ...none, password: 'short' })).status).toBe(400);
});

it('gives its address as a picture that a phone reads', async () => {
  const link = await made();
  const response = await fetch(`${server.address}/api/share-links/${link.id}/qr`);
  expect(response.headers.get('content-type')).toContain('image/svg+xml');
  expect(await response.text()).toMatch(/^<svg /);
});

it('lets wrong passwords be tried again after a quarter of an hour, and visits end', () => {
  const visits = new Visits();
  for (let i = 0; i < 20; i++) visits.wasWrong('a', 1000);
  expect([visits.mayTry('a', 2000), visits.mayTry('b', 2000), visits.mayTry('a', 1000 + 16 * 60_000)]).toEqual([
    false,
    true,
    true,
  ]);
  const visit = visits.begin('a', 0);
  expect([visits.isIn(visit, 'a', 1), visits.isIn(visit, 'b', 1), visits.isIn(visit, 'a', 13 * 3_600_000)]).toEqual([
    true,
    false,
    false,
  ]);
  visits.end('a');
  expect(visits.isIn(visit, 'a', 1)).toBe(false);
});

// Last, as it uses up what one address may ask for in a minute.
it('asks for its password, which nobody finds by trying a thousand times', async () => {
  const link = await made({ password: 'soft limes', withSound: true });
  const asked = await (await open(link)).text();
  expect(asked).toContain('Password needed');
  expect(asked).not.toContain('water');
  expect((await open(link, '', '/sound')).status).toBe(404);
  const right = await enter(link, 'soft limes');
  expect([right.status, right.headers.get('location')]).toEqual([303, link.path]);
  expect(await (await open(link, cookieOf(right))).text()).toContain('water.');
  const answers = new Map<number, number>();
  for (let i = 0; i < 1000; i++) {
    const { status } = await enter(link, `guess ${i}`);
    answers.set(status, (answers.get(status) ?? 0) + 1);
  }
  expect(answers.get(403)).toBe(20);
  expect(answers.get(429)).toBe(980);
  // Not even the right one is heard then.
  expect((await enter(link, 'soft limes')).status).toBe(429);
  const row = await ShareLinkRow.findByPk(link.id);
  expect(row!.passwordHash).toMatch(/^\$argon2id\$/);
}, 60_000);
