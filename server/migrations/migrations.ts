import type { QueryInterface, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import * as beginning from './0001-beginning';
import * as capture from './0002-capture';
import * as accounts from './0004-accounts';
import * as moreSounds from './0005-more-sounds';
import * as videos from './0006-videos';
import * as corrections from './0007-corrections';
import * as speakers from './0008-speakers';
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
];

/** Brings the database to the newest form. Rejects with the migration's error and leaves the earlier ones done. */
export async function migrate(database: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({
      name,
      up: async ({ context }: { context: QueryInterface }) => up(context),
    })),
    context: database.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize: database }),
    logger: undefined,
  });
  await umzug.up();
}
