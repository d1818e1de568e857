import type { Recording as View } from '@immeld/core/contract/recordings';
import type { Slip } from '@immeld/core/contract/slips';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { keptLines } from '../media/pictureWords';
import { drawPages } from '../slides/drawPages';
import { plainSlidesPdf } from '../slides/plainSlides';
import type { RunningServer } from '../start';
import { ControlledPool, askJson, startTestServer, temporaryFolder, until, upload } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});
const ask = <T>(method: string, address: string, body?: unknown) => askJson<T>(server, method, address, body);

async function withPicture(bytes: Uint8Array) {
  const { recordingId } = await upload(server.address, Buffer.from(`a walk ${randomUUID()}`), 'Walk.webm');
  const id = randomUUID();
  const slip = { id, kind: 'picture', startMs: 0, text: 'board.jpg' };
  await ask('POST', `/recordings/${recordingId}/slips`, { slips: [slip] });
  const put = await fetch(`${server.address}/api/slips/${id}/picture`, { method: 'PUT', body: new Uint8Array(bytes) });
  expect(put.status).toBe(200);
  const read = async (): Promise<Slip> =>
    (await ask<View>('GET', `/recordings/${recordingId}`)).body.slips.find((s) => s.id === id)!;
  return { id, recordingId, read };
}

it('reads a photographed board, finds its words, and keeps what a person puts right', async () => {
  const board = { title: 'Planting list', lines: ['Seven limes along the quay', 'Order mulch before Friday'] };
  await drawPages(new Uint8Array(await plainSlidesPdf([board])), dataFolder, () => undefined);
  const { id, recordingId, read } = await withPicture(fs.readFileSync(path.join(dataFolder, '1.jpg')));
  const { words } = await until(read, (s) => s.words !== null);
  expect(words).toBe('Planting list\nSeven limes along the quay\nOrder mulch before Friday');
  expect(JSON.stringify((await ask('GET', '/find?q=mulch')).body)).toContain(recordingId);
  await ask('PATCH', `/slips/${id}`, { words: 'Order bark before Friday' });
  expect((await read()).words).toBe('Order bark before Friday');
  expect(JSON.stringify((await ask('GET', '/find?q=mulch')).body)).not.toContain(recordingId);
});

test('only what is likely to be a word is kept, line by line', () => {
  const line = (...words: [string, number][]) => ({ words: words.map(([text, confidence]) => ({ text, confidence })) });
  expect(
    keptLines([
      line(['Seven', 96], ['|', 90], ['limes', 93]),
      line(['~e', 31], ['wx', 40]),
      line(['.', 99], ['—', 99]),
      line(['40', 90], ['%', 88]),
    ]),
  ).toBe('Seven limes\n40');
  expect(keptLines([])).toBe('');
  expect(keptLines([line(['a'.repeat(9000), 99])])).toHaveLength(5000);
});
