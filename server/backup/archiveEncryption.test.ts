import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { temporaryFolder } from '../testing/testServer';
import { PassphraseProblem, isEncrypted, encrypting, decrypt } from './archiveEncryption';

const folder = temporaryFolder();
const file = (name: string) => path.join(folder, name);
afterAll(() => fs.rmSync(folder, { recursive: true }));

async function lock(content: Buffer, name: string, passphrase = 'unter dem Steg'): Promise<Buffer> {
  // In uneven pieces, as a disk gives them.
  const pieces = function* () {
    for (let at = 0; at < content.length; at += 7001) yield content.subarray(at, at + 7001);
  };
  await pipeline(Readable.from(pieces()), await encrypting(passphrase), fs.createWriteStream(file(name)));
  return fs.readFileSync(file(name));
}

it.each([1, 15, 16, 17, 7001, 100_000])('%d bytes come back as they were', async (size) => {
  const content = randomBytes(size);
  const locked = await lock(content, `of-${size}`);
  // 8 bytes of magic, 16 of salt, 12 of nonce, 16 of tag, as docs/api/archive.md says.
  expect(locked.length).toBe(size + 52);
  expect(locked.subarray(0, 6).toString('latin1')).toBe('IMMELD');
  expect(await isEncrypted(file(`of-${size}`))).toBe(true);
  await decrypt(file(`of-${size}`), 'unter dem Steg', file('open'));
  expect(fs.readFileSync(file('open')).equals(content)).toBe(true);
});

it('the same twice is never the same bytes', async () => {
  const content = Buffer.from('The limes need water.');
  const [one, other] = [await lock(content, 'one'), await lock(content, 'other')];
  expect(one.equals(other)).toBe(false);
  expect(one.includes('limes')).toBe(false);
});

it('a change anywhere is noticed, and what was opened so far is gone', async () => {
  const locked = await lock(randomBytes(5000), 'whole');
  // In salt, nonce, beginning, middle and tag.
  for (const at of [9, 27, 40, 2500, locked.length - 1]) {
    const changed = Buffer.from(locked);
    changed[at]! ^= 0x40;
    fs.writeFileSync(file('changed'), changed);
    await expect(decrypt(file('changed'), 'unter dem Steg', file('never'))).rejects.toThrow(PassphraseProblem);
    expect(fs.existsSync(file('never'))).toBe(false);
  }
});

it('cut off anywhere it does not open', async () => {
  const locked = await lock(randomBytes(300), 'long');
  for (const length of [0, 8, 35, 51, 52, 200, locked.length - 1]) {
    fs.writeFileSync(file('cut'), locked.subarray(0, length));
    await expect(decrypt(file('cut'), 'unter dem Steg', file('never'))).rejects.toThrow(PassphraseProblem);
  }
});

it('other files are not locked', async () => {
  for (const [name, content] of Object.entries({
    empty: '',
    zip: 'PK\u0003\u0004',
    short: 'IMMELD',
    near: 'IMMELD\u0002\n',
  })) {
    fs.writeFileSync(file(name), content);
    expect(await isEncrypted(file(name))).toBe(false);
  }
});
