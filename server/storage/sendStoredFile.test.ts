import express from 'express';
import fs from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { temporaryFolder } from '../testing/testServer';
import { sendStoredFile } from './sendStoredFile';

const folder = temporaryFolder();
const hidden = path.join(folder, '.hidden', 'sound');
let server: Server;
let address: string;
const failures: unknown[] = [];

beforeAll(async () => {
  fs.mkdirSync(hidden, { recursive: true });
  fs.writeFileSync(path.join(hidden, 'ten.bin'), '0123456789');
  const application = express();
  application.get('/:name', (request, response) => sendStoredFile(response, path.join(hidden, request.params.name)));
  application.use(((error, _request, response, _next) => {
    failures.push(error);
    response.sendStatus(500);
  }) as express.ErrorRequestHandler);
  await new Promise<void>((resolve) => (server = application.listen(0, '127.0.0.1', resolve)));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  await new Promise((resolve) => server.close(resolve));
  fs.rmSync(folder, { recursive: true });
});

it('a file below a hidden folder is sent whole', async () => {
  const answer = await fetch(`${address}/ten.bin`);
  expect([answer.status, answer.headers.get('accept-ranges'), await answer.text()]).toEqual([
    200,
    'bytes',
    '0123456789',
  ]);
});

// RFC 9110, 14.1.2 and 14.4: first and last place are both meant; a suffix counts from the end.
it.each([
  ['bytes=0-0', 'bytes 0-0/10', '0'],
  ['bytes=3-5', 'bytes 3-5/10', '345'],
  ['bytes=7-', 'bytes 7-9/10', '789'],
  ['bytes=-2', 'bytes 8-9/10', '89'],
])('the range %s is sent alone', async (range, contentRange, text) => {
  const answer = await fetch(`${address}/ten.bin`, { headers: { range } });
  expect([answer.status, answer.headers.get('content-range'), await answer.text()]).toEqual([206, contentRange, text]);
});

it('a range beyond the end is answered as one, with the length (RFC 9110, 15.5.17)', async () => {
  const answer = await fetch(`${address}/ten.bin`, { headers: { range: 'bytes=10-' } });
  expect([answer.status, answer.headers.get('content-range')]).toEqual([416, 'bytes */10']);
  expect(failures).toEqual([]);
});

it('a file that is gone is an error that the server answers', async () => {
  expect((await fetch(`${address}/gone.bin`)).status).toBe(500);
  expect(failures.splice(0)).toMatchObject([{ status: 404 }]);
});
