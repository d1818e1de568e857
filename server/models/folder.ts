import type { Tint } from '@immeld/core/contract/shelves';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

export class Folder extends Model<InferAttributes<Folder>, InferCreationAttributes<Folder>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  declare tint: Tint;
  declare parentId: string | null;
  declare binnedAt: Date | null;
  /** Place among the folders of the same parent. */
  declare position: CreationOptional<number>;

  static initialise(sequelize: Sequelize): void {
    Folder.init(
      {
        ...owned(),
        name: DataTypes.TEXT,
        tint: DataTypes.TEXT,
        parentId: DataTypes.UUID,
        binnedAt: DataTypes.DATE,
        position: { type: DataTypes.INTEGER, defaultValue: 0 },
      },
      { sequelize, tableName: 'folders', modelName: 'folder' },
    );
  }
}
