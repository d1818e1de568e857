import fs from 'node:fs';
import { randomUUID } from 'node:crypto';
import type { FindResult, FoundAnswer, Related } from '@immeld/core/contract/find';
import type { Meaning } from '@immeld/core/contract/meanings';
import type { Note } from '@immeld/core/contract/notes';
import type { Folder } from '@immeld/core/contract/shelves';
import type { RunningServer } from '../start';
import { indexWords } from '../find/vocabulary';
import { PassageRow } from '../models/passage';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
const ids: Record<string, string> = {};

const send = async <T>(method: string, address: string, body?: unknown) =>
  (await askJson<T>(server, method, address, body)).body;
const find = (q: string) => send<FindResult>('GET', `/find?q=${encodeURIComponent(q)}`);
const found = async (q: string) => (await find(q)).results.map((r) => r.id);
const ask = (q: string) => send<FoundAnswer>('GET', `/ask?today=2026-03-12&q=${encodeURIComponent(q)}`);

beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
  ids['quay'] = await say({
    title: 'Walk the quay',
    startedAt: '2026-03-10T09:00:00',
    text: 'The gas pipe is closer to the wall. I will send the new drawing by Wednesday. The roots need one metre of good soil.',
  });
  ids['soil'] = await say({
    title: 'Infiltration',
    startedAt: '2026-02-03T18:30:00',
    source: 'import',
    text: 'Infiltration is how fast water gets in. Put it into the data base at half past two. A loam holds twenty five per cent.',
  });
  ids['home'] = await say({
    title: 'Evening',
    startedAt: '2026-03-11T21:00:00',
    text: 'Mother called. I meet her at the station on Saturday at eleven.',
  });
  await send('PATCH', `/recordings/${ids['quay']}`, {
    tags: ['field work'],
    people: ['Bram Vantongeren'],
    isFiled: true,
  });
  const outer = await send<Folder>('POST', '/folders', { name: 'Study' });
  const inner = await send<Folder>('POST', '/folders', { name: 'Soil course', parentId: outer.id });
  await send('PATCH', `/recordings/${ids['soil']}`, { folderId: inner.id, isFiled: true });
  await send('POST', '/todos', { text: 'Sharpen the spade', recordingId: ids['quay'], startMs: 0 });
  const slip = { id: randomUUID(), kind: 'note', startMs: 500, text: 'Ask who owns the crane' };
  await send('POST', `/recordings/${ids['quay']}/slips`, { slips: [slip] });
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

describe('finding', () => {
  it.each([
    ['a title', 'walk', 'quay'],
    ['what was said, in another form', 'pipes', 'quay'],
    ['as it is said', 'half past two', 'soil'],
    ['as it is written', '2:30', 'soil'],
    ['a slip', 'crane', 'quay'],
    ['a to-do', 'spade', 'quay'],
    ['a tag', 'field', 'quay'],
    ['a person', 'Vantongeren', 'quay'],
    ['one slip of the fingers', 'infitration', 'soil'],
    ['two words that are one', 'database', 'soil'],
    ['the beginning of the last word', 'gas pi', 'quay'],
    ['a word with a mark over a letter', 'Évening', 'home'],
  ])('finds by %s', async (_, q, id) => expect(await found(q)).toContain(ids[id]));

  // In so many places stand the beginnings of words that were typed half in a large archive.
  it.each([2000, 20_000])('finds names and what was said while one types, beginnings in %s places', async (places) => {
    const begins = jest.spyOn(await indexWords(PassageRow.sequelize!), 'placesBeginning').mockReturnValue(places);
    expect(await found('w')).toEqual(expect.arrayContaining([ids['quay'], ids['soil']]));
    expect(await found('sp')).toEqual([ids['quay']]);
    expect(await found('zz')).toEqual([]);
    begins.mockRestore();
  });

  it('finds one word that was heard as two, and two as one', async () => {
    const id = await say({ text: 'The watermain is old.' });
    expect(await found('water main')).toContain(id);
  });

  it('says what it looked for instead', async () => {
    expect((await find('infitration')).instead).toEqual([{ word: 'infitration', others: ['infiltration'] }]);
    expect((await find('infiltration')).instead).toEqual([]);
  });

  it.each([
    ['person:Bram', ['quay']],
    ['person:"Bram Vantongeren" pipe', ['quay']],
    ['tag:"field work"', ['quay']],
    ['in:study loam', ['soil']],
    ['in:"Soil course"', ['soil']],
    ['before:2026-03 -watermain in:Study', ['soil']],
    ['after:2026-03-11 mother', ['home']],
    ['has:todo', ['quay']],
    ['has:note', ['quay']],
    ['person:Nobody', []],
    ['roots -soil', []],
    ['"good soil" roots', ['quay']],
    ['"soil good"', []],
  ])('%s', async (q, expected) => {
    expect((await found(q)).sort()).toEqual(expected.map((e) => ids[e]!).sort());
  });

  it.each([
    '?!,.;',
    '"',
    '((((',
    'NEAR/2 * ^',
    "'; DROP TABLE places; --",
    'owner : x OR text : y',
    '-',
    '\u0000',
    'x'.repeat(4990),
    'a '.repeat(2400),
  ])('takes anything that is typed: %s', async (q) => {
    const { status } = await askJson(server, 'GET', `/find?q=${encodeURIComponent(q)}`);
    expect(status).toBe(200);
    expect(await found('pipe')).toEqual([ids['quay']]);
  });

  it('refuses more than 5,000 characters in a sentence', async () => {
    expect(await send('GET', `/find?q=${'x'.repeat(5001)}`)).toMatchObject({
      detail: 'The search may have at most 5,000 characters.',
    });
  });

  it('follows what is changed', async () => {
    const id = await say({ text: 'A kestrel over the lock.' });
    expect(await found('kestrel')).toEqual([id]);
    await PassageRow.update({ text: 'A falcon over the lock.' }, { where: { recordingId: id } });
    expect([await found('kestrel'), await found('falcon')]).toEqual([[], [id]]);
    await send('PATCH', `/recordings/${id}`, { title: 'Heron' });
    expect(await found('heron')).toEqual([id]);
    await send('PATCH', `/recordings/${id}`, { isBinned: true });
    expect(await found('heron')).toEqual([]);
  });

  it('finds notes by title and words', async () => {
    const body = {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Thistles behind the shed' }] }],
    };
    const note = await send<Note>('POST', '/notes', { title: 'Weeds', body });
    expect((await find('thistle')).results).toMatchObject([{ kind: 'note', id: note.id, title: 'Weeds' }]);
    expect(await found('weeds')).toEqual([note.id]);
  });
});

