import type { JobState } from '@immeld/core/contract/jobs';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { Recording } from './recording';

/** A recognition. Rows outlive the server: what was running when it died waits again at the next start. */
export class JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare recordingId: string;
  declare state: JobState;
  declare percent: number | null;
  declare problem: string | null;
  declare createdAt: CreationOptional<Date>;
  declare recording?: NonAttribute<Recording>;

  static initialise(sequelize: Sequelize): void {
    JobRow.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
        accountId: DataTypes.UUID,
        recordingId: DataTypes.UUID,
        state: DataTypes.TEXT,
        percent: DataTypes.FLOAT,
        problem: DataTypes.TEXT,
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'jobs', modelName: 'job' },
    );
  }
}
