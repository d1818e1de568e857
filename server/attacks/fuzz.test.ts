import fs from 'node:fs';
import http from 'node:http';
import { seeded } from '@immeld/core/filing/evaluation/yearOfFilings';
import type { Note } from '@immeld/core/contract/notes';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';
import { type FuzzedRequest, Fuzzer } from './fuzzer';

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
  const fuzzer = new Fuzzer(seeded(19), ids);
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

describe('addresses that are not in the contract', () => {
  const tus = { 'Tus-Resumable': '1.0.0' };
  const png = 'data';
  const ODD: [string, string, Record<string, string>?, string?][] = [
    ...(
      [
        '/s/%E0%A4%A',
        '/s/%00',
        '/s/constructor',
        `/s/${'a'.repeat(22)}/sound`,
        `/s/${'a'.repeat(22)}/pictures/x`,
      ] as const
    ).map((path): [string, string] => ['GET', path]),
    [
      'POST',
      `/s/${'a'.repeat(22)}`,
      { 'Content-Type': 'application/x-www-form-urlencoded' },
      'password[toString]=1&__proto__=1',
    ],
    ['POST', `/s/${'a'.repeat(22)}`, { 'Content-Type': 'application/x-www-form-urlencoded; charset=x' }, '%E0%A4%A'],
    ...(
      [
        '/feeds/x.ics',
        '/feeds/%00.ics',
        `/feeds/${'0'.repeat(32)}.ics`,
        '/packs/..%2f..%2fpackage.json',
        '/packs/%00',
      ] as const
    ).map((path): [string, string] => ['GET', path]),
    ...(
      [
        '/%00',
        '/..%2f..%2fetc%2fpasswd',
        '/api/%E0%A4%A',
        '/api//',
        '/api/recordings/%00',
        '//evil.example/',
        '/%ff',
      ] as const
    ).map((path): [string, string] => ['GET', path]),
    ['POST', '/api/uploads', { ...tus, 'Upload-Length': '-1' }],
    ['POST', '/api/uploads', { ...tus, 'Upload-Length': 'many' }],
    ['POST', '/api/uploads', { ...tus, 'Upload-Length': '1e99' }],
    ['POST', '/api/uploads', { ...tus, 'Upload-Length': '99999999999999999999' }],
    ['POST', '/api/uploads', { ...tus, 'Upload-Defer-Length': '1' }],
    ['POST', '/api/uploads', { ...tus, 'Upload-Length': '1', 'Upload-Metadata': 'filename %%%' }],
    ['POST', '/api/uploads', { ...tus, 'Upload-Length': '1', 'Upload-Metadata': ',,,= a b c' }],
    [
      'POST',
      '/api/uploads',
      { ...tus, 'Upload-Length': '0', 'Upload-Metadata': 'startedAt bm9uc2Vuc2U=,captureId eA==,videoOf eA==' },
    ],
    ['POST', '/api/uploads', { ...tus, 'Upload-Concat': 'final;/api/uploads/a /api/uploads/b' }],
    [
      'PATCH',
      `/api/uploads/${'a'.repeat(32)}`,
      { ...tus, 'Upload-Offset': '0', 'Content-Type': 'application/offset+octet-stream' },
      'x',
    ],
    ['HEAD', '/api/uploads/..%2f..%2fimmeld.sqlite', tus],
    ['DELETE', '/api/uploads/%00', tus],
    ['GET', '/api/uploads/x'],
    ['POST', '/api/slips/x/file?name=x', {}, png],
    ['PUT', '/api/slips/00000000-0000-4000-8000-000000000000/picture', { 'Content-Encoding': 'gzip' }, png],
    ['PUT', '/api/slips/00000000-0000-4000-8000-000000000000/file?name=%00', {}, png],
    ['GET', '/api/recordings?limit=NaN&offset=-1&sort=constructor'],
    ['GET', '/api/recordings?place[]=tray&place=bin'],
    ['GET', '/api/days/2026-02-31'],
    ['GET', '/api/weeks?until=9999-12-31&count=53'],
    ['GET', '/api/weeks?until=2026-99-99'],
    ['GET', '/api/weeks?until=2026-02-30&count=2'],
    ['GET', '/api/days/2026-13-01'],
    ['GET', '/api/appointments?from=2026-00-00&to=2026-99-99'],
    ['GET', '/api/ask?q=What%20did%20Bram%20say%3F&today=2026-99-99'],
    ['GET', '/api/recordings?offset=9007199254740991'],
    ['GET', '/api/weeks?until=0000-01-01&count=53'],
    ['GET', '/api/appointments?from=0000-00-00&to=9999-99-99'],
    ['GET', '/api/ask?q=what+did+I+do+last+week&today=0000-00-00'],
    ['TRACE', '/api/status'],
    ['OPTIONS', '/api/recordings'],
    ['PROPFIND', '/api/recordings'],
  ];

  it.each(ODD)('%s %s', async (method, path, headers = {}, body) => {
    const { hostname, port } = new URL(server.address);
    const status = await new Promise<number>((resolve, reject) => {
      const request = http.request({ hostname, port, method, path, headers: { ...headers } }, (response) => {
        response.resume();
        resolve(response.statusCode!);
      });
      request.on('error', reject);
      request.end(body);
    });
    expect(status).toBeLessThan(500);
  });
});
