import fs from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, startTestServer, temporaryFolder } from '../testing/testServer';
import { badRequests } from './badRequests';

/** Each of these took the server seconds to minutes; a busy machine stands still for less by itself. */
const MAX_STALL_MS = 1000;
const NANOSECONDS = 1e6;

const dataFolder = temporaryFolder();
let server: RunningServer;
let recordingId: string;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
  recordingId = await say({ title: 'Long', text: 'We decided at 5 that I need to call Bram and '.repeat(3000) });
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

it('no bad request keeps the others waiting, and none brings an error of the server', async () => {
  const delay = monitorEventLoopDelay({ resolution: 10 });
  const stalls: string[] = [];
  for (const { name, method, path, body } of badRequests(recordingId)) {
    const sent = body === undefined ? undefined : JSON.stringify(body);
    delay.reset();
    delay.enable();
    const { status } = await fetch(`${server.address}/api${path}`, {
      method,
      ...(sent === undefined ? {} : { body: sent, headers: { 'Content-Type': 'application/json' } }),
    });
    delay.disable();
    const stallMs = Math.round(delay.max / NANOSECONDS);
    if (stallMs > MAX_STALL_MS || status >= 500) stalls.push(`${name}: ${status}, ${stallMs} ms`);
  }
  expect(stalls).toEqual([]);
});
