import type { KeptVoice } from '@immeld/core/speech/speakers/voiceStatistics';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** A voice to which a person has given a name, so that it is known again. */
export class VoiceRow extends Model<InferAttributes<VoiceRow>, InferCreationAttributes<VoiceRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  /** Where it was named first. */
  declare recordingId: string | null;
  declare voice: KeptVoice;

  static initialise(sequelize: Sequelize): void {
    VoiceRow.init(
      {
        id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
        accountId: DataTypes.UUID,
        name: DataTypes.TEXT,
        recordingId: DataTypes.UUID,
        voice: DataTypes.JSON,
      },
      { sequelize, tableName: 'voices', modelName: 'voice' },
    );
  }
}
