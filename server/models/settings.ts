import { type SharedSettings, USUAL_SETTINGS } from '@immeld/core/contract/settings';
import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize';

/** One row with the settings that hold on all devices. */
export class SettingsRow extends Model<InferAttributes<SettingsRow>, InferCreationAttributes<SettingsRow>> {
  declare id: string;
  declare settings: Partial<SharedSettings>;

  static initialise(sequelize: Sequelize): void {
    SettingsRow.init(
      { id: { type: DataTypes.TEXT, primaryKey: true }, settings: DataTypes.JSON },
      { sequelize, tableName: 'settings', modelName: 'settings' },
    );
  }
}

const ROW = 'all';

export async function sharedSettings(): Promise<SharedSettings> {
  return { ...USUAL_SETTINGS, ...(await SettingsRow.findByPk(ROW))?.settings };
}

export async function changeSharedSettings(part: Partial<SharedSettings>): Promise<SharedSettings> {
  const settings = { ...(await sharedSettings()), ...part };
  await SettingsRow.upsert({ id: ROW, settings });
  return settings;
}
