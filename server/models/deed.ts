import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

/** A row that was changed: what stood there and what stands there now; null for a row that is not there. */
export type DeedStep = {
  model: string;
  /** Values of the primary key. */
  key: Record<string, string>;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
};

/** Something that a person did, with the way back. */
export class DeedRow extends Model<InferAttributes<DeedRow>, InferCreationAttributes<DeedRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare text: string;
  declare steps: DeedStep[];
  declare undoneAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;

  static initialise(sequelize: Sequelize): void {
    DeedRow.init(
      {
        ...owned(),
        text: DataTypes.TEXT,
        steps: DataTypes.JSON,
        undoneAt: DataTypes.DATE,
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'deeds', modelName: 'deed' },
    );
  }
}
