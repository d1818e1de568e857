import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { ownId } from './columns';

/** Whoever owns recordings: a guest until an e-mail address and a password are given. */
export class AccountRow extends Model<InferAttributes<AccountRow>, InferCreationAttributes<AccountRow>> {
  declare id: CreationOptional<string>;
  declare email: string | null;
  /** argon2id in the PHC string format. */
  declare passwordHash: string | null;
  /** When a device became its guest; the first account is given away once. */
  declare claimedAt: CreationOptional<Date | null>;

  static initialise(sequelize: Sequelize): void {
    AccountRow.init(
      {
        id: ownId(),
        email: DataTypes.TEXT,
        passwordHash: DataTypes.TEXT,
        claimedAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'accounts', modelName: 'account' },
    );
  }
}

/** A device that is signed in. Only a hash of its token is kept. */
export class SessionRow extends Model<InferAttributes<SessionRow>, InferCreationAttributes<SessionRow>> {
  declare id: CreationOptional<string>;
  declare owner: string;
  declare tokenHash: string;
  declare device: string;
  declare lastSeenAt: Date;

  static initialise(sequelize: Sequelize): void {
    SessionRow.init(
      {
        id: ownId(),
        owner: DataTypes.UUID,
        tokenHash: DataTypes.TEXT,
        device: DataTypes.TEXT,
        lastSeenAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'sessions', modelName: 'session' },
    );
  }
}
