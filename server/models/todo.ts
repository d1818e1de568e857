import type { Priority } from '@immeld/core/contract/todos';
import type { PencilState } from '@immeld/core/contract/pencil';
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
import { owned } from './columns';

export class TodoRow extends Model<InferAttributes<TodoRow>, InferCreationAttributes<TodoRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare recordingId: string | null;
  /** The note whose check box it is. */
  declare noteId: CreationOptional<string | null>;
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
  /** As it was found, so that it is known again when it was reworded. */
  declare foundText: CreationOptional<string | null>;
  /** Probability that it is one, 0 to 1, where it was found. */
  declare sure: CreationOptional<number | null>;
  declare priority: CreationOptional<Priority | null>;
  declare repeat: CreationOptional<string | null>;
  declare notes: CreationOptional<string>;
  declare snoozedUntil: CreationOptional<string | null>;
  declare position: CreationOptional<number | null>;
  /** The one that stands for its next time, made when it was done. */
  declare nextId: CreationOptional<string | null>;
  declare createdAt: CreationOptional<Date>;
  declare recording?: NonAttribute<Recording>;

  static initialise(sequelize: Sequelize): void {
    TodoRow.init(
      {
        ...owned(),
        recordingId: DataTypes.UUID,
        noteId: { type: DataTypes.UUID, defaultValue: null },
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
        foundText: { type: DataTypes.TEXT, defaultValue: null },
        sure: { type: DataTypes.REAL, defaultValue: null },
        priority: { type: DataTypes.TEXT, defaultValue: null },
        repeat: { type: DataTypes.TEXT, defaultValue: null },
        notes: { type: DataTypes.TEXT, defaultValue: '' },
        snoozedUntil: { type: DataTypes.TEXT, defaultValue: null },
        position: { type: DataTypes.REAL, defaultValue: null },
        nextId: { type: DataTypes.UUID, defaultValue: null },
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'todos', modelName: 'todo' },
    );
  }
}
