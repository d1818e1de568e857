import type { Vocabulary } from '@immeld/core/find/spelling';
import { QueryTypes } from 'sequelize';
import { matchOwn } from './matchOwn';
import type { FindDatabase } from './reader';

/** Whether words that stand in a row are anywhere in the account's own places. */
export async function keepOwn(database: FindDatabase, words: readonly string[]): Promise<boolean> {
  const match = matchOwn(`"${words.join(' ').replaceAll('"', '')}"`);
  const sql = 'SELECT rowid FROM found WHERE found MATCH ? LIMIT 1';
  return (await database.query(sql, { replacements: [match], type: QueryTypes.SELECT })).length > 0;
}

/**
 * A vocabulary in which the words that somebody typed are there only where their own account has them. Whether anybody else has
 * ever said such a word, nobody learns.
 */
export async function asOwnVocabulary(
  database: FindDatabase,
  all: Vocabulary,
  typed: readonly string[],
): Promise<Vocabulary> {
  const own = new Map<string, boolean>();
  for (const word of new Set(typed)) own.set(word, all.has(word) && (await keepOwn(database, [word])));
  return { has: (word) => own.get(word) ?? all.has(word), words: (length) => all.words(length) };
}

/** Those of several ways to read a word that the account's own places have. */
export async function ownOnly(database: FindDatabase, variants: readonly string[][]): Promise<string[][]> {
  const own: string[][] = [];
  for (const words of variants) if (await keepOwn(database, words)) own.push(words);
  return own;
}
