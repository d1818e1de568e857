import { withNumerals } from '@immeld/core/transcript/inverseTextNormalisation';
import { DataTypes, QueryTypes, type QueryInterface } from 'sequelize';
import { optionalText } from './columns';

/**
 * Everything that can be found stands in `places`, one row for each title, passage, slip, to-do, note, tag, person and
 * file, kept by triggers so that no way of writing can forget it, and `found` is the index of their words. The account
 * is a word of its own column, and so is the kind: the best places of one account, or its titles alone, are taken from
 * the index without looking at others.
 */
export async function up(schema: QueryInterface): Promise<void> {
  const run = (sql: string) => schema.sequelize.query(sql);
  await schema.addColumn('passages', 'written', { type: DataTypes.TEXT, allowNull: false, defaultValue: '' });
  await schema.addColumn('slips', 'file_text', optionalText);
  const passages = await schema.sequelize.query<{ id: number; text: string }>('SELECT id, text FROM passages', {
    type: QueryTypes.SELECT,
  });
  for (const { id, text } of passages) {
    const written = withNumerals(text);
    if (written === text) continue;
    await schema.sequelize.query('UPDATE passages SET written = ? WHERE id = ?', { replacements: [written, id] });
  }
  await run('DROP TABLE spoken');
  await run(`CREATE TABLE places (id INTEGER PRIMARY KEY, account_id UUID, owner TEXT NOT NULL, kind TEXT NOT NULL,
    recording_id UUID, note_id UUID, item_id, start_ms INTEGER, text TEXT NOT NULL)`);
  for (const column of ['recording_id', 'note_id', 'item_id'])
    await run(`CREATE INDEX places_${column} ON places (${column})`);
  await run(`CREATE VIRTUAL TABLE found USING fts5(owner, text, content = 'places', content_rowid = 'id',
    tokenize = 'porter unicode61 remove_diacritics 2', prefix = '1 2 3')`);
  await run("CREATE VIRTUAL TABLE found_words USING fts5vocab('found', 'col')");
  const added = 'INSERT INTO found (rowid, owner, text) VALUES (new.id, new.owner, new.text);';
  const gone = "INSERT INTO found (found, rowid, owner, text) VALUES ('delete', old.id, old.owner, old.text);";
  await run(`CREATE TRIGGER places_added AFTER INSERT ON places BEGIN ${added} END`);
  await run(`CREATE TRIGGER places_gone AFTER DELETE ON places BEGIN ${gone} END`);
  await run(`CREATE TRIGGER places_changed AFTER UPDATE ON places BEGIN ${gone} ${added} END`);
  for (const trigger of triggers()) await run(trigger);
  await fill(run);
}

const OWNER = (account: string) => `'a' || replace(${account}, '-', '')`;
const COLUMNS = 'account_id, owner, kind, recording_id, note_id, item_id, start_ms, text';

/** One row of `places`; everything is an SQL expression. */
export const place = (
  kind: string,
  account: string,
  at: { recording?: string; note?: string; item?: string; ms?: string },
  text: string,
) =>
  `${account}, ${OWNER(account)} || ' k${kind}', '${kind}', ${at.recording ?? 'NULL'}, ${at.note ?? 'NULL'}, ${at.item ?? 'NULL'}, ${at.ms ?? 'NULL'}, ${text}`;

export const insert = (values: string, where = '1') =>
  `INSERT INTO places (${COLUMNS}) SELECT ${values} WHERE ${where};`;
const accountOf = (recording: string) => `(SELECT account_id FROM recordings WHERE id = ${recording})`;

const titleOf = (r: string) =>
  place(
    'title',
    `${r}.account_id`,
    { recording: `${r}.id` },
    `coalesce(${r}.title, json_extract(${r}.suggestion, '$.title'), '')`,
  );
const fileNameOf = (r: string) => place('file', `${r}.account_id`, { recording: `${r}.id` }, `${r}.file_name`);
const passageOf = (p: string, column: string) =>
  place(
    'passage',
    accountOf(`${p}.recording_id`),
    { recording: `${p}.recording_id`, item: `${p}.id`, ms: `${p}.start_ms` },
    `${p}.${column}`,
  );
