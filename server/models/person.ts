import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** Somebody who speaks in recordings or is spoken with, with the other names they go by. */
export class Person extends Model<InferAttributes<Person>, InferCreationAttributes<Person>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  declare otherNames: string[];

  static initialise(sequelize: Sequelize): void {
    Person.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
        accountId: DataTypes.UUID,
        name: DataTypes.TEXT,
        otherNames: DataTypes.JSON,
      },
      { sequelize, tableName: 'people', modelName: 'person' },
    );
  }
}

export class RecordingPerson extends Model<InferAttributes<RecordingPerson>, InferCreationAttributes<RecordingPerson>> {
  declare recordingId: string;
  declare personId: string;

  static initialise(sequelize: Sequelize): void {
    RecordingPerson.init(
      {
        recordingId: { type: DataTypes.UUID, primaryKey: true },
        personId: { type: DataTypes.UUID, primaryKey: true },
      },
      { sequelize, tableName: 'recording_people', modelName: 'recordingPerson', timestamps: false },
    );
  }
}
