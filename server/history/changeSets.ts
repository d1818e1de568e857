import { Problem } from '@immeld/core/contract/problem';
import type { Done } from '@immeld/core/contract/shelves';
import { isDeepStrictEqual } from 'node:util';
import type { Model, ModelStatic, Sequelize, Transaction } from 'sequelize';
import { DeedRow, type DeedStep } from '../models/deed';

type Values = Record<string, unknown>;

/** So many deeds of an account are kept with their way back. */
const KEPT_DEEDS = 500;

/** As it is kept: instants as text, nothing undefined. */
const plain = (values: Values): Values => JSON.parse(JSON.stringify(values)) as Values;

const pick = (row: Model, names: readonly string[]): Values =>
  plain(Object.fromEntries(names.map((n) => [n, row.get(n) ?? null])));

/** Writes down each change of a row before it is made, so that all of it can be undone together. */
export class ChangeSet {
  readonly steps: DeedStep[] = [];

  constructor(readonly transaction: Transaction) {}

  /** Changes a row; what stays the same is not written down. */
  async change<M extends Model>(row: M, values: Partial<M['_attributes']>): Promise<void> {
    const names = Object.keys(values).filter(
      (n) =>
        (values as Values)[n] !== undefined &&
        !isDeepStrictEqual(plain({ v: row.get(n) ?? null }), plain({ v: (values as Values)[n] ?? null })),
    );
    if (names.length === 0) return;
    const before = pick(row, names);
    await row.update(values as Values, { transaction: this.transaction });
    this.steps.push({ ...this.place(row), before, after: pick(row, names) });
  }

  async create<M extends Model>(model: ModelStatic<M>, values: Values): Promise<M> {
    const row = await model.create(values as never, { transaction: this.transaction });
    this.steps.push({ ...this.place(row), before: null, after: {} });
    return row;
  }

  async destroy(row: Model): Promise<void> {
    this.steps.push({ ...this.place(row), before: plain(row.get() as Values), after: null });
    await row.destroy({ transaction: this.transaction });
  }

  private place(row: Model): { model: string; key: Record<string, string> } {
    const model = row.constructor as ModelStatic<Model>;
    const key = Object.fromEntries(model.primaryKeyAttributes.map((name) => [name, String(row.get(name))]));
    return { model: model.name, key };
  }
}

/**
 * Does something in one transaction and keeps the way back.
 * @param work returns what was done, in words, and how many things it was done to
 */
export async function recordChanges(
  database: Sequelize,
  work: (deed: ChangeSet) => Promise<{ text: string; count: number }>,
): Promise<Done> {
  return database.transaction(async (transaction) => {
    const deed = new ChangeSet(transaction);
    const { text, count } = await work(deed);
    if (deed.steps.length === 0) return { deedId: null, text, count };
    const row = await DeedRow.create({ text, steps: deed.steps }, { transaction });
    await forgetOld(transaction);
    return { deedId: row.id, text, count };
  });
}

async function forgetOld(transaction: Transaction): Promise<void> {
  const old = await DeedRow.findAll({
    attributes: ['id'],
    order: [['createdAt', 'DESC']],
    offset: KEPT_DEEDS,
    limit: KEPT_DEEDS,
    transaction,
  });
  if (old.length) await DeedRow.destroy({ where: { id: old.map((d) => d.id) }, transaction });
}

/**
 * Takes a deed back, the last step first. A row that was changed since keeps what it has now.
 * Throws not-found for a deed that is not kept, not-possible-now for one that was undone.
 */
export async function undo(database: Sequelize, id: string): Promise<{ undone: number; kept: number }> {
  return database.transaction(async (transaction) => {
    const deed = await DeedRow.findByPk(id, { transaction });
    if (!deed) throw new Problem('not-found', 'This change is too old to undo.');
    if (deed.undoneAt) throw new Problem('not-possible-now', 'This change has already been undone.');
    let undone = 0;
    let kept = 0;
    for (const step of [...deed.steps].reverse()) {
      if (await takeBack(database, step, transaction)) undone++;
      else kept++;
    }
    await deed.update({ undoneAt: new Date() }, { transaction });
    return { undone, kept };
  });
}

async function takeBack(
  database: Sequelize,
  { model, key, before, after }: DeedStep,
  transaction: Transaction,
): Promise<boolean> {
  const rows = database.model(model);
  const row = await rows.findOne({ where: key, transaction });
  if (after === null) {
    if (row) return false;
    await rows.create({ ...before, ...key }, { transaction });
    return true;
  }
  if (!row) return false;
  if (before === null) {
    await row.destroy({ transaction });
    return true;
  }
  if (!isDeepStrictEqual(pick(row, Object.keys(after)), after)) return false;
  await row.update(before, { transaction });
  return true;
}
