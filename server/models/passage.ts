import { withNumerals } from '@immeld/core/transcript/inverseTextNormalisation';
import type { Word } from '@immeld/core/transcript/manuscript';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A passage of a recording's manuscript, in order of `position`. */
export class PassageRow extends Model<InferAttributes<PassageRow>, InferCreationAttributes<PassageRow>> {
  declare id: CreationOptional<number>;
  declare recordingId: string;
  declare position: number;
  declare startMs: number;
  declare endMs: number;
  declare speaker: string | null;
  declare startsParagraph: boolean;
  declare words: Word[];
  /** As it was said; setting it sets how it is written too. */
  declare text: string;
  /** The same with numbers in figures: it is found by both. */
  declare written: CreationOptional<string>;
  /** Counts the changes of this passage. */
  declare revision: CreationOptional<number>;
  /** Whether a person has changed it. */
  declare isCorrected: CreationOptional<boolean>;

  static initialise(sequelize: Sequelize): void {
    PassageRow.init(
      {
        id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
        recordingId: DataTypes.UUID,
        position: DataTypes.INTEGER,
        startMs: DataTypes.INTEGER,
        endMs: DataTypes.INTEGER,
        speaker: DataTypes.TEXT,
        startsParagraph: DataTypes.BOOLEAN,
        words: DataTypes.JSON,
        text: {
          type: DataTypes.TEXT,
          set(value: string) {
            this.setDataValue('text', value);
            this.setDataValue('written', withNumerals(value));
          },
        },
        written: { type: DataTypes.TEXT, defaultValue: '' },
        revision: { type: DataTypes.INTEGER, defaultValue: 0 },
        isCorrected: { type: DataTypes.BOOLEAN, defaultValue: false },
      },
      { sequelize, tableName: 'passages', modelName: 'passage', timestamps: false },
    );
  }
}
