import type { MarkKind, SlipKind } from '@immeld/core/contract/slips';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** Something in the margin of a recording, at its moment. */
export class SlipRow extends Model<InferAttributes<SlipRow>, InferCreationAttributes<SlipRow>> {
  declare id: string;
  declare accountId: CreationOptional<string>;
  declare recordingId: string;
  declare kind: SlipKind;
  declare mark: MarkKind | null;
  declare startMs: number;
  declare endMs: number | null;
  declare text: string;
  /** Name inside the sound folder. */
  declare pictureFile: string | null;
  declare binnedAt: Date | null;

  static initialise(sequelize: Sequelize): void {
    SlipRow.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        accountId: DataTypes.UUID,
        recordingId: DataTypes.UUID,
        kind: DataTypes.TEXT,
        mark: DataTypes.TEXT,
        startMs: DataTypes.INTEGER,
        endMs: DataTypes.INTEGER,
        text: DataTypes.TEXT,
        pictureFile: DataTypes.TEXT,
        binnedAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'slips', modelName: 'slip' },
    );
  }
}
