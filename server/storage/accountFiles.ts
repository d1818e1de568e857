import path from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';

type Row = Record<string, string | null>;

/** The JSON of a column, or null where there is none. */
const parsed = <T>(value: string | null | undefined): T | null => (value ? (JSON.parse(value) as T) : null);

/**
 * The files of an account, as paths below the data folder: `sound/…` and `pictures/…`. What has no file, or lost it,
 * is named all the same. Works on any copy of the database, without models.
 */
export async function filesOfAccount(database: Sequelize, account: string): Promise<string[]> {
  const all = (sql: string) =>
    database.query<Row>(sql, { type: QueryTypes.SELECT, replacements: { account } }) as Promise<Row[]>;
  const [recordings, slips, notePictures] = await Promise.all([
    all('SELECT sound_file, playback_file, video, more_sounds FROM recordings WHERE account_id = :account'),
    all('SELECT id, picture_file, file FROM slips WHERE account_id = :account'),
    all('SELECT file FROM note_pictures WHERE account_id = :account'),
  ]);
  const sounds = recordings.flatMap((r) => [
    r['sound_file'],
    r['playback_file'],
    parsed<{ file: string }>(r['video'])?.file,
    ...(parsed<{ soundFile: string }[]>(r['more_sounds']) ?? []).map((s) => s.soundFile),
  ]);
  const pictures = [
    ...slips.flatMap((s) => [s['picture_file'], s['file'] ? `${s['id']}.file` : null]),
    ...notePictures.map((p) => p['file']),
  ];
  const named = (folder: string, names: readonly (string | null | undefined)[]) =>
    // A name that was brought in leads nowhere but into its folder.
    names.filter((n): n is string => Boolean(n)).map((n) => `${folder}/${path.basename(n)}`);
  return [...new Set([...named('sound', sounds), ...named('pictures', pictures)])];
}
