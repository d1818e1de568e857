import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';

/**
 * What the server itself has to read again, such as the token of a language model, lies in the database sealed: AES-256 in
 * Galois/Counter Mode (NIST SP 800-38D) under a key in a file of the data folder that goes into no archive. Whoever gets
 * hold of the database alone, or of an archive, has nothing of it.
 */
const KEY_BYTES = 32;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;
const MARK = 'sealed:';

let key: Buffer | null = null;

/** Reads the key of a data folder, or makes one. */
export function useSealKeyOf(dataFolder: string): void {
  const file = path.join(dataFolder, 'seal.key');
  if (!fs.existsSync(file)) {
    const part = `${file}.part`;
    fs.writeFileSync(part, randomBytes(KEY_BYTES), { mode: 0o600 });
    fs.renameSync(part, file);
  }
  key = fs.readFileSync(file);
  if (key.length !== KEY_BYTES) throw new Error(`${file} is damaged: it should have ${KEY_BYTES} bytes.`);
}

export function seal(text: string): string {
  const nonce = randomBytes(NONCE_BYTES);
  const cipher = createCipheriv('aes-256-gcm', key!, nonce);
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return MARK + Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
}

/** Null where it was sealed by another server. */
export function unseal(sealed: string): string | null {
  if (!sealed.startsWith(MARK)) return null;
  const bytes = Buffer.from(sealed.slice(MARK.length), 'base64');
  try {
    const cipher = createDecipheriv('aes-256-gcm', key!, bytes.subarray(0, NONCE_BYTES));
    cipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
    return Buffer.concat([cipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES)), cipher.final()]).toString('utf8');
  } catch {
    return null;
  }
}

export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Seals what an earlier version had kept as it is. */
export async function sealOldTokens(database: Sequelize): Promise<void> {
  for (const [table, id] of [
    ['share_links', 'id'],
    ['todo_feeds', 'account_id'],
    ['language_models', 'account_id'],
  ] as const) {
    const rows = await database.query<{ id: string; token: string }>(
      `SELECT ${id} AS id, token FROM ${table} WHERE token IS NOT NULL AND token NOT LIKE '${MARK}%'`,
      { type: QueryTypes.SELECT },
    );
    for (const row of rows) {
      const hash = table === 'language_models' ? '' : ', token_hash = :hash';
      await database.query(`UPDATE ${table} SET token = :sealed${hash} WHERE ${id} = :id`, {
        replacements: { id: row.id, sealed: seal(row.token), hash: hashOf(row.token) },
      });
    }
  }
}
