import type { PencilState } from '@immeld/core/contract/recordings';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { Recording } from './recording';

export class TodoRow extends Model<InferAttributes<TodoRow>, InferCreationAttributes<TodoRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare recordingId: string | null;
  declare text: string;
  declare who: string | null;
  declare due: string | null;
  declare project: string | null;
  declare quote: string | null;
  declare startMs: number | null;
  declare state: PencilState;
  declare doneAt: Date | null;
  declare binnedAt: Date | null;
  /** Whether a person changed it; recognising again then leaves it alone. */
  declare isChanged: CreationOptional<boolean>;
  declare createdAt: CreationOptional<Date>;
  declare recording?: NonAttribute<Recording>;

  static initialise(sequelize: Sequelize): void {
    TodoRow.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
        accountId: DataTypes.UUID,
        recordingId: DataTypes.UUID,
        text: DataTypes.TEXT,
        who: DataTypes.TEXT,
        due: DataTypes.TEXT,
        project: DataTypes.TEXT,
        quote: DataTypes.TEXT,
        startMs: DataTypes.INTEGER,
        state: DataTypes.TEXT,
        doneAt: DataTypes.DATE,
        binnedAt: DataTypes.DATE,
        isChanged: { type: DataTypes.BOOLEAN, defaultValue: false },
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'todos', modelName: 'todo' },
    );
  }
}