describe('asking', () => {
  it('answers with sentences that were said, and the moment of each', async () => {
    const answer = await ask('Where is the gas pipe?');
    expect(answer).toMatchObject({
      kind: 'where',
      quotes: expect.anything(),
    });
    expect(answer.quotes[0]).toMatchObject({
      ...{ id: ids['quay'], text: 'The gas pipe is closer to the wall.', startMs: 0 },
    });
  });

  it('lifts out the time that was asked for, and says which day that is', async () => {
    const [quote] = (await ask('When do I meet my mother?')).quotes;
    expect(quote).toMatchObject({ id: ids['home'], lifted: 'on Saturday at 11', due: '2026-03-14T11:00' });
  });

  it('lists what was promised', async () => {
    const { kind, quotes } = await ask('What have I promised Bram?');
    expect([kind, quotes.map((q) => q.text)]).toEqual(['promise', ['I will send the new drawing by Wednesday.']]);
  });

  it('puts a period together by day', async () => {
    const { kind, digest } = await ask('What did I do this week?');
    expect(kind).toBe('digest');
    expect(digest.map((d) => d.date)).toEqual(expect.arrayContaining(['2026-03-10', '2026-03-11']));
    expect(digest.flatMap((d) => d.projects.flatMap((p) => p.recordings.map((r) => r.id)))).toContain(ids['home']);
  });

  it('says nothing where nothing was said, and takes words that are no question for what they are', async () => {
    expect(await ask('What does a bicycle cost?')).toMatchObject({ kind: 'count', quotes: [], digest: [] });
    expect(await ask('gas pipe')).toMatchObject({ kind: null, quotes: [] });
    for (const q of ['?', '???', 'why?', `what ${'is '.repeat(1500)}?`]) expect((await ask(q)).quotes).toEqual([]);
  });

  it('makes nothing up: every sentence of an answer stands in the archive', async () => {
    const said = (await PassageRow.findAll()).map((p) => p.written);
    const told: string[] = [];
    for (const q of ['Who called?', 'What is infiltration?', 'How much does a loam hold?', 'What do the roots need?']) {
      const { quotes, nearest } = await ask(q);
      told.push(...[...quotes, ...nearest].map(({ text }) => text));
    }
    expect(told).not.toEqual([]);
    expect(told.filter((text) => !said.some((s) => s.includes(text)))).toEqual([]);
  });
});

it('puts related recordings beside one, with the reason', async () => {
  const other = await say({
    title: 'More of the quay',
    text: 'The roots of the limes reach the gas pipe by the wall.',
  });
  const { items } = await send<{ items: Related[] }>('GET', `/recordings/${ids['quay']}/related`);
  expect(items.find((i) => i.id === other)!.reason).toMatch(/^both mention /);
});

it('a word has the meaning that its surroundings speak for, and one’s own before it', async () => {
  const meaningOf = (word: string, context = '') =>
    send<Meaning>('GET', `/meanings?${new URLSearchParams({ word, context }).toString()}`);
  const soil = await meaningOf('infiltration', 'Rainwater goes through the soil.');
  expect(soil.senses[soil.likeliest]!.meaning).toMatch(/slow passage of a liquid/);
  expect(soil.own).toBeNull();
  await send('PATCH', '/settings', { glossary: [{ term: 'Loams', meaning: 'what grows trees' }] });
  expect((await meaningOf('loam')).own).toBe('what grows trees');
  // Words that carry no topic have nothing in common with each other.
  await send('PATCH', '/settings', { glossary: [{ term: 'the', meaning: 'an article' }] });
  expect([(await meaningOf('of')).own, (await meaningOf('The')).own]).toEqual([null, 'an article']);
  expect(await meaningOf('glorp')).toMatchObject({ senses: [], likeliest: 0 });
  expect((await askJson(server, 'GET', `/meanings?word=${'a'.repeat(90)}`)).status).toBe(400);
});