export const slipOf = (s: string) =>
  place(
    'slip',
    `${s}.account_id`,
    { recording: `${s}.recording_id`, item: `${s}.id`, ms: `${s}.start_ms` },
    `trim(${s}.text || ' ' || coalesce(${s}.address, ''))`,
  );
const slipFileOf = (s: string) =>
  place(
    'file',
    `${s}.account_id`,
    { recording: `${s}.recording_id`, item: `${s}.id`, ms: `${s}.start_ms` },
    `json_extract(${s}.file, '$.name') || ' ' || coalesce(${s}.file_text, '')`,
  );
const todoOf = (t: string) =>
  place(
    'todo',
    `${t}.account_id`,
    { recording: `${t}.recording_id`, item: `${t}.id`, ms: `${t}.start_ms` },
    `${t}.text`,
  );
const noteTitleOf = (n: string) => place('title', `${n}.account_id`, { note: `${n}.id` }, `${n}.title`);
const noteTextOf = (n: string) => place('note', `${n}.account_id`, { note: `${n}.id` }, `${n}.text`);
const tagOf = (link: string) =>
  place(
    'tag',
    accountOf(`${link}.recording_id`),
    { recording: `${link}.recording_id`, item: `${link}.tag_id` },
    `(SELECT name FROM tags WHERE id = ${link}.tag_id)`,
  );
const noteTagOf = (link: string) =>
  place(
    'tag',
    `(SELECT account_id FROM notes WHERE id = ${link}.note_id)`,
    { note: `${link}.note_id`, item: `${link}.tag_id` },
    `(SELECT name FROM tags WHERE id = ${link}.tag_id)`,
  );
const personOf = (link: string) =>
  place(
    'person',
    accountOf(`${link}.recording_id`),
    { recording: `${link}.recording_id`, item: `${link}.person_id` },
    `(SELECT name FROM people WHERE id = ${link}.person_id)`,
  );

const HAS_FILE = (s: string) => `${s}.binned_at IS NULL AND json_extract(${s}.file, '$.name') IS NOT NULL`;
const SHOWN_TODO = (t: string) => `${t}.binned_at IS NULL AND ${t}.state <> 'dropped'`;

