import type { Word } from '@immeld/core/transcript/manuscript';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

/** A passage before a replacement; `revision` is the one that it got by it. */
export type ReplacedPassage = { recordingId: string; passageId: number; revision: number; words: Word[] };

/** Words that were replaced in many passages at once, kept so that it can be taken back. */
export class ReplacementRow extends Model<InferAttributes<ReplacementRow>, InferCreationAttributes<ReplacementRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare find: string;
  declare by: string;
  declare passages: ReplacedPassage[];

  static initialise(sequelize: Sequelize): void {
    ReplacementRow.init(
      {
        ...owned(),
        find: DataTypes.TEXT,
        by: DataTypes.TEXT,
        passages: DataTypes.JSON,
      },
      { sequelize, tableName: 'replacements', modelName: 'replacement' },
    );
  }
}
