import type { Scope } from '@immeld/core/contract/scope';
import type { MadeSection, Template } from '@immeld/core/contract/templates';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

/** A template of one's own. */
export class TemplateRow extends Model<InferAttributes<TemplateRow>, InferCreationAttributes<TemplateRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  declare template: Template;

  static initialise(sequelize: Sequelize): void {
    TemplateRow.init(
      {
        ...owned(),
        name: DataTypes.TEXT,
        template: DataTypes.JSON,
      },
      { sequelize, tableName: 'templates', modelName: 'template' },
    );
  }
}

/** A write-up in pencil. */
export class SheetRow extends Model<InferAttributes<SheetRow>, InferCreationAttributes<SheetRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  /** Null for one of several recordings, which has a scope. */
  declare recordingId: string | null;
  declare scope: CreationOptional<Scope | null>;
  declare isByModel: CreationOptional<boolean>;
  declare template: Template;
  declare sections: MadeSection[];

  static initialise(sequelize: Sequelize): void {
    SheetRow.init(
      {
        ...owned(),
        recordingId: DataTypes.UUID,
        scope: DataTypes.JSON,
        isByModel: { type: DataTypes.BOOLEAN, defaultValue: false },
        template: DataTypes.JSON,
        sections: DataTypes.JSON,
      },
      { sequelize, tableName: 'sheets', modelName: 'sheet' },
    );
  }
}
