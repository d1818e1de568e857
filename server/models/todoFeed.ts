import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize';
import { tiedId } from './columns';

/** The private address under which calendar programs get the to-dos of an account. */
export class TodoFeedRow extends Model<InferAttributes<TodoFeedRow>, InferCreationAttributes<TodoFeedRow>> {
  declare accountId: string;
  /** 128 random bits as hex, sealed. */
  declare token: string;
  declare tokenHash: string;

  static initialise(sequelize: Sequelize): void {
    TodoFeedRow.init(
      { accountId: tiedId(), token: DataTypes.TEXT, tokenHash: DataTypes.TEXT },
      { sequelize, tableName: 'todo_feeds', modelName: 'todoFeed' },
    );
  }
}
