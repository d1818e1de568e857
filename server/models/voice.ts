import type { StoredVoice } from '@immeld/core/speech/speakers/voiceStatistics';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

/** A voice to which a person has given a name, so that it is known again. */
export class VoiceRow extends Model<InferAttributes<VoiceRow>, InferCreationAttributes<VoiceRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  /** Where it was named first. */
  declare recordingId: string | null;
  declare voice: StoredVoice;

  static initialise(sequelize: Sequelize): void {
    VoiceRow.init(
      {
        ...owned(),
        name: DataTypes.TEXT,
        recordingId: DataTypes.UUID,
        voice: DataTypes.JSON,
      },
      { sequelize, tableName: 'voices', modelName: 'voice' },
    );
  }
}
