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

type Row = Omit<ReadPassage, 'words' | 'startsParagraph'> & { words: string; startsParagraph: number };

/** The passages of a recording in their order, as they lie in the database: to make models of hours of words takes long. */
export async function readPassages(recordingId: string): Promise<ReadPassage[]> {
  const rows = await PassageRow.sequelize!.query<Row>(
    `SELECT id, revision, start_ms AS startMs, end_ms AS endMs, speaker, starts_paragraph AS startsParagraph, words, written
     FROM passages WHERE recording_id = ? ORDER BY position`,
    { replacements: [recordingId], type: QueryTypes.SELECT },
  );
  return rows.map((row) => ({
    ...row,
    startsParagraph: Boolean(row.startsParagraph),
    words: JSON.parse(row.words) as Word[],
  }));
}