function triggers(): string[] {
  const made: string[] = [];
  const on = (table: string, event: string, body: string, when = '') => {
    const name = `found_${table}_${event.split(' ')[0]!.toLowerCase()}_${made.length}`;
    made.push(`CREATE TRIGGER ${name} AFTER ${event} ON ${table} ${when} BEGIN ${body} END`);
  };
  const ofRecording = (r: string) => `${insert(titleOf(r))} ${insert(fileNameOf(r))}`;
  on('recordings', 'INSERT', ofRecording('new'));
  on(
    'recordings',
    'UPDATE OF title, suggestion, file_name',
    `DELETE FROM places WHERE recording_id = new.id AND item_id IS NULL; ${ofRecording('new')}`,
    "WHEN old.title IS NOT new.title OR old.file_name IS NOT new.file_name OR json_extract(old.suggestion, '$.title') IS NOT json_extract(new.suggestion, '$.title')",
  );
  on(
    'recordings',
    'UPDATE OF account_id',
    `UPDATE places SET account_id = new.account_id, owner = ${OWNER('new.account_id')} || ' k' || kind WHERE recording_id = new.id;`,
    'WHEN old.account_id IS NOT new.account_id',
  );
  on('recordings', 'DELETE', 'DELETE FROM places WHERE recording_id = old.id;');
  const ofPassage = `${insert(passageOf('new', 'text'), "new.text <> ''")} ${insert(passageOf('new', 'written'), "new.written NOT IN ('', new.text)")}`;
  const noPassage = (p: string) =>
    `DELETE FROM places WHERE item_id = ${p}.id AND kind = 'passage' AND recording_id = ${p}.recording_id;`;
  on('passages', 'INSERT', ofPassage);
  on('passages', 'UPDATE OF text, written, start_ms', `${noPassage('old')} ${ofPassage}`);
  on('passages', 'DELETE', noPassage('old'));
  const ofSlip = `${insert(slipOf('new'), "new.binned_at IS NULL AND trim(new.text || coalesce(new.address, '')) <> ''")} ${insert(slipFileOf('new'), HAS_FILE('new'))}`;
  on('slips', 'INSERT', ofSlip);
  on('slips', 'UPDATE', `DELETE FROM places WHERE item_id = old.id; ${ofSlip}`);
  on('slips', 'DELETE', 'DELETE FROM places WHERE item_id = old.id;');
  const ofTodo = insert(todoOf('new'), SHOWN_TODO('new'));
  on('todos', 'INSERT', ofTodo);
  on('todos', 'UPDATE', `DELETE FROM places WHERE item_id = old.id; ${ofTodo}`);
  on('todos', 'DELETE', 'DELETE FROM places WHERE item_id = old.id;');
  const ofNote = `${insert(noteTitleOf('new'), "new.binned_at IS NULL AND new.title <> ''")} ${insert(noteTextOf('new'), "new.binned_at IS NULL AND new.text <> ''")}`;
  on('notes', 'INSERT', ofNote);
  on(
    'notes',
    'UPDATE OF title, text, binned_at',
    `DELETE FROM places WHERE note_id = new.id AND item_id IS NULL; ${ofNote}`,
  );
  on(
    'notes',
    'UPDATE OF account_id',
    `UPDATE places SET account_id = new.account_id, owner = ${OWNER('new.account_id')} || ' k' || kind WHERE note_id = new.id;`,
    'WHEN old.account_id IS NOT new.account_id',
  );
  on('notes', 'DELETE', 'DELETE FROM places WHERE note_id = old.id;');
  on('recording_tags', 'INSERT', insert(tagOf('new')));
  on(
    'recording_tags',
    'UPDATE',
    `DELETE FROM places WHERE recording_id = old.recording_id AND item_id = old.tag_id; ${insert(tagOf('new'))}`,
  );
  on('recording_tags', 'DELETE', 'DELETE FROM places WHERE recording_id = old.recording_id AND item_id = old.tag_id;');
  on('note_tags', 'INSERT', insert(noteTagOf('new')));
  on('note_tags', 'DELETE', 'DELETE FROM places WHERE note_id = old.note_id AND item_id = old.tag_id;');
  on('tags', 'UPDATE OF name', "UPDATE places SET text = new.name WHERE item_id = new.id AND kind = 'tag';");
  on('recording_people', 'INSERT', insert(personOf('new')));
  on(
    'recording_people',
    'DELETE',
    'DELETE FROM places WHERE recording_id = old.recording_id AND item_id = old.person_id;',
  );
  on('people', 'UPDATE OF name', "UPDATE places SET text = new.name WHERE item_id = new.id AND kind = 'person';");
  return made;
}

/** What was there before the index. */
async function fill(run: (sql: string) => Promise<unknown>): Promise<void> {
  const all = (values: string, from: string, where = '1') =>
    run(`INSERT INTO places (${COLUMNS}) SELECT ${values} FROM ${from} WHERE ${where}`);
  await all(titleOf('r'), 'recordings r');
  await all(fileNameOf('r'), 'recordings r');
  await all(passageOf('p', 'text'), 'passages p', "p.text <> ''");
  await all(passageOf('p', 'written'), 'passages p', "p.written NOT IN ('', p.text)");
  await all(slipOf('s'), 'slips s', "s.binned_at IS NULL AND trim(s.text || coalesce(s.address, '')) <> ''");
  await all(slipFileOf('s'), 'slips s', HAS_FILE('s'));
  await all(todoOf('t'), 'todos t', SHOWN_TODO('t'));
  await all(tagOf('l'), 'recording_tags l');
}
