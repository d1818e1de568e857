import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { tiedId } from './columns';

/** The language model that an account has connected. */
export class LanguageModelRow extends Model<
  InferAttributes<LanguageModelRow>,
  InferCreationAttributes<LanguageModelRow>
> {
  declare accountId: CreationOptional<string>;
  declare isOn: CreationOptional<boolean>;
  declare address: CreationOptional<string>;
  declare model: CreationOptional<string>;
  declare token: CreationOptional<string | null>;
  declare timeoutSeconds: CreationOptional<number>;
  declare hasAgreed: CreationOptional<boolean>;

  static initialise(sequelize: Sequelize): void {
    LanguageModelRow.init(
      {
        accountId: tiedId(),
        isOn: { type: DataTypes.BOOLEAN, defaultValue: false },
        address: { type: DataTypes.TEXT, defaultValue: '' },
        model: { type: DataTypes.TEXT, defaultValue: '' },
        token: DataTypes.TEXT,
        timeoutSeconds: { type: DataTypes.INTEGER, defaultValue: 60 },
        hasAgreed: { type: DataTypes.BOOLEAN, defaultValue: false },
      },
      { sequelize, tableName: 'language_models', modelName: 'languageModel' },
    );
  }
}
