import { createCipheriv, createDecipheriv, randomBytes, scrypt } from 'node:crypto';
import fs from 'node:fs';
import { type Transform, type TransformCallback, Transform as Transforming } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ArchiveProblem } from './archive';

/**
 * An archive under a passphrase: these eight bytes, 16 bytes of salt, 12 of nonce, the archive, 16 bytes of tag.
 * AES-256 in Galois/Counter Mode (NIST SP 800-38D); the key by scrypt (RFC 7914) with N 2^17, r 8, p 1.
 */
const MAGIC = Buffer.from('IMMELD\u0001\n', 'latin1');
const SALT = 16;
const NONCE = 12;
const TAG = 16;
const COST = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 1024 * 1024 };

/** The passphrase is missing, or another one. */
export class PassphraseProblem extends ArchiveProblem {}

/** In a thread of Node's own: it takes a third of a second, in which the server goes on answering. */
const keyOf = (passphrase: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(passphrase.normalize('NFKC'), salt, 32, COST, (error, key) => (error ? reject(error) : resolve(key))),
  );

/** Encrypts what flows through it. */
export async function encrypting(passphrase: string): Promise<Transform> {
  const [salt, nonce] = [randomBytes(SALT), randomBytes(NONCE)];
  const cipher = createCipheriv('aes-256-gcm', await keyOf(passphrase, salt), nonce);
  let hasBegun = false;
  return new Transforming({
    transform(bytes: Buffer, _encoding: string, done: TransformCallback) {
      if (!hasBegun) this.push(Buffer.concat([MAGIC, salt, nonce]));
      hasBegun = true;
      done(null, cipher.update(bytes));
    },
    flush(done: TransformCallback) {
      this.push(cipher.final());
      done(null, cipher.getAuthTag());
    },
  });
}

export async function isEncrypted(file: string): Promise<boolean> {
  const handle = await fs.promises.open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(MAGIC.length), 0, MAGIC.length, 0);
    return bytesRead === MAGIC.length && buffer.equals(MAGIC);
  } finally {
    await handle.close();
  }
}

/**
 * Decrypts an archive into a file. What was written is worth nothing until this has ended well: only then it is known
 * that it is whole.
 * @throws ArchiveProblem for a wrong passphrase, or an archive that was cut or changed
 */
export async function decrypt(file: string, passphrase: string, target: string): Promise<void> {
  const { size } = await fs.promises.stat(file);
  const head = MAGIC.length + SALT + NONCE;
  const wrong = () => new PassphraseProblem('Wrong passphrase, or the backup is cut off or damaged.');
  if (size < head + TAG) throw wrong();
  const handle = await fs.promises.open(file);
  const part = async (from: number, length: number) =>
    (await handle.read(Buffer.alloc(length), 0, length, from)).buffer;
  const [salt, nonce, tag] = [
    await part(MAGIC.length, SALT),
    await part(MAGIC.length + SALT, NONCE),
    await part(size - TAG, TAG),
  ];
  await handle.close();
  const decipher = createDecipheriv('aes-256-gcm', await keyOf(passphrase, salt), nonce).setAuthTag(tag);
  try {
    // Nothing between head and tag: an empty archive.
    if (size === head + TAG) decipher.final();
    else {
      await pipeline(
        fs.createReadStream(file, { start: head, end: size - TAG - 1 }),
        decipher,
        fs.createWriteStream(target, { mode: 0o600 }),
      );
    }
  } catch {
    await fs.promises.rm(target, { force: true });
    throw wrong();
  }
}
