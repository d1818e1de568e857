import type { RecallCard, RecallProposal } from '@immeld/core/contract/study';
import type { Recording as View } from '@immeld/core/contract/recordings';
import { GAP } from '@immeld/core/study/recallQuestions';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
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
const pool = new ControlledPool();
const SAID = 'The water that a soil holds against gravity is called the field capacity.';
pool.answer = async () => ({
  ...SPOKEN,
  passages: [
    {
      ...{ startMs: 500, endMs: 8000, speaker: null, startsParagraph: true },
      words: SAID.split(' ').map((text, i) => ({
        startMs: 500 + i * 500,
        endMs: 900 + i * 500,
        text,
        confidence: 0.9,
      })),
    },
  ],
});
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, pool);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});
const ask = <T>(method: string, address: string, body?: unknown) => askJson<T>(server, method, address, body);
type Recall = { items: RecallCard[]; proposals: RecallProposal[] };
let counter = 0;
async function recorded(): Promise<string> {
  const { recordingId } = await upload(server.address, Buffer.from(`a talk ${counter++}`), 'Talk.webm');
  await until(
    async () => (await ask<View>('GET', `/recordings/${recordingId}`)).body,
    (r) => r.state === 'ready',
  );
  return recordingId;
}
const recall = async (id: string) => (await ask<Recall>('GET', `/recordings/${id}/recall`)).body;

test('a question is proposed, kept when it is answered, and comes back later than it was asked', async () => {
  const id = await recorded();
  const [proposal] = (await recall(id)).proposals;
  expect(proposal!.question).toContain(GAP);
  expect(SAID).toContain(proposal!.answer);
  const card = { ...proposal!, id: randomUUID(), isOwn: false };
  expect((await ask('POST', `/recordings/${id}/recall`, card)).status).toBe(200);
  // Sent twice it is one question.
  await ask('POST', `/recordings/${id}/recall`, card);
  const due = async () => (await ask<{ items: { recordingId: string; count: number }[] }>('GET', '/recall-due')).body;
  expect((await due()).items.find((d) => d.recordingId === id)!.count).toBe(1);
  const { body } = await ask<RecallCard>('POST', `/recall/${card.id}/reviews`, { rating: 'easy' });
  expect(Date.parse(body.dueAt) - Date.now()).toBeGreaterThan(24 * 3_600_000);
  expect(body.reviews).toBe(1);
  expect((await due()).items.find((d) => d.recordingId === id)).toBeUndefined();
  expect(await recall(id)).toMatchObject({ items: [{ id: card.id }], proposals: [] });
});

test('a dropped proposal is not made again, and comes back by an undo', async () => {
  const id = await recorded();
  const [proposal] = (await recall(id)).proposals;
  const card = { ...proposal!, id: randomUUID(), isOwn: false, isDropped: true };
  await ask('POST', `/recordings/${id}/recall`, card);
  expect(await recall(id)).toEqual({ items: [], proposals: [] });
  await ask('PATCH', `/recall/${card.id}`, { isBinned: false });
  expect((await recall(id)).items).toHaveLength(1);
});

test('a question of one’s own is written, changed and refused where it is empty', async () => {
  const id = await recorded();
  const own = { id: randomUUID(), question: 'How much?', answer: 'Ten per cent', startMs: 0, endMs: 8000, isOwn: true };
  await ask('POST', `/recordings/${id}/recall`, own);
  const { body } = await ask<RecallCard>('PATCH', `/recall/${own.id}`, { answer: 'A quarter' });
  expect(body).toMatchObject({ question: 'How much?', answer: 'A quarter', isOwn: true });
  const empty = await ask<{ detail: string }>('POST', `/recordings/${id}/recall`, {
    ...own,
    id: randomUUID(),
    answer: ' ',
  });
  expect(empty).toMatchObject({ status: 400, body: { detail: 'Write the answer first.' } });
  expect((await ask('POST', `/recall/${own.id}/reviews`, { rating: 'perhaps' })).status).toBe(400);
  expect((await ask('POST', `/recall/${randomUUID()}/reviews`, { rating: 'known' })).status).toBe(404);
});
