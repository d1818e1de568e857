import type { Passage } from '@immeld/core/transcript/manuscript';
import { type VERSION_KINDS } from '@immeld/core/contract/corrections';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { ownId } from './columns';

/** The whole text of a recording as it stood at some time. */
export class TranscriptVersion extends Model<
  InferAttributes<TranscriptVersion>,
  InferCreationAttributes<TranscriptVersion>
> {
  declare id: CreationOptional<string>;
  declare recordingId: string;
  declare kind: (typeof VERSION_KINDS)[number];
  declare passages: Passage[];
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;

  static initialise(sequelize: Sequelize): void {
    TranscriptVersion.init(
      {
        id: ownId(),
        recordingId: DataTypes.UUID,
        kind: DataTypes.TEXT,
        passages: DataTypes.JSON,
        createdAt: DataTypes.DATE,
        updatedAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'transcript_versions', modelName: 'transcriptVersion' },
    );
  }
}
