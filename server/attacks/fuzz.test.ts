import fs from 'node:fs';
import type { Note } from '@immeld/core/contract/notes';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';
import { type FuzzedRequest, Fuzzer, chance } from './fuzzer';

const REQUESTS = 2000;
const dataFolder = temporaryFolder();
let server: RunningServer;
let ids: string[];
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
  const recordings = [];
  for (let i = 0; i < 5; i++)
    recordings.push(await say({ title: `Quay ${i}`, text: 'I need to call Bram. The limes need water.' }));
  const note = (await askJson<Note>(server, 'POST', '/notes', { title: 'Limes' })).body;
  const todo = (await askJson<{ id: string }>(server, 'POST', '/todos', { text: 'Water', repeat: 'FREQ=DAILY' })).body;
  const folder = (await askJson<{ id: string }>(server, 'POST', '/folders', { name: 'Home' })).body;
  ids = [...recordings, note.id, todo.id, folder.id];
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

/** The status of an answer, once it has begun; what never ends is not waited for. */
async function statusOf({ method, path, headers, body }: FuzzedRequest): Promise<number> {
  const gone = new AbortController();
  const response = await fetch(server.address + path, {
    ...{ method, headers, signal: gone.signal },
    ...(body === undefined ? {} : { body }),
  });
  if (response.headers.get('content-type')?.includes('event-stream')) gone.abort();
  else await response.arrayBuffer();
  return response.status;
}

it('two thousand requests that are nearly right bring no error of the server, and none is dropped', async () => {
  const fuzzer = new Fuzzer(chance(19), ids);
  const failed: string[] = [];
  const statuses = new Map<number, number>();
  for (let i = 0; i < REQUESTS; i++) {
    const request = fuzzer.next();
    const status = await statusOf(request).catch((error: unknown) => {
      failed.push(`dropped ${request.method} ${request.path}: ${String(error)}`);
      return 0;
    });
    statuses.set(status, (statuses.get(status) ?? 0) + 1);
    if (status >= 500) failed.push(`${status} ${request.method} ${request.path} ${request.body?.slice(0, 300) ?? ''}`);
  }
  expect(failed).toEqual([]);
  // It has not only been refused.
  expect(statuses.get(200)).toBeGreaterThan(REQUESTS / 10);
}, 300_000);
