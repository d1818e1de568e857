import { DataTypes } from 'sequelize';

/** The id of a row, given when it is made. */
export const ownId = () => ({ type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 });

/** The columns of everything that belongs to an account. */
export const owned = () => ({ id: ownId(), accountId: DataTypes.UUID });

/** One half of the key of a row that ties two others together. */
export const tiedId = () => ({ type: DataTypes.UUID, primaryKey: true });
