import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

/** A link by which others read a recording or a note: one of the two ids is there. */
export class ShareLinkRow extends Model<InferAttributes<ShareLinkRow>, InferCreationAttributes<ShareLinkRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare recordingId: string | null;
  declare noteId: string | null;
  /** 128 random bits as base64url, sealed. */
  declare token: string;
  declare tokenHash: string;
  declare withSound: boolean;
  declare withSlips: boolean;
  declare withWriteUps: boolean;
  declare withProposals: boolean;
  declare isListed: boolean;
  declare passwordHash: string | null;
  declare lastDay: string | null;
  declare mostOpenings: number | null;
  declare openings: CreationOptional<number>;
  declare lastOpenedAt: CreationOptional<Date | null>;
  declare stoppedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;

  static initialise(sequelize: Sequelize): void {
    ShareLinkRow.init(
      {
        ...owned(),
        recordingId: DataTypes.UUID,
        noteId: DataTypes.UUID,
        token: DataTypes.TEXT,
        tokenHash: DataTypes.TEXT,
        withSound: DataTypes.BOOLEAN,
        withSlips: DataTypes.BOOLEAN,
        withWriteUps: DataTypes.BOOLEAN,
        withProposals: { type: DataTypes.BOOLEAN, defaultValue: false },
        isListed: DataTypes.BOOLEAN,
        passwordHash: DataTypes.TEXT,
        lastDay: DataTypes.TEXT,
        mostOpenings: DataTypes.INTEGER,
        openings: { type: DataTypes.INTEGER, defaultValue: 0 },
        lastOpenedAt: DataTypes.DATE,
        stoppedAt: DataTypes.DATE,
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'share_links', modelName: 'shareLink' },
    );
  }
}
