import { AsyncLocalStorage } from 'node:async_hooks';
import { type Model, type ModelStatic, Op, type Sequelize } from 'sequelize';

/**
 * Whose request is being answered. Every row that has an address belongs to an account; the hooks below put the
 * account into every query and every new row, so that no route can forget it. Work that belongs to nobody, such as
 * emptying the bin, runs outside and sees all.
 */
const current = new AsyncLocalStorage<{ accountId: string } | null>();

export const accountId = (): string | null => current.getStore()?.accountId ?? null;

export const asAccount = <T>(id: string, work: () => T): T => current.run({ accountId: id }, work);

/** For the server's own work, which a request may have set off. */
export const asServer = <T>(work: () => T): T => current.run(null, work);

type Owned = ModelStatic<Model>;
type Conditions = { where?: unknown };

const isOwned = (model: Owned): boolean => 'accountId' in model.getAttributes();

function narrow(model: Owned, options: Conditions, column = 'accountId'): void {
  const id = accountId();
  if (!id || !isOwned(model)) return;
  const own = { [column]: id };
  options.where = options.where ? { [Op.and]: [options.where, own] } : own;
}

/** Binds the rule to all models of a database. */
export function scopeToAccounts(database: Sequelize): void {
  for (const model of Object.values(database.models) as Owned[]) {
    const own = (row: Model) => {
      const id = accountId();
      if (id && isOwned(model) && !row.get('accountId')) row.set('accountId' as never, id as never);
    };
    model.addHook('beforeFind', (options: Conditions) => narrow(model, options));
    model.addHook('beforeCount', (options: Conditions) => narrow(model, options));
    model.addHook('beforeBulkUpdate', (options: Conditions) => narrow(model, options));
    // Sequelize has turned names of attributes into names of columns before it calls this one.
    model.addHook('beforeBulkDestroy', (options: Conditions) => narrow(model, options, 'account_id'));
    model.addHook('beforeValidate', (row: Model) => own(row));
    model.addHook('beforeBulkCreate', (rows: Model[]) => rows.forEach(own));
  }
}
