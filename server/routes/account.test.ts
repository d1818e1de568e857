import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import type { ChangeEntry, Shelves } from '@immeld/core/contract/shelves';
import type { Account, Session } from '@immeld/core/contract/account';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import type { Recording } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import type { Job } from '@immeld/core/contract/jobs';
import { AccountRow } from '../models/account';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import type { RunningServer } from '../start';
import { Device } from '../testing/device';
import { ControlledPool, SPOKEN, startTestServer, temporaryFolder, until } from '../testing/testServer';

const dataFolder = temporaryFolder();
const pool = new ControlledPool();
let server: RunningServer;

beforeAll(async () => {
  server = await startTestServer(dataFolder, pool, false);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const someone = () => Device.guest(() => server.address);
const password = 'four words in a row';
const address = () => `${randomUUID().slice(0, 8)}@harrowmere.example`;

describe('the first device that comes', () => {
  it('gets what was recorded before there were accounts; the second one does not', async () => {
    expect((await new Device(() => server.address).guest()).id).toBe(FIRST_ACCOUNT);
    expect((await new Device(() => server.address).guest()).id).not.toBe(FIRST_ACCOUNT);
  });
});

describe('a guest', () => {
  it('signs in while something is recognised, and finds it ready in the account', async () => {
    const email = address();
    await (await someone()).ask('POST', '/account', { email, password });
    const usual = pool.answer;
    let goOn = () => undefined as void;
    const until = new Promise<void>((resolve) => (goOn = resolve));
    pool.answer = async (task) => {
      await until;
      return usual(task);
    };
    const phone = await someone();
    const id = await phone.bringIn(`recognised meanwhile ${randomUUID()}`);
    const state = async () => (await phone.ask<Recording>('GET', `/recordings/${id}`)).body.state;
    while ((await state()) !== 'recognising') await new Promise((resolve) => setTimeout(resolve, 20));
    expect((await phone.ask('POST', '/session', { email, password })).status).toBe(200);
    expect(await phone.recordings()).toEqual([id]);
    goOn();
    pool.answer = usual;
    while ((await state()) === 'recognising') await new Promise((resolve) => setTimeout(resolve, 20));
    expect(await state()).toBe('ready');
  });

  it('begins without signing up, and is the same at the next visit', async () => {
    const device = new Device(() => server.address);
    expect((await device.ask('GET', '/recordings')).status).toBe(401);
    const { id, email } = await device.guest();
    expect(email).toBeNull();
    expect((await device.guest()).id).toBe(id);
    expect((await device.ask<Account>('GET', '/account')).body.id).toBe(id);
  });

  it('has a cookie that scripts cannot read and other sites do not send', async () => {
    const made = await new Device(() => server.address).ask('POST', '/session/guest');
    expect(made.headers.get('Set-Cookie')).toMatch(/HttpOnly/);
    expect(made.headers.get('Set-Cookie')).toMatch(/SameSite=Lax/);
  });

  it('keeps everything on signing up, also on another device', async () => {
    const phone = await someone();
    const id = await phone.bringIn('said on the phone');
    const email = address();
    expect(
      (await phone.ask<Account>('POST', '/account', { email: ` ${email.toUpperCase()} `, password })).body.email,
    ).toBe(email);
    const laptop = new Device(() => server.address);
    expect((await laptop.ask('POST', '/session', { email, password })).status).toBe(200);
    expect(await laptop.recordings()).toEqual([id]);
    expect(await phone.recordings()).toEqual([id]);
  });

  it('takes along what was recorded on this device when signing in elsewhere, tags of the same name made one', async () => {
    const phone = await someone();
    const email = address();
    const first = await phone.bringIn('the first one');
    await phone.ask('PATCH', `/recordings/${first}`, { tags: ['limes'] });
    await phone.ask('POST', '/account', { email, password });
    const tablet = await someone();
    const second = await tablet.bringIn('the second one');
    await tablet.ask('PATCH', `/recordings/${second}`, { tags: ['limes', 'quay'] });
    const named = (...names: string[]) => ({ names: names.map((text) => ({ text, soundsLike: [] })) });
    await phone.ask('PATCH', '/settings', named('Okwuosa', 'Reyes'));
    await tablet.ask('PATCH', '/settings', named('Reyes', 'Vantongeren'));
    await tablet.ask('POST', '/session', { email, password });
    const { names } = (await phone.ask<{ names: { text: string }[] }>('GET', '/settings')).body;
    expect(names.map((n) => n.text)).toEqual(['Okwuosa', 'Reyes', 'Vantongeren']);
    expect((await tablet.recordings()).sort()).toEqual([first, second].sort());
    const shelves = await phone.ask<{ tags: { name: string; itemCount: number }[] }>('GET', '/shelves');
    expect(shelves.body.tags).toEqual([
      { name: 'limes', isPinned: false, itemCount: 2 },
      { name: 'quay', isPinned: false, itemCount: 1 },
    ]);
  });

  it('is not signed out into the void', async () => {
    const device = await someone();
    const refused = await device.ask<{ detail: string }>('DELETE', '/session');
    expect(refused.status).toBe(409);
    expect(refused.body.detail).toContain('Add an email address');
  });
});

describe('an account', () => {
  it('keeps its password as argon2id, never as it is', async () => {
    const device = await someone();
    const email = address();
    await device.ask('POST', '/account', { email, password });
    const row = await AccountRow.findOne({ where: { email } });
    expect(row!.passwordHash).toMatch(/^\$argon2id\$v=19\$/);
    expect(row!.passwordHash).not.toContain(password);
  });

  it('says the same of a wrong password and of an unknown address', async () => {
    const device = await someone();
    const email = address();
    await device.ask('POST', '/account', { email, password });
    const wrong = await new Device(() => server.address).ask('POST', '/session', {
      email,
      password: 'not this one at all',
    });
    const unknown = await new Device(() => server.address).ask('POST', '/session', { email: address(), password });
    expect([wrong.status, unknown.status]).toEqual([403, 403]);
    expect(wrong.body).toEqual(unknown.body);
  });

  it('lists its devices and signs them out', async () => {
    const phone = await someone();
    const email = address();
    await phone.ask('POST', '/account', { email, password });
    const laptop = new Device(() => server.address);
    await laptop.ask('POST', '/session', { email, password });
    const { items } = (await phone.ask<{ items: Session[] }>('GET', '/sessions')).body;
    expect(items.map((s) => [s.device, s.isThisOne]).sort()).toEqual([
      ['Firefox, Linux', false],
      ['Firefox, Linux', true],
    ]);
    await phone.ask('DELETE', `/sessions/${items.find((s) => !s.isThisOne)!.id}`);
    expect((await laptop.ask('GET', '/recordings')).status).toBe(401);
    await phone.ask('DELETE', '/session');
    expect((await phone.ask('GET', '/account')).status).toBe(401);
  });

  it.each([
    ['an address that is none', { email: 'tamsin', password }, 'not a valid email address'],
    ['a short password', { email: 'a@b.example', password: 'short' }, 'at least 10 characters'],
  ])('refuses %s', async (_, body, sentence) => {
    const refused = await (await someone()).ask<{ detail: string }>('POST', '/account', body);
    expect(refused.status).toBe(400);
    expect(refused.body.detail).toContain(sentence);
  });

  it('cannot be taken twice', async () => {
    const email = address();
    await (await someone()).ask('POST', '/account', { email, password });
    expect((await (await someone()).ask('POST', '/account', { email, password })).status).toBe(409);
  });
});

describe('another account’s things', () => {
  /** What each parameter of an address may point to, made by somebody else. */
  async function theirs() {
    const owner = await someone();
    const recordingId = await owner.bringIn(`private ${randomUUID()}`);
    for (let i = 0; i < 100; i++) {
      if ((await owner.ask<Recording>('GET', `/recordings/${recordingId}`)).body.state === 'ready') break;
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
    const captureId = randomUUID();
    const slipId = randomUUID();
    const slip = { id: slipId, kind: 'note', startMs: 1, text: 'private' };
    await owner.ask('POST', `/recordings/${recordingId}/slips`, { slips: [slip] });
    pool.answer = () => Promise.reject(new Error('This sound cannot be heard.'));
    const failing = await owner.bringIn(`failing ${randomUUID()}`);
    let job: Job | undefined;
    for (let i = 0; i < 100 && job?.state !== 'failed'; i++) {
      job = (await owner.ask<{ items: Job[] }>('GET', '/jobs')).body.items.find((j) => j.recordingId === failing);
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
    const recording = (await owner.ask<Recording>('GET', `/recordings/${recordingId}`)).body;
    const folder = (await owner.ask<{ id: string }>('POST', '/folders', { name: 'Private' })).body;
    const todo = (await owner.ask<Todo>('POST', '/todos', { text: 'Private' })).body;
    const content = 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR';
    const calendar = (await owner.ask<{ id: string }>('POST', '/calendars', { name: 'Private', content })).body;
    const session = (await owner.ask<{ items: Session[] }>('GET', '/sessions')).body.items[0]!;
    await owner.ask('PATCH', `/recordings/${recordingId}`, { project: 'Private', people: ['Somebody'] });
    const shelves = (await owner.ask<Shelves>('GET', '/shelves')).body;
    const note = (await owner.ask<{ id: string }>('POST', '/notes', { title: 'Private' })).body;
    const deed = (await owner.ask<{ items: ChangeEntry[] }>('GET', '/history')).body.items[0]!;
    const kept = (await owner.ask<{ id: string }>('POST', '/templates', { template: TEMPLATE })).body;
    const sheet = (await owner.ask<{ id: string }>('POST', `/recordings/${recordingId}/sheets`, { template: TEMPLATE }))
      .body;
    const [passage] = recording.passages;
    const replacement = (
      await owner.ask<{ id: string }>('POST', '/replacements', {
        ...{ find: 'call', by: 'ring', matchesCase: false },
        passages: [{ passageId: passage!.id, revision: passage!.revision, indexes: [0] }],
      })
    ).body;
    const png = new Uint8Array(
      Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      ),
    );
    const picture = (await owner.ask<{ id: string }>('POST', `/notes/${note.id}/pictures`, png)).body;
    const recallId = randomUUID();
    await owner.ask('POST', `/recordings/${recordingId}/recall`, { id: recallId, ...QUESTION });
    return {
      owner,
      ids: {
        ...{ recordings: recordingId, captures: captureId, slips: slipId, jobs: job!.id, folders: folder.id },
        ...{ todos: todo.id, calendars: calendar.id, sessions: session.id, 'write-ups': recording.writeUps[0]!.id },
        ...{ replacements: replacement.id, projects: shelves.projects[0]!.id, people: shelves.people[0]!.id },
        ...{ 'note-pictures': picture.id, recall: recallId },
        ...{ notes: note.id, history: deed.id, templates: kept.id, sheets: sheet.id },
      } as Record<string, string>,
    };
  }
  const TEMPLATE = { name: 'Private', sections: [{ content: 'text' }] };
  const PASSAGE = { startMs: 0, endMs: 1, speaker: null, startsParagraph: true, words: [] };
  const QUESTION = { question: 'What?', answer: 'That', startMs: 0, endMs: 1, isOwn: true };
  const BODIES: Partial<Record<keyof typeof ENDPOINTS, unknown>> = {
    ...{ addSlips: { slips: [] }, putPicture: {}, correctPassage: { revision: 0, text: 'x' } },
    ...{ addRecall: { id: randomUUID(), ...QUESTION }, reviewRecall: { rating: 'known' } },
    changeSpeaker: { passageIds: [1], to: 'x' },
    changeParagraphs: { starts: [1] },
    ...{
      makeSheet: { template: TEMPLATE },
      previewWriteUp: { template: TEMPLATE },
      changeSheet: { template: TEMPLATE },
      describeModelRequest: { template: TEMPLATE },
      makeModelSheet: { template: TEMPLATE },
    },
    ...{ addComment: { id: randomUUID(), text: 'x' }, sendDeviceWords: { words: [] } },
    quoteInNote: { recordingId: randomUUID(), startMs: 0, text: 'x' },
    rewritePassages: { replaced: [{ id: 1, revision: 0 }], passages: [PASSAGE] },
  };

  it('are not known by voice', async () => {
    const voice = { frames: 400, sum: new Array<number>(15).fill(0), products: new Array<number>(120).fill(0) };
    for (let i = 0, at = 0; i < 15; at += ++i + 1) voice.products[at] = 400;
    const answer = pool.answer;
    const passage = (speaker: string, startMs: number) => ({
      ...{ ...PASSAGE, speaker, startMs, endMs: startMs + 900 },
      words: [{ startMs, endMs: startMs + 900, text: 'Hello.', confidence: 1 }],
    });
    pool.answer = async () => ({
      ...SPOKEN,
      passages: [passage('Speaker 1', 0), passage('Speaker 2', 1000)],
      voices: [{ speaker: 'Speaker 1', voice }],
    });
    const talk = async (device: Device) => {
      const id = await device.bringIn(`voices ${randomUUID()}`);
      const get = async () => (await device.ask<Recording>('GET', `/recordings/${id}`)).body;
      return until(get, (r) => r.state === 'ready');
    };
    const [owner, other] = [await someone(), await someone()];
    const { id } = await talk(owner);
    await owner.ask('PATCH', `/recordings/${id}/speakers`, { from: 'Speaker 1', to: 'Bram' });
    expect((await talk(owner)).speakers[0]).toMatchObject({ name: 'Speaker 1', proposed: 'Bram' });
    expect((await talk(other)).speakers[0]).toMatchObject({ name: 'Speaker 1', proposed: null });
    pool.answer = answer;
  });

  it('answer 404 on every address that has an id', async () => {
    const { owner, ids } = await theirs();
    const other = await someone();
    const tried: string[] = [];
    for (const [key, { method, path, body }] of Object.entries(ENDPOINTS)) {
      if (!path.includes(':id')) continue;
      const place = path.split('/')[1]!;
      const at = path
        .replace(':id', ids[place]!)
        .replace(':format', 'txt')
        .replace(':passageId', '1')
        .replace(':versionId', ids[place]!)
        .replace(':commentId', ids[place]!)
        .concat(key === 'putSlipFile' ? '?name=x' : '');
      const sent = body ? (BODIES[key as keyof typeof ENDPOINTS] ?? {}) : undefined;
      const answer = await other.ask(method.toUpperCase(), at, sent);
      tried.push(`${key} ${answer.status}`);
    }
    expect(tried.filter((t) => !t.endsWith(' 404'))).toEqual([]);
    expect(tried.length).toBeGreaterThan(15);
    // Nothing of it was changed by trying.
    expect(await owner.recordings()).toContain(ids['recordings']);
  });

  it('keep their ids: nobody else begins something under one, or moves it', async () => {
    const [owner, other] = [await someone(), await someone()];
    for (const [at, part] of [
      ['/notes', { title: 'Mine' }],
      ['/todos', { text: 'Mine' }],
    ] as const) {
      const { id } = (await owner.ask<{ id: string }>('POST', at, part)).body;
      expect((await other.ask('POST', at, { ...part, id })).status).toBe(409);
      expect((await other.ask('PUT', '/todo-order', { places: [{ id, position: -5 }] })).body).toEqual({ count: 0 });
      expect((await other.ask<{ items: unknown[] }>('GET', at)).body.items).toEqual([]);
    }
    const [todo] = (await owner.ask<{ items: { position: number }[] }>('GET', '/todos')).body.items;
    expect(todo!.position).toBeGreaterThan(0);
  });

  it('stand in no list, are found by no word, and belong to no day', async () => {
    pool.answer = new ControlledPool().answer;
    const owner = await someone();
    const id = await owner.bringIn(`secret ${randomUUID()}`);
    await owner.ask('PATCH', `/recordings/${id}`, { title: 'Zanzibar', tags: ['zanzibar'] });
    const other = await someone();
    for (const at of [
      '/recordings',
      '/find?q=zanzibar',
      '/todos?state=all',
      '/shelves',
      '/jobs',
      '/calendars',
      '/days/2026-03-09',
    ]) {
      const said = JSON.stringify((await other.ask('GET', at)).body).replace('"query":"zanzibar"', '');
      expect(said).not.toMatch(/zanzibar|limes/i);
    }
    const today = new Date().toISOString().slice(0, 10);
    expect((await other.ask<{ recordings: unknown[] }>('GET', `/days/${today}`)).body.recordings).toEqual([]);
    expect(JSON.stringify((await owner.ask('GET', '/find?q=zanzibar')).body)).toContain('Zanzibar');
  });

  it('the same sound of two people is two recordings', async () => {
    const [one, two] = [await someone(), await someone()];
    expect(await one.bringIn('the same sound')).not.toBe(await two.bringIn('the same sound'));
  });

  it('an upload of another account can be neither seen nor written', async () => {
    const owner = await someone();
    const tus = { 'Tus-Resumable': '1.0.0' };
    const made = await owner.ask('POST', '/uploads', undefined, { ...tus, 'Upload-Length': '5' });
    const at = new URL(made.headers.get('Location')!, server.address).pathname.replace(/^\/api/, '');
    const other = await someone();
    expect((await other.ask('HEAD', at, undefined, tus)).status).toBe(404);
    const patch = { ...tus, 'Upload-Offset': '0', 'Content-Type': 'application/offset+octet-stream' };
    expect((await other.ask('PATCH', at, new Uint8Array(5), patch)).status).toBe(404);
    expect((await owner.ask('HEAD', at, undefined, tus)).status).toBe(200);
  });
});

it('guessing passwords is slowed down', async () => {
  const statuses: number[] = [];
  for (let i = 0; i < 15; i++) {
    statuses.push(
      (await new Device(() => server.address).ask('POST', '/session', { email: 'a@b.example', password: `guess ${i}` }))
        .status,
    );
  }
  expect(statuses.at(-1)).toBe(429);
});
