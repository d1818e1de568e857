import type { Word } from '@immeld/core/transcript/manuscript';
import { QueryTypes } from 'sequelize';
import { PassageRow } from '../models/passage';

/** A passage to be read, not changed. `written` has its numbers in figures. */
export type ReadPassage = {
  id: number;
  revision: number;
  startMs: number;
  endMs: number;
  speaker: string | null;
  startsParagraph: boolean;
  words: Word[];
  written: string;
};

/** The same with its words as the JSON that lies in the database. */
export type UnparsedPassage = Omit<ReadPassage, 'words'> & { wordsJson: string };

type Row = Omit<UnparsedPassage, 'startsParagraph'> & { startsParagraph: number };

/** The passages of a recording in their order, as they lie in the database: to make models of hours of words takes long. */
export async function readUnparsedPassages(recordingId: string): Promise<UnparsedPassage[]> {
  const rows = await PassageRow.sequelize!.query<Row>(
    `SELECT id, revision, start_ms AS startMs, end_ms AS endMs, speaker, starts_paragraph AS startsParagraph,
       words AS wordsJson, written
     FROM passages WHERE recording_id = ? ORDER BY position`,
    { replacements: [recordingId], type: QueryTypes.SELECT },
  );
  return rows.map((row) => ({ ...row, startsParagraph: Boolean(row.startsParagraph) }));
}

export async function readPassages(recordingId: string): Promise<ReadPassage[]> {
  const unparsed = await readUnparsedPassages(recordingId);
  return unparsed.map(({ wordsJson, ...passage }) => ({ ...passage, words: JSON.parse(wordsJson) as Word[] }));
}

/** The passages of a recording as JSON; their words are neither parsed nor written anew. */
export const passagesJson = async (recordingId: string): Promise<string> =>
  passagesAsJson(await readUnparsedPassages(recordingId));

/** Passages as the contract has them, as JSON. */
export function passagesAsJson(passages: readonly UnparsedPassage[]): string {
  const each = passages.map(
    ({ written: _, wordsJson, ...shown }) => `${JSON.stringify(shown).slice(0, -1)},"words":${wordsJson}}`,
  );
  return `[${each.join(',')}]`;
}
