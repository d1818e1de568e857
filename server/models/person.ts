import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned, tiedId } from './columns';

/** Somebody who speaks in recordings or is spoken with, with the other names they go by. */
export class Person extends Model<InferAttributes<Person>, InferCreationAttributes<Person>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  declare otherNames: string[];

  static initialise(sequelize: Sequelize): void {
    Person.init(
      {
        ...owned(),
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
        recordingId: tiedId(),
        personId: tiedId(),
      },
      { sequelize, tableName: 'recording_people', modelName: 'recordingPerson', timestamps: false },
    );
  }
}
