import type { Sequelize } from 'sequelize';
import { scopeToAccounts } from '../accounts/currentAccount';
import { AccountRow, SessionRow } from './account';
import { CalendarRow } from './calendar';
import { DeedRow } from './deed';
import { Folder } from './folder';
import { JobRow } from './job';
import { LanguageModelRow } from './languageModel';
import { LinkRow, NoteRow, NoteTag } from './note';
import { NotePictureRow, NoteVersionRow } from './noteHistory';
import { PassageRow } from './passage';
import { Person, RecordingPerson } from './person';
import { Project } from './project';
import { Recording } from './recording';
import { RecallRow } from './recall';
import { ReplacementRow } from './replacement';
import { SettingsRow } from './settings';
import { ShareLinkRow } from './shareLink';
import { SheetRow, TemplateRow } from './sheet';
import { SlipRow } from './slip';
import { RecordingTag, Tag } from './tag';
import { TodoRow } from './todo';
import { TodoFeedRow } from './todoFeed';
import { TranscriptVersion } from './transcriptVersion';
import { VoiceRow } from './voice';
import { WriteUpRow } from './writeUp';

/** Binds all models to a database and ties them together. */
export function initModels(database: Sequelize): void {
  for (const model of [
    AccountRow,
    SessionRow,
    CalendarRow,
    DeedRow,
    SettingsRow,
    Folder,
    JobRow,
    LanguageModelRow,
    LinkRow,
    NotePictureRow,
    NoteRow,
    NoteTag,
    NoteVersionRow,
    PassageRow,
    Person,
    Project,
    Recording,
    RecordingPerson,
    RecordingTag,
    RecallRow,
    ReplacementRow,
    ShareLinkRow,
    SheetRow,
    SlipRow,
    TemplateRow,
    Tag,
    TodoRow,
    TodoFeedRow,
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
  Recording.belongsToMany(Person, {
    ...{ through: RecordingPerson, foreignKey: 'recordingId', otherKey: 'personId', as: 'people' },
  });
  Recording.belongsTo(Project, { foreignKey: 'projectId', as: 'project' });
  NoteRow.belongsToMany(Tag, { through: NoteTag, foreignKey: 'noteId', otherKey: 'tagId', as: 'tags' });
  LinkRow.belongsTo(NoteRow, { foreignKey: 'fromNoteId', as: 'from' });
  TodoRow.belongsTo(Recording, { foreignKey: 'recordingId', as: 'recording' });
  JobRow.belongsTo(Recording, { foreignKey: 'recordingId', as: 'recording' });
  scopeToAccounts(database);
}
