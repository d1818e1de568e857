import { accountId } from '../accounts/currentAccount';
import { usualQuality } from '../recognition/modelFiles';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { type SharedSettings, USUAL_SETTINGS } from '@immeld/core/contract/settings';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';

/** The settings of an account, which hold on all its devices; the row has the account's id. */
export class SettingsRow extends Model<InferAttributes<SettingsRow>, InferCreationAttributes<SettingsRow>> {
  declare id: string;
  declare accountId: CreationOptional<string>;
  declare settings: Partial<SharedSettings>;

  static initialise(sequelize: Sequelize): void {
    SettingsRow.init(
      {
        id: { type: DataTypes.TEXT, primaryKey: true },
        accountId: DataTypes.UUID,
        settings: DataTypes.JSON,
      },
      { sequelize, tableName: 'settings', modelName: 'settings' },
    );
  }
}

export async function sharedSettings(): Promise<SharedSettings> {
  // Where nobody has chosen, it is transcribed as the server is set up.
  return { ...USUAL_SETTINGS, quality: usualQuality(), ...(await ownRow())?.settings };
}

const ownRow = () => SettingsRow.findByPk(accountId() ?? FIRST_ACCOUNT);

export async function changeSharedSettings(part: Partial<SharedSettings>): Promise<SharedSettings> {
  const id = accountId() ?? FIRST_ACCOUNT;
  await SettingsRow.upsert({ id, accountId: id, settings: { ...(await ownRow())?.settings, ...part } });
  return sharedSettings();
}
