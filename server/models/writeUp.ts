import type { PencilState } from '@immeld/core/contract/pencil';
import type { WriteUp } from '@immeld/core/contract/recordings';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

export class WriteUpRow extends Model<InferAttributes<WriteUpRow>, InferCreationAttributes<WriteUpRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare recordingId: string;
  declare template: WriteUp['template'];
  declare sentencesAsked: number;
  declare state: PencilState;
  declare sentences: WriteUp['sentences'];
  declare editedText: string | null;

  static initialise(sequelize: Sequelize): void {
    WriteUpRow.init(
      {
        ...owned(),
        recordingId: DataTypes.UUID,
        template: DataTypes.TEXT,
        sentencesAsked: DataTypes.INTEGER,
        state: DataTypes.TEXT,
        sentences: DataTypes.JSON,
        editedText: DataTypes.TEXT,
      },
      { sequelize, tableName: 'write_ups', modelName: 'writeUp' },
    );
  }
}
