import fs from 'node:fs';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import type { Recording } from '@immeld/core/contract/recordings';
import type { StoredVoice } from '@immeld/core/speech/speakers/voiceStatistics';
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
let server: RunningServer;
let counter = 0;

/** A voice whose fifteen values lie around a mean, each with variance 1. */
function voiceAround(mean: number): StoredVoice {
  const frames = 500;
  const products: number[] = [];
  for (let i = 0; i < 15; i++) for (let j = 0; j <= i; j++) products.push(frames * (mean * mean + (i === j ? 1 : 0)));
  return { frames, sum: new Array<number>(15).fill(frames * mean), products };
}

/** Four passages of four seconds; 1, 3 and 4 by one voice, 2 by another. */
const TALK = {
  ...SPOKEN,
  passages: ['Speaker 1', 'Speaker 2', 'Speaker 1', 'Speaker 1'].map((speaker, i) => ({
    ...{ startMs: i * 5000, endMs: i * 5000 + 4000, speaker, startsParagraph: true },
    words: [
      { startMs: i * 5000, endMs: i * 5000 + 1000, text: `Sentence${i}`, confidence: 0.9 },
      { startMs: i * 5000 + 3000, endMs: i * 5000 + 4000, text: 'ends.', confidence: 0.9 },
    ],
  })),
  voices: [
    { speaker: 'Speaker 1', voice: voiceAround(0) },
    { speaker: 'Speaker 2', voice: voiceAround(6) },
  ],
};

beforeAll(async () => {
  pool.answer = async () => TALK;
  server = await startTestServer(dataFolder, pool);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const ask = <T>(method: string, address: string, body?: unknown) => askJson<T>(server, method, address, body);
const get = async (id: string) => (await ask<Recording>('GET', `/recordings/${id}`)).body;
async function talk(): Promise<Recording> {
  const { recordingId } = await upload(server.address, Buffer.from(`a talk ${counter++}`), 'Talk.webm');
  return until(
    () => get(recordingId),
    (r) => r.state === 'ready',
  );
}
type Changed = { recording: Recording; changed: number[] };
const give = (id: string, change: object) =>
  ask<Changed & ProblemDetails>('PATCH', `/recordings/${id}/speakers`, change);
const speakers = (r: Recording) => r.passages.map((p) => p.speaker);

test('who speaks, for how long, and nobody is guessed before anybody is named', async () => {
  const recording = await talk();
  expect(recording.speakers).toEqual([
    { name: 'Speaker 1', speakingMs: 6000, proposed: null },
    { name: 'Speaker 2', speakingMs: 2000, proposed: null },
  ]);
});

test('named once it is everywhere, it can be taken back, and then nobody is known by it', async () => {
  const { id } = await talk();
  const { status, body } = await give(id, { from: 'Speaker 1', to: '  Bram <b>V.</b> ' });
  expect(status).toBe(200);
  const name = 'Bram <b>V.</b>';
  expect(speakers(body.recording)).toEqual([name, 'Speaker 2', name, name]);
  expect((await talk()).speakers.map((s) => s.proposed)).toEqual([name, null]);
  const back = await give(id, { passageIds: body.changed, to: 'Speaker 1' });
  expect(speakers(back.body.recording)).toEqual(['Speaker 1', 'Speaker 2', 'Speaker 1', 'Speaker 1']);
  expect((await talk()).speakers.map((s) => s.proposed)).toEqual([null, null]);
});

test('a voice that was named is proposed in pencil where it is heard again, and not twice', async () => {
  const first = await talk();
  await give(first.id, { from: 'Speaker 2', to: 'Jun' });
  const second = await talk();
  expect(second.speakers.map((s) => s.proposed)).toEqual([null, 'Jun']);
  const { body } = await give(second.id, { passageIds: [second.passages[3]!.id], to: 'Jun' });
  // Jun speaks here already: the other voice is somebody else, or is joined by hand.
  expect(body.recording.speakers.map((s) => s.proposed)).toEqual([null, null, null]);
});

test('two are joined; one passage goes to another; the text that was given by hand survives a new recognition', async () => {
  const { id, passages } = await talk();
  await give(id, { from: 'Speaker 1', to: 'Otti' });
  const joined = await give(id, { from: 'Speaker 2', to: 'Otti' });
  expect(speakers(joined.body.recording)).toEqual(['Otti', 'Otti', 'Otti', 'Otti']);
  await give(id, { passageIds: [passages[2]!.id], to: 'Jun' });
  await ask('POST', `/recordings/${id}/recognition`);
  await until(
    () => get(id),
    (r) => r.state === 'ready',
  );
  expect(speakers(await get(id))).toEqual(['Otti', 'Otti', 'Jun', 'Otti']);
});

test('recognised again, whoever had a name keeps it', async () => {
  const { id } = await talk();
  await give(id, { from: 'Speaker 1', to: 'Petra' });
  const turned: Record<string, string> = { 'Speaker 1': 'Speaker 2', 'Speaker 2': 'Speaker 1' };
  const promise = "I'll send the plan.".split(' ').map((text, i) => {
    const startMs = 10_000 + i * 1000;
    return { startMs, endMs: startMs + 900, text, confidence: 0.9 };
  });
  // Whoever recognises knows nobody by name.
  const todo = {
    text: 'Send the plan',
    who: 'Speaker 2',
    due: null,
    repeat: null,
    project: null,
    quote: 'x',
    startMs: 0,
  };
  pool.answer = async () => ({
    ...TALK,
    passages: TALK.passages.map((p, i) => ({
      ...p,
      speaker: turned[p.speaker]!,
      ...(i === 2 ? { words: promise } : {}),
    })),
    proposals: { ...TALK.proposals, todos: [todo] },
    voices: TALK.voices.map((v) => ({ ...v, speaker: turned[v.speaker]! })),
  });
  const again = await ask('POST', `/recordings/${id}/recognition`);
  expect(again.status).toBeLessThan(300);
  const recording = await until(
    () => get(id),
    (r) => r.state === 'ready' && r.passages[1]!.speaker === 'Speaker 1',
  );
  expect(speakers(recording)).toEqual(['Petra', 'Speaker 1', 'Petra', 'Petra']);
  expect(recording.todos.map(({ text, who }) => [text, who])).toEqual([['Send the plan', 'Petra']]);
  pool.answer = async () => TALK;
});

test('what cannot be done is said', async () => {
  const { id } = await talk();
  expect((await give(id, { to: 'Jun' })).body.detail).toMatch(/Choose a speaker/);
  expect((await give(id, { from: 'Speaker 1', to: ' ' })).body.detail).toMatch(/Enter a name/);
  expect((await give(id, { from: 'Speaker 9', to: 'Jun' })).status).toBe(404);
  expect((await give(id, { from: 'Speaker 1', to: 'x'.repeat(61) })).status).toBe(400);
});
