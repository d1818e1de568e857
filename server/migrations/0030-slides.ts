import { QueryTypes, type QueryInterface } from 'sequelize';
import { insert, place, slipOf } from './0014-finding';
import { optionalText } from './columns';

const WORDS = (s: string) =>
  `trim(coalesce(json_extract(${s}.file, '$.name'), '') || ' ' || coalesce(${s}.file_text, ''))`;

/** Slides know their page, and the words of slides and pictures are found as those of files are. */
export async function up(schema: QueryInterface): Promise<void> {
  const run = (sql: string) => schema.sequelize.query(sql);
  await schema.addColumn('slips', 'slide', optionalText);
  const old = await schema.sequelize.query<{ name: string }>(
    `SELECT name FROM sqlite_master WHERE type = 'trigger' AND tbl_name = 'slips'
     AND (name LIKE 'found\\_slips\\_insert\\_%' ESCAPE '\\' OR name LIKE 'found\\_slips\\_update\\_%' ESCAPE '\\')`,
    { type: QueryTypes.SELECT },
  );
  for (const { name } of old) await run(`DROP TRIGGER ${name}`);
  const words = place(
    'file',
    'new.account_id',
    { recording: 'new.recording_id', item: 'new.id', ms: 'new.start_ms' },
    WORDS('new'),
  );
  const ofSlip = `${insert(slipOf('new'), "new.binned_at IS NULL AND trim(new.text || coalesce(new.address, '')) <> ''")}
    ${insert(words, `new.binned_at IS NULL AND ${WORDS('new')} <> ''`)}`;
  await run(`CREATE TRIGGER found_slips_insert_slides AFTER INSERT ON slips BEGIN ${ofSlip} END`);
  await run(
    `CREATE TRIGGER found_slips_update_slides AFTER UPDATE ON slips BEGIN DELETE FROM places WHERE item_id = old.id; ${ofSlip} END`,
  );
}
