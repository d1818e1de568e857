import fs from 'node:fs';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import type { Recording } from '@immeld/core/contract/recordings';
import type { Replaced, Replacement, ReplacementPreview } from '@immeld/core/contract/replacements';
import type { RunningServer } from '../start';
import { ControlledPool, askJson, startTestServer, temporaryFolder, until, upload } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
let counter = 0;

beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const ask = <T>(method: string, address: string, body?: unknown) => askJson<T>(server, method, address, body);
const get = async (id: string) => (await ask<Recording>('GET', `/recordings/${id}`)).body;
async function recognised(): Promise<Recording> {
  const { recordingId } = await upload(server.address, Buffer.from(`to replace ${counter++}`), 'Walk.webm');
  return until(
    () => get(recordingId),
    (r) => r.state === 'ready',
  );
}
const texts = async (id: string) => (await get(id)).passages.map((p) => p.words.map((w) => w.text).join(' '));
const preview = async (body: object) =>
  (await ask<ReplacementPreview>('POST', '/replacements/preview', { matchesCase: false, by: 'lindens', ...body })).body;

/** Everything that the preview shows, as it is sent to be replaced. */
const allOf = ({ recordings }: ReplacementPreview): Replacement['passages'] =>
  recordings.flatMap((r) =>
    r.hits.map(({ passageId, revision, index }) => ({ passageId, revision, indexes: [index] })),
  );
const replace = (passages: Replacement['passages'], find = 'limes') =>
  ask<Replaced>('POST', '/replacements', { find, by: 'lindens', matchesCase: false, passages });

it('shows each place with what would be read there, and changes nothing', async () => {
  const { id } = await recognised();
  const { recordings, isCut } = await preview({ find: 'limes', recordingId: id });
  expect(isCut).toBe(false);
  expect(recordings).toMatchObject([
    {
      recordingId: id,
      title: 'Call Bram',
      hits: [{ before: 'The', found: 'limes', instead: 'lindens', after: 'are thirsty.' }],
    },
  ]);
  expect((await texts(id))[1]).toBe('The limes are thirsty.');
});

it('replaces in a folder only what is in it, and takes it back', async () => {
  const [inside, outside] = [await recognised(), await recognised()];
  const folder = (await ask<{ id: string }>('POST', '/folders', { name: 'Quayside' })).body;
  await ask('PATCH', `/recordings/${inside.id}`, { folderId: folder.id });
  const shown = await preview({ find: 'limes', folderId: folder.id });
  expect(shown.recordings.map((r) => r.recordingId)).toEqual([inside.id]);
  const { body } = await replace(allOf(shown));
  expect(body).toMatchObject({ replaced: 1, skipped: 0 });
  expect((await texts(inside.id))[1]).toBe('The lindens are thirsty.');
  expect((await texts(outside.id))[1]).toBe('The limes are thirsty.');
  // It is found by the new words, no more by the old ones.
  const found = async (q: string) => JSON.stringify((await ask('GET', `/find?q=${q}`)).body);
  expect(await found('lindens')).toContain(inside.id);
  expect(await found('limes')).not.toContain(inside.id);
  const undone = await ask<Replaced>('POST', `/replacements/${body.id}/undo`);
  expect(undone.body).toMatchObject({ replaced: 1, skipped: 0 });
  expect((await get(inside.id)).passages[1]!.words).toEqual(inside.passages[1]!.words);
  expect((await ask('POST', `/replacements/${body.id}/undo`)).status).toBe(404);
});

it('leaves alone what was changed since it was looked at', async () => {
  const [first, second] = [await recognised(), await recognised()];
  const shown = await preview({ find: 'limes' });
  const mine = {
    recordings: shown.recordings.filter((r) => [first.id, second.id].includes(r.recordingId)),
    isCut: false,
  };
  const passage = first.passages[1]!;
  await ask('PATCH', `/recordings/${first.id}/passages/${passage.id}`, { revision: 0, text: 'The limes are wet.' });
  const { body } = await replace(allOf(mine));
  expect(body).toMatchObject({ replaced: 1, skipped: 1 });
  expect((await texts(first.id))[1]).toBe('The limes are wet.');
  expect((await texts(second.id))[1]).toBe('The lindens are thirsty.');
  // Taken back, a passage that was changed again keeps its change.
  const now = (await get(second.id)).passages[1]!;
  await ask('PATCH', `/recordings/${second.id}/passages/${now.id}`, {
    revision: now.revision,
    text: 'The lindens rest.',
  });
  expect((await ask<Replaced>('POST', `/replacements/${body.id}/undo`)).body).toMatchObject({
    replaced: 0,
    skipped: 1,
  });
  expect((await texts(second.id))[1]).toBe('The lindens rest.');
});

it('keeps the text before as a version', async () => {
  const { id } = await recognised();
  await replace(allOf(await preview({ find: 'limes', recordingId: id })));
  const { items } = (await ask<{ items: { kind: string }[] }>('GET', `/recordings/${id}/versions`)).body;
  expect(items.map((v) => v.kind)).toEqual(['recognised']);
});

it('finds no place in what lies in the bin', async () => {
  const { id } = await recognised();
  await ask('PATCH', `/recordings/${id}`, { isBinned: true });
  expect((await preview({ find: 'limes', recordingId: id })).recordings).toEqual([]);
});

it.each([
  ['nothing to look for', { find: ' ', by: 'x', matchesCase: false }, 'Enter the words'],
  ['marks only', { find: '-', by: 'x', matchesCase: false }, 'letters or digits'],
])('refuses %s', async (_, body, sentence) => {
  const refused = await ask<ProblemDetails>('POST', '/replacements/preview', body);
  expect(refused.status).toBe(400);
  expect(refused.body.detail).toContain(sentence);
});

it('takes signs of the query language as words', async () => {
  expect((await preview({ find: '"limes" OR NOT*', by: '' })).recordings).toEqual([]);
});
