import type { RecallState } from '@immeld/core/study/schedule';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

/** A question by which something of a recording is recalled. */
export class RecallRow extends Model<InferAttributes<RecallRow>, InferCreationAttributes<RecallRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare recordingId: string;
  declare question: string;
  declare answer: string;
  declare startMs: number;
  declare endMs: number;
  declare isOwn: boolean;
  declare schedule: RecallState;
  /** As in the schedule, so that what is due can be found. An instant in ISO 8601. */
  declare dueAt: string;
  declare binnedAt: Date | null;
  declare createdAt: CreationOptional<Date>;

  static initialise(sequelize: Sequelize): void {
    RecallRow.init(
      {
        ...owned(),
        recordingId: DataTypes.UUID,
        question: DataTypes.TEXT,
        answer: DataTypes.TEXT,
        startMs: DataTypes.INTEGER,
        endMs: DataTypes.INTEGER,
        isOwn: DataTypes.BOOLEAN,
        schedule: DataTypes.JSON,
        dueAt: DataTypes.TEXT,
        binnedAt: DataTypes.DATE,
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'recalls', modelName: 'recall' },
    );
  }
}
