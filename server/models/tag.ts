import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned, tiedId } from './columns';

export class Tag extends Model<InferAttributes<Tag>, InferCreationAttributes<Tag>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  declare isPinned: CreationOptional<boolean>;

  static initialise(sequelize: Sequelize): void {
    Tag.init(
      {
        ...owned(),
        name: DataTypes.TEXT,
        isPinned: { type: DataTypes.BOOLEAN, defaultValue: false },
      },
      { sequelize, tableName: 'tags', modelName: 'tag' },
    );
  }
}

export class RecordingTag extends Model<InferAttributes<RecordingTag>, InferCreationAttributes<RecordingTag>> {
  declare recordingId: string;
  declare tagId: string;

  static initialise(sequelize: Sequelize): void {
    RecordingTag.init(
      {
        recordingId: tiedId(),
        tagId: tiedId(),
      },
      { sequelize, tableName: 'recording_tags', modelName: 'recordingTag', timestamps: false },
    );
  }
}
