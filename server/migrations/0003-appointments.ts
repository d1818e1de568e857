import { DataTypes, type QueryInterface } from 'sequelize';
import { id, json, optionalDate, optionalText, text, times } from './columns';

/** Calendars as they were fetched, the appointment of a recording, and settings that hold on all devices. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.createTable('calendars', {
    id,
    name: text,
    address: optionalText,
    content: text,
    fetched_at: optionalDate,
    problem: optionalText,
    ...times,
  });
  await schema.addColumn('recordings', 'appointment', { type: DataTypes.JSON, allowNull: true });
  await schema.createTable('settings', { id: { type: DataTypes.TEXT, primaryKey: true }, settings: json, ...times });
}
