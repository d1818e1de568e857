import fs from 'node:fs';
import type { Corrected, Version, VersionText } from '@immeld/core/contract/corrections';
import type { FindResult } from '@immeld/core/contract/find';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import type { Recording } from '@immeld/core/contract/recordings';
import { joinPassages, splitPassage } from '@immeld/core/transcript/edit';
import type { Passage } from '@immeld/core/transcript/manuscript';
import type { RunningServer } from '../start';
import {
  ControlledPool,
  SPOKEN,
  askJson,
  startTestServer,
  temporaryFolder,
  until,
  upload,
} from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
let counter = 0;
const pool = new ControlledPool();

beforeAll(async () => {
  server = await startTestServer(dataFolder, pool);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const ask = <T>(method: string, address: string, body?: unknown) => askJson<T>(server, method, address, body);
const get = async (id: string) => (await ask<Recording>('GET', `/recordings/${id}`)).body;
async function recognised(): Promise<Recording> {
  const { recordingId } = await upload(server.address, Buffer.from(`to correct ${counter++}`), 'Walk.webm');
  return until(
    () => get(recordingId),
    (r) => r.state === 'ready',
  );
}
const textOf = (p: { words: readonly { text: string }[] }) => p.words.map((w) => w.text).join(' ');
const correct = (id: string, passage: { id: number; revision: number }, change: object) =>
  ask<Corrected>('PATCH', `/recordings/${id}/passages/${passage.id}`, { revision: passage.revision, ...change });
const rewrite = (id: string, replaced: { id: number; revision: number }[], passages: Passage[]) =>
  ask<Corrected>('PUT', `/recordings/${id}/passages`, {
    replaced: replaced.map((p) => ({ id: p.id, revision: p.revision })),
    passages: passages.map(({ startMs, endMs, speaker, startsParagraph, words }) => ({
      ...{ startMs, endMs, speaker, startsParagraph, words },
    })),
  });
const versions = async (id: string) =>
  (await ask<{ items: Version[] }>('GET', `/recordings/${id}/versions`)).body.items;

describe('a correction', () => {
  it('changes the words, keeps the times of the others, and is found from then on', async () => {
    const { id, passages } = await recognised();
    const [passage] = passages;
    const text = textOf(passage!).replace(passage!.words[1]!.text, 'Zwetschge');
    const { status, body } = await correct(id, passage!, { text });
    expect(status).toBe(200);
    expect(body.passages[0]).toMatchObject({ id: passage!.id, revision: 1 });
    expect(body.passages[0]!.words[1]).toMatchObject({ ...passage!.words[1], text: 'Zwetschge', confidence: 1 });
    expect(body.passages[0]!.words[0]).toEqual(passage!.words[0]);
    expect(textOf((await get(id)).passages[0]!)).toBe(text);
    const found = (await ask<FindResult>('GET', '/find?q=zwetschge')).body;
    expect(found.results.map((r) => r.id)).toEqual([id]);
    // Taken back with the words as they were.
    const undone = await rewrite(id, body.passages, [passage!]);
    expect(undone.body.passages[0]!.words).toEqual(passage!.words);
    expect((await ask<FindResult>('GET', '/find?q=zwetschge')).body.results).toEqual([]);
  });

  it('on a passage that was changed elsewhere is refused with what stands there', async () => {
    const { id, passages } = await recognised();
    await correct(id, passages[0]!, { text: 'from one device' });
    const late = await correct(id, passages[0]!, { text: 'from another device' });
    expect(late.status).toBe(409);
    expect((late.body as unknown as ProblemDetails).detail).toContain('from one device');
    expect(textOf((await get(id)).passages[0]!)).toBe('from one device');
  });

  it('survives a further recognition, which becomes a version to compare with', async () => {
    const { id, passages } = await recognised();
    await correct(id, passages[0]!, { text: 'Corrected by hand.' });
    await ask('POST', `/recordings/${id}/recognition`);
    await until(
      () => versions(id),
      (kept) => kept.some((v) => v.kind === 'again'),
    );
    expect(textOf((await get(id)).passages[0]!)).toBe('Corrected by hand.');
    expect((await versions(id)).map((v) => v.kind).sort()).toEqual(['again', 'recognised']);
  });

  it('refuses what makes no sense, in words', async () => {
    const { id, passages } = await recognised();
    const word = { text: 'x', confidence: 1 };
    const words = [
      { ...word, startMs: 500, endMs: 600 },
      { ...word, startMs: 100, endMs: 200 },
    ];
    const [first, second] = passages;
    expect((await rewrite(id, [first!], [{ ...first!, words }])).status).toBe(400);
    expect((await rewrite(id, [first!], [])).status).toBe(400);
    expect((await rewrite(id, [second!, first!], [first!])).status).toBe(409);
    expect((await correct(id, { id: 999_999, revision: 0 }, { text: 'x' })).status).toBe(409);
    expect((await get(id)).passages).toEqual(passages);
  });
});

describe('splitting and joining', () => {
  it('keeps every word and its time, and gives back what was', async () => {
    const { id, passages } = await recognised();
    const [passage] = passages;
    const parted = (await rewrite(id, [passage!], splitPassage(passage!, 2))).body;
    expect(parted.passages.map((p) => p.words.length)).toEqual([2, passage!.words.length - 2]);
    const now = (await get(id)).passages;
    expect(now).toHaveLength(passages.length + 1);
    expect(now.flatMap((p) => p.words)).toEqual(passages.flatMap((p) => p.words));
    const [first, second] = parted.passages;
    const joined = (await rewrite(id, parted.passages, [joinPassages(first!, second!)])).body;
    expect(joined.removed).toEqual([second!.id]);
    expect((await get(id)).passages.map((p) => p.words)).toEqual(passages.map((p) => p.words));
  });
});

describe('versions', () => {
  it('hold the first text, which can be taken back, and lose nothing by that', async () => {
    const { id, passages } = await recognised();
    expect(await versions(id)).toEqual([]);
    await correct(id, passages[0]!, { text: 'All different now.' });
    const [first] = await versions(id);
    const text = (await ask<VersionText>('GET', `/recordings/${id}/versions/${first!.id}`)).body;
    expect(text.passages.map(textOf)).toEqual(passages.map(textOf));
    const taken = (await ask<Recording>('POST', `/recordings/${id}/versions/${first!.id}/take`)).body;
    expect(taken.passages.map(textOf)).toEqual(passages.map(textOf));
    const corrected = (await versions(id)).find((v) => v.kind === 'corrected')!;
    const back = (await ask<Recording>('POST', `/recordings/${id}/versions/${corrected.id}/take`)).body;
    expect(textOf(back.passages[0]!)).toBe('All different now.');
  });
});

describe('paragraphs', () => {
  const put = (id: string, change: object) =>
    ask<{ recording: Recording; before: number[] }>('PUT', `/recordings/${id}/paragraphs`, change);
  const begins = (r: Recording) => r.passages.map((p) => p.startsParagraph);

  it('begin by another rule, and as before again, without touching a correction', async () => {
    const { id, passages } = await recognised();
    await correct(id, passages[1]!, { text: 'The limes are very thirsty.' });
    const none = await put(id, { kind: 'one' });
    expect(begins(none.body.recording)).toEqual([true, false]);
    expect(none.body.before).toEqual(passages.map((p) => p.id));
    // There is a second of pause between the two.
    expect(begins((await put(id, { kind: 'pauses', pauseMs: 3000 })).body.recording)).toEqual([true, false]);
    expect(begins((await put(id, { kind: 'pauses', pauseMs: 500 })).body.recording)).toEqual([true, true]);
    await put(id, { kind: 'one' });
    const back = (await put(id, { starts: none.body.before })).body.recording;
    expect(begins(back)).toEqual([true, true]);
    expect(textOf(back.passages[1]!)).toBe('The limes are very thirsty.');
    expect(back.passages[1]!.revision).toBe(1);
  });

  it('need a rule', async () => {
    const { id } = await recognised();
    expect((await put(id, {})).status).toBe(400);
  });
});

describe('a dictation', () => {
  const set = (id: string, isDictation: boolean) => ask<Recording>('PATCH', `/recordings/${id}`, { isDictation });

  it('does the spoken commands, and writes them out again as they were spoken', async () => {
    const { id, passages } = await recognised();
    await correct(id, passages[0]!, { text: 'I need to call Bram comma' });
    const last = (await get(id)).passages[1]!;
    const words = (text: string) =>
      text.split(' ').map((t, i) => ({ ...last.words[0]!, text: t, startMs: 5000 + i, endMs: 5001 + i }));
    const said = {
      ...last,
      words: words('Full stop new paragraph the limes are dry strike that The limes are thirsty'),
    };
    await rewrite(id, [last], [said]);
    const dictated = (await set(id, true)).body;
    expect(dictated.isDictation).toBe(true);
    // What was typed is no command.
    expect(dictated.passages.map(textOf)).toEqual(['I need to call Bram comma.', 'The limes are thirsty']);
    expect(dictated.passages.map((p) => p.startsParagraph)).toEqual([true, true]);
    expect((await versions(id)).map((v) => v.kind).sort()).toEqual(['recognised', 'spoken']);
    const spoken = (await set(id, false)).body;
    expect(spoken.passages.map(textOf)).toEqual(['I need to call Bram comma', textOf(said)]);
  });

  it('obeys only the commands that are switched on, also when it comes in as one', async () => {
    await ask('PATCH', '/settings', { dictationOff: ['comma'] });
    const passage = { ...SPOKEN.passages[0]!, words: 'one comma two full stop'.split(' ').map((text, i) => ({ startMs: i, endMs: i + 1, text, confidence: 1 })) }; // prettier-ignore
    pool.answer = async () => ({ ...SPOKEN, passages: [passage] });
    const { recordingId } = await upload(server.address, Buffer.from(`dictated ${counter++}`), 'x.webm', {
      dictation: '1',
    });
    const { passages, isDictation } = await until(
      () => get(recordingId),
      (r) => r.state === 'ready',
    );
    expect(isDictation).toBe(true);
    expect(passages.map(textOf)).toEqual(['one comma two.']);
    await ask('PATCH', '/settings', { dictationOff: [] });
    pool.answer = new ControlledPool().answer;
  });
});
