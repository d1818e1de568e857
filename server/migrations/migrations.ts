import type { QueryInterface, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import * as beginning from './0001-beginning';
import * as capture from './0002-capture';
import * as accounts from './0004-accounts';
import * as moreSounds from './0005-more-sounds';
import * as videos from './0006-videos';
import * as corrections from './0007-corrections';
import * as speakers from './0008-speakers';
import * as replacements from './0009-replacements';
import * as margin from './0010-margin';
import * as dictation from './0011-dictation';
import * as cleanedRecognition from './0012-cleaned-recognition';
import * as filing from './0013-filing';
import * as finding from './0014-finding';
import * as todoList from './0015-todo-list';
import * as sheets from './0016-sheets';
import * as sheetsOfSeveral from './0017-sheets-of-several';
import * as noteHistory from './0018-note-history';
import * as languageModel from './0019-language-model';
import * as noteTodos from './0020-note-todos';
import * as shareLinks from './0021-share-links';
import * as noteTextChanged from './0022-note-text-changed';
import * as security from './0023-security';
import * as listOrder from './0024-list-order';
import * as qualityOfRecognition from './0025-quality-of-recognition';
import * as firstWords from './0026-first-words';
import * as kindsOfRecordings from './0027-kinds-of-recordings';
import * as arrival from './0028-arrival';
import * as wholeRecording from './0029-whole-recording';
import * as slides from './0030-slides';
import * as recall from './0031-recall';
import * as appointments from './0003-appointments';

/** In order; a migration that has shipped is never changed, a new one is added. */
const MIGRATIONS: { name: string; up: (schema: QueryInterface) => Promise<void> }[] = [
  { name: '0001-beginning', up: beginning.up },
  { name: '0002-capture', up: capture.up },
  { name: '0003-appointments', up: appointments.up },
  { name: '0004-accounts', up: accounts.up },
  { name: '0005-more-sounds', up: moreSounds.up },
  { name: '0006-videos', up: videos.up },
  { name: '0007-corrections', up: corrections.up },
  { name: '0008-speakers', up: speakers.up },
  { name: '0009-replacements', up: replacements.up },
  { name: '0010-margin', up: margin.up },
  { name: '0011-dictation', up: dictation.up },
  { name: '0012-cleaned-recognition', up: cleanedRecognition.up },
  { name: '0013-filing', up: filing.up },
  { name: '0014-finding', up: finding.up },
  { name: '0015-todo-list', up: todoList.up },
  { name: '0016-sheets', up: sheets.up },
  { name: '0017-sheets-of-several', up: sheetsOfSeveral.up },
  { name: '0018-note-history', up: noteHistory.up },
  { name: '0019-language-model', up: languageModel.up },
  { name: '0020-note-todos', up: noteTodos.up },
  { name: '0021-share-links', up: shareLinks.up },
  { name: '0022-note-text-changed', up: noteTextChanged.up },
  { name: '0023-security', up: security.up },
  { name: '0024-list-order', up: listOrder.up },
  { name: '0025-quality-of-recognition', up: qualityOfRecognition.up },
  { name: '0026-first-words', up: firstWords.up },
  { name: '0027-kinds-of-recordings', up: kindsOfRecordings.up },
  { name: '0028-arrival', up: arrival.up },
  { name: '0029-whole-recording', up: wholeRecording.up },
  { name: '0030-slides', up: slides.up },
  { name: '0031-recall', up: recall.up },
];

export const MIGRATION_NAMES: readonly string[] = MIGRATIONS.map((m) => m.name);

/**
 * Brings the database to the newest form, or to the one that these migrations make. Rejects with the migration's error
 * and leaves the earlier ones done.
 */
export async function migrate(database: Sequelize, only?: readonly string[]): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({
      name,
      up: async ({ context }: { context: QueryInterface }) => up(context),
    })),
    context: database.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize: database }),
    logger: undefined,
  });
  await (only ? umzug.up({ migrations: [...only] }) : umzug.up());
}
