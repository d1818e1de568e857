import type { Sequelize } from 'sequelize';
import { scopeToAccounts } from '../accounts/currentAccount';
import { AccountRow, SessionRow } from './account';
import { CalendarRow } from './calendar';
import { Folder } from './folder';
import { JobRow } from './job';
import { PassageRow } from './passage';
import { Project } from './project';
import { Recording } from './recording';
import { SettingsRow } from './settings';
import { SlipRow } from './slip';
import { RecordingTag, Tag } from './tag';
import { TodoRow } from './todo';
import { TranscriptVersion } from './transcriptVersion';
import { VoiceRow } from './voice';
import { WriteUpRow } from './writeUp';

/** Binds all models to a database and ties them together. */
export function initModels(database: Sequelize): void {
  for (const model of [
    AccountRow,
    SessionRow,
    CalendarRow,
    SettingsRow,
    Folder,
    JobRow,
    PassageRow,
    Project,
    Recording,
    RecordingTag,
    SlipRow,
    Tag,
    TodoRow,
    TranscriptVersion,
    VoiceRow,
    WriteUpRow,
  ]) {
    model.initialise(database);
  }
  Recording.hasMany(PassageRow, { foreignKey: 'recordingId', as: 'passages' });
  Recording.hasMany(TodoRow, { foreignKey: 'recordingId', as: 'todos' });
  Recording.hasMany(WriteUpRow, { foreignKey: 'recordingId', as: 'writeUps' });
  Recording.belongsToMany(Tag, { through: RecordingTag, foreignKey: 'recordingId', otherKey: 'tagId', as: 'tags' });
  TodoRow.belongsTo(Recording, { foreignKey: 'recordingId', as: 'recording' });
  JobRow.belongsTo(Recording, { foreignKey: 'recordingId', as: 'recording' });
  scopeToAccounts(database);
}
