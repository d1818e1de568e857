import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

/** A project that to-dos are sorted by, with the other names it goes by in speech. */
export class Project extends Model<InferAttributes<Project>, InferCreationAttributes<Project>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  declare otherNames: string[];

  static initialise(sequelize: Sequelize): void {
    Project.init(
      {
        ...owned(),
        name: DataTypes.TEXT,
        otherNames: DataTypes.JSON,
      },
      { sequelize, tableName: 'projects', modelName: 'project' },
    );
  }
}
