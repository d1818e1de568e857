import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { JobState } from '@immeld/core/contract/jobs';
import type { Quality } from '@immeld/core/speech/packs';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import { jsonText } from './jsonText';
import type { Recording } from './recording';
import { owned } from './columns';

/** A recognition. Rows outlive the server: what was running when it died waits again at the next start. */
export class JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare recordingId: string;
  declare state: JobState;
  declare percent: number | null;
  declare problem: string | null;
  /** How the sound is cleaned first; null for as it is. */
  declare cleaning: CreationOptional<Cleaning | null>;
  /** The pack that was asked for; null for the server's own. */
  declare quality: CreationOptional<Quality | null>;
  /** When it was moved to the front of the queue; the latest comes first. */
  declare frontAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
  declare recording?: NonAttribute<Recording>;

  static initialise(sequelize: Sequelize): void {
    JobRow.init(
      {
        ...owned(),
        recordingId: DataTypes.UUID,
        state: DataTypes.TEXT,
        percent: DataTypes.FLOAT,
        problem: DataTypes.TEXT,
        cleaning: jsonText<Cleaning | null>('cleaning', null),
        quality: DataTypes.TEXT,
        frontAt: DataTypes.DATE,
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'jobs', modelName: 'job' },
    );
  }
}
