import { DataTypes } from 'sequelize';

/** The kinds of columns that the migrations are made of. */
export const id = { type: DataTypes.UUID, primaryKey: true, allowNull: false };
export const times = {
  created_at: { type: DataTypes.DATE, allowNull: false },
  updated_at: { type: DataTypes.DATE, allowNull: false },
};
export const text = { type: DataTypes.TEXT, allowNull: false };
export const optionalText = { type: DataTypes.TEXT, allowNull: true };
export const optionalDate = { type: DataTypes.DATE, allowNull: true };
export const json = { type: DataTypes.JSON, allowNull: false };
export const whole = { type: DataTypes.INTEGER, allowNull: false };
export const optionalWhole = { type: DataTypes.INTEGER, allowNull: true };
export const no = { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false };

/** A column that points to another table; with CASCADE it has to be filled. */
export const references = (model: string, onDelete: 'CASCADE' | 'SET NULL') => ({
  type: DataTypes.UUID,
  allowNull: onDelete === 'SET NULL',
  references: { model, key: 'id' },
  onDelete,
});
