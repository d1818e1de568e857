import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

export class Tag extends Model<InferAttributes<Tag>, InferCreationAttributes<Tag>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  declare isPinned: CreationOptional<boolean>;

  static initialise(sequelize: Sequelize): void {
    Tag.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
        accountId: DataTypes.UUID,
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
        recordingId: { type: DataTypes.UUID, primaryKey: true },
        tagId: { type: DataTypes.UUID, primaryKey: true },
      },
      { sequelize, tableName: 'recording_tags', modelName: 'recordingTag', timestamps: false },
    );
  }
}
