import fs from 'node:fs';
import path from 'node:path';
import type { ShareLink } from '@immeld/core/contract/shareLinks';
import { projectRoot } from '../projectRoot';
import type { RunningServer } from '../start';
import { ControlledPool, askJson, startTestServer, temporaryFolder, upload } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const SANDBOX = "sandbox; default-src 'none'";
const headersOf = ({ headers }: Response) =>
  Object.fromEntries(
    [
      'content-type',
      'content-security-policy',
      'x-content-type-options',
      'cross-origin-resource-policy',
      'cache-control',
    ].map((name) => [name, headers.get(name)]),
  );
const SAFE = {
  'content-security-policy': SANDBOX,
  'x-content-type-options': 'nosniff',
  'cross-origin-resource-policy': 'same-origin',
  'cache-control': 'private, no-cache',
};

async function sharedSound(id: string): Promise<Response> {
  const body = { item: { kind: 'recording', id }, withSound: true };
  const link = (await askJson<ShareLink>(server, 'POST', '/share-links', body)).body;
  const page = await fetch(`${server.address}${link.path}`);
  const cookie = page.headers.get('set-cookie')!.split(';')[0]!;
  return fetch(`${server.address}${link.path}/sound`, { headers: { cookie } });
}

it.each([
  ['text/html', '<!doctype html><script src="sound"></script>', 'memo.html'],
  ['text/javascript', 'fetch("/api/account/removal")', 'memo.wav'],
  ['image/svg+xml', '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>', 'memo.svg'],
  ['audio/wav', '<html><body onload=alert(1)>', 'memo.wav'],
])('a “sound” that is said to be %s is only ever handed out to be kept', async (filetype, content, name) => {
  const { recordingId } = await upload(server.address, Buffer.from(content), name, { filetype });
  for (const response of [
    await fetch(`${server.address}/api/recordings/${recordingId}/sound`),
    await sharedSound(recordingId),
  ]) {
    expect(headersOf(response)).toEqual({ ...SAFE, 'content-type': 'application/octet-stream' });
    expect(response.headers.get('content-disposition')).toMatch(/^attachment/);
    expect(await response.text()).toBe(content);
  }
});

it('a real sound is played as what it is, whatever it was called', async () => {
  const sound = fs.readFileSync(path.join(projectRoot(), 'demo', 'sound', 'voice-message.ogg'));
  const { recordingId } = await upload(server.address, sound, 'page.html', { filetype: 'text/html' });
  const response = await fetch(`${server.address}/api/recordings/${recordingId}/sound`, {
    headers: { range: 'bytes=0-99' },
  });
  expect(response.status).toBe(206);
  expect(response.headers.get('content-disposition')).toBeNull();
  expect(headersOf(response)).toEqual({ ...SAFE, 'content-type': 'audio/ogg' });
});

it('a video that is none is handed out to be kept', async () => {
  const { recordingId } = await upload(server.address, Buffer.from('sound'), 'memo.wav');
  const script = { filetype: 'text/html', videoOf: recordingId };
  await upload(server.address, Buffer.from('<script>alert(1)</script>'), 'memo.webm', script);
  const response = await fetch(`${server.address}/api/recordings/${recordingId}/video`);
  expect(headersOf(response)).toEqual({ ...SAFE, 'content-type': 'application/octet-stream' });
});
