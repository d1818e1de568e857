import type { LanguageModel, ModelLine, ModelRequest } from '@immeld/core/contract/languageModel';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import express, { type RequestHandler } from 'express';
import fs from 'node:fs';
import type http from 'node:http';
import type { AddressInfo } from 'node:net';
import { STAND_IN_MODEL, standInLanguageModel } from '../standIns/languageModel';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';

const dataFolder = temporaryFolder();
const template = {
  name: 'Minutes',
  sections: [
    { heading: 'Decisions', content: 'decisions' },
    { heading: 'Open', content: 'questions' },
  ],
};
let server: RunningServer;
let model: http.Server;
let modelAddress = '';
let recordingId = '';
/** What the model is to do instead of answering as the stand-in does. */
let misbehave: RequestHandler | null = null;
const seen: { authorization?: string; body: string }[] = [];

beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
  const application = express();
  application.use((request, response, next) => {
    const { authorization } = request.headers;
    seen.push({ ...(authorization ? { authorization } : {}), body: '' });
    return misbehave ? misbehave(request, response, next) : next();
  });
  application.use(standInLanguageModel());
  model = application.listen(0, '127.0.0.1');
  await new Promise((resolve) => model.once('listening', resolve));
  modelAddress = `http://127.0.0.1:${(model.address() as AddressInfo).port}${STAND_IN_MODEL}`;
  recordingId = await say({ text: 'We decided to plant twelve limes. Who pays for the soil?', speaker: 'Bram' });
});
afterAll(async () => {
  model.closeAllConnections();
  model.close();
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});
beforeEach(() => (misbehave = null));

const change = (body: object) => askJson<LanguageModel & ProblemDetails>(server, 'PATCH', '/language-model', body);
const trial = () => askJson<{ answer: string } & ProblemDetails>(server, 'POST', '/language-model/trial', {});
const make = async () => {
  const response = await fetch(`${server.address}/api/recordings/${recordingId}/model-sheets`, {
    ...{ method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ template }) },
  });
  const text = await response.text();
  if (!response.ok) return { status: response.status, detail: (JSON.parse(text) as ProblemDetails).detail, lines: [] };
  return {
    status: response.status,
    lines: text
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as ModelLine),
  };
};

it('is off to begin with, and its token is never told', async () => {
  const { body } = await askJson<LanguageModel>(server, 'GET', '/language-model');
  expect(body).toMatchObject({ isOn: false, address: '', hasToken: false, hasAgreed: false });
  expect((await make()).status).toBe(400);
  expect((await change({ isOn: true })).body.detail).toContain('of your language model first');
  expect((await change({ address: 'ftp://x' })).status).toBe(400);
  const changed = await change({ address: modelAddress, token: 'secret-token', model: 'stand-in', isOn: true });
  expect(changed.body).toMatchObject({ isOn: true, hasToken: true, isStandIn: true });
  expect(JSON.stringify(changed.body)).not.toContain('secret-token');
  expect((await trial()).body.answer).toContain('stand-in');
  expect(seen.at(-1)!.authorization).toBe('Bearer secret-token');
});

it('sends nothing before the person has seen what is sent, and then just that', async () => {
  expect((await make()).detail).toContain('Review what will be sent');
  const { body } = await askJson<ModelRequest>(server, 'POST', `/recordings/${recordingId}/model-request`, {
    template,
  });
  expect(body).toMatchObject({ address: modelAddress, sentences: 2, sentencesSent: 2 });
  expect(body.messages.map((m) => m.content).join(' ')).toContain('[1] (0:00, Bram) We decided to plant twelve limes.');
  expect(JSON.stringify(body)).not.toContain('secret-token');
  expect((await change({ hasAgreed: true })).body.hasAgreed).toBe(true);
  // Another address has to be agreed to anew.
  expect((await change({ address: `${modelAddress}/` })).body.hasAgreed).toBe(false);
  await change({ address: modelAddress });
  await change({ hasAgreed: true });
});

it('writes a write-up word by word, whose lines lead to their moments; what rests on nothing is marked', async () => {
  const { lines } = await make();
  expect(lines.length).toBeGreaterThan(5);
  expect(lines[0]!.text).toBeTruthy();
  const { sheet, problem } = lines.at(-1)!;
  expect(problem).toBeUndefined();
  expect(sheet!.isByModel).toBe(true);
  const written = sheet!.sections.flatMap((s) => s.groups.flatMap((g) => g.lines));
  expect(written.filter((l) => l.isUncited).map((l) => l.text)).toEqual(['The stand-in wrote this sentence itself.']);
  expect(written.find((l) => l.text.startsWith('We decided'))!.startMs).toBe(0);
});

it.each<[string, RequestHandler, RegExp]>([
  ['refuses the token', (_, r) => void r.status(401).end(), /rejected the token/],
  ['is not there', (_, r) => void r.status(404).end(), /not belong to a language model|no language model/],
  ['is asked too often', (_, r) => void r.status(429).end(), /too many requests/],
  ['has an error', (_, r) => void r.status(500).end(), /error 500/],
  ['writes nonsense', (_, r) => void r.type('text/event-stream').end('data: {nonsense\n\n'), /could not be read/],
  [
    'is no model',
    (_, r) => void r.type('html').end('<p>Hello</p>'),
    /not belong to a language model|no language model/,
  ],
  ['hangs up', (_, r) => void r.destroy(), /cannot be reached/],
  ['writes nothing', (_, r) => void r.type('text/event-stream').end('data: [DONE]\n\n'), /could not be used/],
])('one that %s: the built-in way makes the write-up, and it is said why', async (_, handler, sentence) => {
  misbehave = handler;
  const { sheet, problem } = (await make()).lines.at(-1)!;
  expect(problem).toMatch(sentence);
  expect(sheet).toMatchObject({ isByModel: false, sections: [{ heading: 'Decisions' }, { heading: 'Open' }] });
});

it('one that is silent is given up after the time that is set', async () => {
  await change({ timeoutSeconds: 5 });
  misbehave = (_, response) =>
    void response.type('text/event-stream').write('data: {"choices":[{"delta":{"content":"## "}}]}\n\n');
  expect((await trial()).body).toMatchObject({
    detail: 'The language model did not answer for 5 seconds.',
    safe: 'Nothing was changed.',
  });
});
