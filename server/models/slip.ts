import type { MarkKind, SlideFacts, SlipComment, SlipFile, SlipKind } from '@immeld/core/contract/slips';
import { jsonText } from './jsonText';
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
  /** It belongs to the whole recording; its time is the beginning. */
  declare isWhole: CreationOptional<boolean>;
  declare text: string;
  /** Name inside the sound folder. */
  declare pictureFile: string | null;
  declare binnedAt: Date | null;
  declare address: CreationOptional<string | null>;
  /** What was put beside the words; its bytes lie in the folder under the slip's id. */
  declare file: CreationOptional<SlipFile | null>;
  declare slide: CreationOptional<SlideFacts | null>;
  /** The words of the file, the slide or the picture, where they could be read. */
  declare fileText: CreationOptional<string | null>;
  declare assignee: CreationOptional<string | null>;
  declare comments: CreationOptional<SlipComment[]>;

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
        isWhole: { type: DataTypes.BOOLEAN, defaultValue: false },
        text: DataTypes.TEXT,
        pictureFile: DataTypes.TEXT,
        binnedAt: DataTypes.DATE,
        address: DataTypes.TEXT,
        file: jsonText<SlipFile | null>('file', null),
        slide: jsonText<SlideFacts | null>('slide', null),
        fileText: DataTypes.TEXT,
        assignee: DataTypes.TEXT,
        comments: jsonText<SlipComment[]>('comments', []),
      },
      { sequelize, tableName: 'slips', modelName: 'slip' },
    );
  }
}
