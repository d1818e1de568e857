import { createHash, randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { MarkKindSetting } from '@immeld/core/contract/markKinds';
import type { Pack } from '@immeld/core/contract/captures';
import type { Recording } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import type { NewSlip, Slip } from '@immeld/core/contract/slips';
import type { RunningServer } from '../start';
import { ControlledPool, SPOKEN, startTestServer, temporaryFolder, until, upload } from '../testing/testServer';

const dataFolder = temporaryFolder();
const pool = new ControlledPool();
let server: RunningServer;

beforeAll(async () => {
  server = await startTestServer(dataFolder, pool);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const send = (method: string, address: string, body?: unknown) =>
  fetch(`${server.address}/api${address}`, {
    method,
    ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });
const json = async <T>(method: string, address: string, body?: unknown) =>
  (await (await send(method, address, body)).json()) as T;
const get = (id: string) => json<Recording>('GET', `/recordings/${id}`);
const sha256 = (content: Buffer) => createHash('sha256').update(content).digest('hex');
const slip = (part: Partial<NewSlip> = {}): NewSlip => ({
  ...{ id: randomUUID(), kind: 'mark', mark: 'question', startMs: 1200, endMs: null, text: '' },
  ...part,
});

let counter = 0;
const bringIn = async (metadata: Record<string, string> = {}) =>
  (await upload(server.address, Buffer.from(`captured ${counter++}`), 'Spoken.webm', metadata)).recordingId;

describe('a capture', () => {
  it('is confirmed with the hash of what lies on the disk', async () => {
    const captureId = randomUUID();
    expect((await send('GET', `/captures/${captureId}`)).status).toBe(404);
    const content = Buffer.from('a sound of its own');
    const { recordingId } = await upload(server.address, content, 'Spoken.webm', { captureId });
    expect(await json('GET', `/captures/${captureId}`)).toEqual({
      recordingId,
      sha256: sha256(content),
      sizeBytes: content.length,
    });
  });

  it('may be the video of a sound that was sent before', async () => {
    const recordingId = await bringIn();
    expect(await get(recordingId)).toMatchObject({ hasVideo: false, place: null });
    expect((await send('GET', `/recordings/${recordingId}/video`)).status).toBe(404);
    const captureId = randomUUID();
    // A file type box (ISO/IEC 14496-12, 4.3) is what tells it from anything else.
    const content = Buffer.concat([
      Buffer.from('00000018667479706d70343200000000', 'hex'),
      Buffer.from('mp42isommany pictures'),
    ]);
    const metadata = { captureId, videoOf: recordingId, filetype: 'video/mp4' };
    // Sent twice, as after a lost answer, it is one video and no second recording.
    for (let i = 0; i < 2; i++) {
      expect(await upload(server.address, content, 'Talk.mp4', metadata)).toMatchObject({ recordingId });
    }
    expect(await json('GET', `/captures/${captureId}`)).toMatchObject({ recordingId, sha256: sha256(content) });
    expect((await get(recordingId)).hasVideo).toBe(true);
    const part = await fetch(`${server.address}/api/recordings/${recordingId}/video`, {
      headers: { Range: 'bytes=29-36' },
    });
    expect([part.status, part.headers.get('content-type'), await part.text()]).toEqual([206, 'video/mp4', 'pictures']);
  });

  it('brings the place of its file along only where the person wants that', async () => {
    const place = '+52.5061+004.9592';
    expect((await get(await bringIn({ place }))).place).toBeNull();
    await send('PATCH', '/settings', { takesPlace: true });
    expect((await get(await bringIn({ place }))).place).toBe('52.5061, 4.9592');
    expect((await get(await bringIn({ place: 'somewhere' }))).place).toBeNull();
    await send('PATCH', '/settings', { takesPlace: false });
  });

  it('sent twice is one recording, and not called a sound that was here before', async () => {
    const captureId = randomUUID();
    const content = Buffer.from('sent twice');
    const first = await upload(server.address, content, 'Spoken.webm', { captureId });
    const second = await upload(server.address, content, 'Spoken.webm', { captureId });
    expect(second).toEqual({ recordingId: first.recordingId, alreadyHere: null });
  });

  it('sent anew because it had arrived damaged gives way to the good one', async () => {
    const captureId = randomUUID();
    const damaged = await upload(server.address, Buffer.from('dama'), 'Spoken.webm', { captureId });
    const good = await upload(server.address, Buffer.from('undamaged'), 'Spoken.webm', { captureId });
    expect(good.recordingId).not.toBe(damaged.recordingId);
    const receipt = await json<{ recordingId: string }>('GET', `/captures/${captureId}`);
    expect(receipt.recordingId).toBe(good.recordingId);
  });

  it('that was cut off says so', async () => {
    expect((await get(await bringIn({ recovered: '1' }))).isRecovered).toBe(true);
    expect((await get(await bringIn())).isRecovered).toBe(false);
  });

  it('that was thrown away lies in the bin unrecognised, and is recognised when it is taken out', async () => {
    const id = await bringIn({ thrownAway: '1' });
    expect(await get(id)).toMatchObject({ isBinned: true, state: 'waiting' });
    expect(pool.tasks.some((task) => task.soundFile.includes(id))).toBe(false);
    await json('PATCH', `/recordings/${id}`, { isBinned: false });
    await until(
      () => get(id),
      (r) => r.state === 'ready',
    );
  });
});

it('a sound for which there is no room is not begun, and one that fits comes in', async () => {
  const disk = { bavail: 70, bsize: 1024 ** 2 } as fs.StatsFs;
  const room = jest.spyOn(fs.promises, 'statfs').mockResolvedValue(disk);
  await expect(upload(server.address, Buffer.alloc(7 * 1024 ** 2), 'large.wav')).rejects.toThrow('507');
  expect((await upload(server.address, Buffer.alloc(5 * 1024 ** 2), 'fits.wav')).recordingId).toBeTruthy();
  room.mockRestore();
});

describe('slips', () => {
  it('come with their second and stand in its order', async () => {
    const id = await bringIn();
    const slips = [slip({ startMs: 9000, kind: 'note', mark: null, text: 'later' }), slip({ startMs: 100 })];
    await json('POST', `/recordings/${id}/slips`, { slips });
    expect((await get(id)).slips.map((s) => [s.startMs, s.text])).toEqual([
      [100, ''],
      [9000, 'later'],
    ]);
  });

  it('sent twice are there once, and keep what was changed meanwhile', async () => {
    const id = await bringIn();
    const made = slip({ text: 'as it was' });
    await json('POST', `/recordings/${id}/slips`, { slips: [made] });
    await json<Slip>('PATCH', `/slips/${made.id}`, { text: 'as it is', mark: 'key-point' });
    await json('POST', `/recordings/${id}/slips`, { slips: [made] });
    expect((await get(id)).slips).toMatchObject([{ text: 'as it is', mark: 'key-point' }]);
  });

  it('a to-do with words is on the list at once, one without words is only a mark', async () => {
    const id = await bringIn();
    const slips = [slip({ mark: 'to-do', text: 'Order stakes' }), slip({ mark: 'to-do' })];
    await json('POST', `/recordings/${id}/slips`, { slips });
    const { items } = await json<{ items: Todo[] }>('GET', '/todos');
    expect(items.filter((t) => t.recordingId === id)).toMatchObject([
      { text: 'Order stakes', who: 'me', startMs: 1200 },
    ]);
  });

  it('can be taken away and brought back', async () => {
    const id = await bringIn();
    const made = slip();
    await json('POST', `/recordings/${id}/slips`, { slips: [made] });
    await json('PATCH', `/slips/${made.id}`, { isBinned: true });
    expect((await get(id)).slips).toEqual([]);
    await json('PATCH', `/slips/${made.id}`, { isBinned: false });
    expect((await get(id)).slips).toHaveLength(1);
  });

  it.each([
    ['a mark without its kind', { mark: null }, 'The mark needs a kind.'],
    ['a moment before the beginning', { startMs: -1 }, 'The slip needs a time in the recording.'],
    ['too many words', { text: 'x'.repeat(5001) }, 'at most 5,000 characters'],
  ])('refuses %s', async (_, part, sentence) => {
    const id = await bringIn();
    const response = await send('POST', `/recordings/${id}/slips`, { slips: [slip(part)] });
    expect(response.status).toBe(400);
    expect(((await response.json()) as { detail: string }).detail).toContain(sentence);
  });

  it('of a recording that is not there are refused', async () => {
    expect((await send('POST', `/recordings/${randomUUID()}/slips`, { slips: [] })).status).toBe(404);
    expect((await send('PATCH', `/slips/${randomUUID()}`, { text: 'x' })).status).toBe(404);
  });
});

describe('the picture of a slip', () => {
  const PNG = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  const put = (id: string, body: Buffer) =>
    fetch(`${server.address}/api/slips/${id}/picture`, { method: 'PUT', body: new Uint8Array(body) });

  it('is kept and shown as what it is', async () => {
    const id = await bringIn();
    const made = slip({ kind: 'picture', mark: null });
    await json('POST', `/recordings/${id}/slips`, { slips: [made] });
    expect((await send('GET', `/slips/${made.id}/picture`)).status).toBe(404);
    expect((await put(made.id, PNG)).status).toBe(200);
    const shown = await send('GET', `/slips/${made.id}/picture`);
    expect(shown.headers.get('Content-Type')).toBe('image/png');
    expect(shown.headers.get('X-Content-Type-Options')).toBe('nosniff');
    expect(Buffer.from(await shown.arrayBuffer()).equals(PNG)).toBe(true);
    expect((await get(id)).slips[0]!.hasPicture).toBe(true);
  });

  it('is refused when it is no picture, and the slip stays', async () => {
    const id = await bringIn();
    const made = slip({ kind: 'picture', mark: null });
    await json('POST', `/recordings/${id}/slips`, { slips: [made] });
    const refused = await put(made.id, Buffer.from('<svg onload="alert(1)">'));
    expect(refused.status).toBe(400);
    expect(((await refused.json()) as { detail: string }).detail).toContain('PNG, JPEG, GIF or WebP');
    expect((await get(id)).slips).toHaveLength(1);
  });
});

describe('what is said about a slip', () => {
  const made = async (part: Partial<NewSlip> = {}) => {
    const id = await bringIn();
    const own = slip(part);
    await json('POST', `/recordings/${id}/slips`, { slips: [own] });
    return { id, slipId: own.id };
  };
  const read = async (id: string) => (await get(id)).slips[0]!;

  it('stands there once, however often it is sent, and goes away alone', async () => {
    const { id, slipId } = await made();
    const [first, second] = [randomUUID(), randomUUID()];
    for (const commentId of [first, first, second]) {
      await json('POST', `/slips/${slipId}/comments`, { id: commentId, text: `About ${commentId.slice(0, 4)}` });
    }
    expect((await read(id)).comments.map((c) => c.id)).toEqual([first, second]);
    await send('DELETE', `/slips/${slipId}/comments/${first}`);
    expect((await read(id)).comments.map((c) => c.id)).toEqual([second]);
    expect((await send('POST', `/slips/${slipId}/comments`, { id: randomUUID(), text: ' ' })).status).toBe(400);
  });

  it('says whom it is for', async () => {
    const { id, slipId } = await made();
    await send('PATCH', `/slips/${slipId}`, { assignee: ' Bram ' });
    expect((await read(id)).assignee).toBe('Bram');
    await send('PATCH', `/slips/${slipId}`, { assignee: null });
    expect((await read(id)).assignee).toBeNull();
  });

  it.each(['javascript:alert(1)', 'file:///etc/passwd', 'nowhere', 'https://'])('leads not to %s', async (address) => {
    const id = await bringIn();
    const refused = await send('POST', `/recordings/${id}/slips`, {
      slips: [slip({ kind: 'link', mark: null, address })],
    });
    expect(refused.status).toBe(400);
  });

  it('leads to an address', async () => {
    const { id } = await made({ kind: 'link', mark: null, address: 'https://harrowmere.example/quay?a=1' });
    expect((await read(id)).address).toBe('https://harrowmere.example/quay?a=1');
  });
});

describe('the file of a slip', () => {
  const put = (id: string, name: string, body: Buffer) =>
    fetch(`${server.address}/api/slips/${id}/file?name=${encodeURIComponent(name)}`, {
      method: 'PUT',
      body: new Uint8Array(body),
    });

  it('comes back as it went in, by its name, and never as a page of Immeld', async () => {
    const id = await bringIn();
    const own = slip({ kind: 'file', mark: null });
    await json('POST', `/recordings/${id}/slips`, { slips: [own] });
    const page = Buffer.from('<script>alert(1)</script>');
    expect((await put(own.id, 'Überblick 🌳.html', page)).status).toBe(200);
    const { file } = (await get(id)).slips[0]!;
    expect(file).toEqual({ name: 'Überblick 🌳.html', mediaType: 'application/octet-stream', sizeBytes: page.length });
    const back = await send('GET', `/slips/${own.id}/file`);
    expect(back.headers.get('Content-Type')).toBe('application/octet-stream');
    expect(back.headers.get('Content-Disposition')).toMatch(/^attachment;/);
    expect(Buffer.from(await back.arrayBuffer()).equals(page)).toBe(true);
    expect((await put(own.id, 'nothing.txt', Buffer.alloc(0))).status).toBe(400);
    await put(own.id, 'plan.pdf', Buffer.from('%PDF-1.4 …'));
    expect((await get(id)).slips[0]!.file!.mediaType).toBe('application/pdf');
  });
});

describe('the kinds of marks', () => {
  const kinds = async () => (await json<{ markKinds: MarkKindSetting[] }>('GET', '/settings')).markKinds;
  const set = (markKinds: MarkKindSetting[]) => send('PATCH', '/settings', { markKinds });

  it('are renamed and added, and used', async () => {
    const usual = await kinds();
    const own: MarkKindSetting = { id: 'own-1', label: 'Quote', shape: 'ring', tone: 'lichen', isHidden: false };
    expect((await set([{ ...usual[0]!, label: 'Decision' }, ...usual.slice(1), own])).status).toBe(200);
    expect((await kinds()).map((k) => k.label)).toEqual(['Decision', 'Question', 'Check later', 'To-do', 'Quote']);
    const id = await bringIn();
    await json('POST', `/recordings/${id}/slips`, { slips: [slip({ mark: 'own-1' })] });
    expect((await get(id)).slips[0]!.mark).toBe('own-1');
    await set(usual);
  });

  it('keep the mark for to-dos, and names that can be told apart', async () => {
    const usual = await kinds();
    expect((await set(usual.slice(0, 3))).status).toBe(400);
    expect((await set(usual.map((k) => ({ ...k, label: 'Same' })))).status).toBe(400);
    expect((await set([...usual, usual[0]!])).status).toBe(400);
  });
});

describe('the pack for devices', () => {
  it('is described as it is served, packed or not', async () => {
    const { items } = await json<{ items: Pack[] }>('GET', '/packs');
    const [pack] = items;
    expect(pack!.files).toHaveLength(6);
    for (const file of pack!.files) {
      const plain = await fetch(server.address + file.address, { headers: { 'Accept-Encoding': 'identity' } });
      const content = Buffer.from(await plain.arrayBuffer());
      expect([content.length, sha256(content)]).toEqual([file.sizeBytes, file.sha256]);
    }
    const small = pack!.files.find((f) => f.address.endsWith('vocabulary.json'))!;
    const folder = path.resolve(__dirname, '..', '..', 'models', pack!.name);
    const packed = fs.readFileSync(path.join(folder, 'vocabulary.json.gz'));
    expect(packed.length).toBe(small.sentBytes);
    expect(gunzipSync(packed).length).toBe(small.sizeBytes);
    const asked = await fetch(server.address + small.address, { headers: { 'Accept-Encoding': 'gzip' } });
    expect(asked.headers.get('Content-Encoding')).toBe('gzip');
  });

  it('gives nothing but its files', async () => {
    const { items } = await json<{ items: Pack[] }>('GET', '/packs');
    expect((await fetch(`${server.address}/packs/${items[0]!.name}/..%2f..%2fpackage.json`)).status).not.toBe(200);
  });
});

describe('one more thing', () => {
  const send2 = (content: string, metadata: Record<string, string>) =>
    upload(server.address, Buffer.from(content), 'Later.webm', metadata);

  it('is added to its recording: one manuscript, a seam with the date, no new recording', async () => {
    const id = await bringIn();
    const ready = () =>
      until(
        () => get(id),
        (r) => r.state === 'ready',
      );
    await ready();
    pool.answer = async (task) => ({ ...SPOKEN, seamsMs: task.moreSoundFiles.map((_, i) => 8000 * (i + 1)) });
    const captureId = randomUUID();
    const metadata = { appendTo: id, captureId, startedAt: '2026-03-10T09:15:00' };
    const added = await send2('one more', metadata);
    expect(added).toEqual({ recordingId: id, alreadyHere: null });
    await until(
      () => get(id),
      (r) => r.state === 'ready' && r.slips.length === 1,
    );
    expect(pool.tasks.at(-1)!.moreSoundFiles).toHaveLength(1);
    expect((await get(id)).slips).toMatchObject([
      { kind: 'seam', startMs: 8000, text: expect.stringContaining('10 Mar 2026, 9:15') },
    ]);
    // The device may ask for its receipt, and send it again, without a second seam.
    const receipt = await json<{ recordingId: string; sha256: string }>('GET', `/captures/${captureId}`);
    expect(receipt).toMatchObject({ recordingId: id, sha256: sha256(Buffer.from('one more')) });
    expect((await send2('one more', metadata)).recordingId).toBe(id);
    // Brought in once more, it is said to be here; nothing is doubled.
    const secondId = randomUUID();
    const again = await send2('one more', { appendTo: id, captureId: secondId });
    expect(again).toEqual({ recordingId: id, alreadyHere: (await get(id)).startedAt });
    expect(await json('GET', `/captures/${secondId}`)).toEqual(receipt);
    await send2('and another', { appendTo: id, captureId: randomUUID() });
    await until(
      () => get(id),
      (r) => r.state === 'ready' && r.slips.length === 2,
    );
    expect((await get(id)).slips.map((s) => s.startMs)).toEqual([8000, 16_000]);
  });

  it('that comes while the recording is being recognised is not forgotten', async () => {
    let release = () => {};
    const held = new Promise<void>((resolve) => (release = resolve));
    pool.answer = async (task) => {
      const isFirst = task.moreSoundFiles.length === 0;
      if (isFirst) await held;
      return { ...SPOKEN, seamsMs: task.moreSoundFiles.map(() => 8000) };
    };
    const id = await bringIn();
    await send2('meanwhile', { appendTo: id, captureId: randomUUID() });
    release();
    await until(
      () => get(id),
      (r) => r.state === 'ready' && r.slips.length === 1,
    );
  });

  it('for a recording that is gone becomes a recording of its own', async () => {
    pool.answer = async () => SPOKEN;
    const { recordingId } = await send2('orphan', { appendTo: randomUUID(), captureId: randomUUID() });
    expect((await get(recordingId)).fileName).toBe('Later.webm');
  });
});
