import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { owned } from './columns';

/** A calendar file or feed as it was fetched last; nothing is ever written to where it came from. */
export class CalendarRow extends Model<InferAttributes<CalendarRow>, InferCreationAttributes<CalendarRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare name: string;
  declare address: string | null;
  /** iCalendar text (RFC 5545). */
  declare content: string;
  declare fetchedAt: Date | null;
  declare problem: string | null;

  static initialise(sequelize: Sequelize): void {
    CalendarRow.init(
      {
        ...owned(),
        name: DataTypes.TEXT,
        address: DataTypes.TEXT,
        content: DataTypes.TEXT,
        fetchedAt: DataTypes.DATE,
        problem: DataTypes.TEXT,
      },
      { sequelize, tableName: 'calendars', modelName: 'calendar' },
    );
  }
}
