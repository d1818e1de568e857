import { DataTypes, type Model } from 'sequelize';

/** A column of text that holds JSON: SQLite can add it to a table that has rows. Empty, it reads as `empty`. */
export const jsonText = <T>(name: string, empty: T) => ({
  type: DataTypes.TEXT,
  get(this: Model): T {
    const kept = this.getDataValue(name as never) as string | null | undefined;
    return kept === null || kept === undefined ? empty : (JSON.parse(kept) as T);
  },
  set(this: Model, value: T): void {
    this.setDataValue(name as never, (value === null ? null : JSON.stringify(value)) as never);
  },
});
