import type { NoteBody } from '@immeld/core/contract/notes';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import { jsonText } from './jsonText';
import type { Tag } from './tag';
import { owned, tiedId } from './columns';

/** A note of its own, or the note of a day. */
export class NoteRow extends Model<InferAttributes<NoteRow>, InferCreationAttributes<NoteRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare title: string;
  /** The document of the editor; null as long as nothing is written. */
  declare body: CreationOptional<NoteBody | null>;
  /** The words of the document, for finding. */
  declare text: CreationOptional<string>;
  /** When it was written last, null while nothing is. */
  declare textChangedAt: CreationOptional<Date | null>;
  /** The day whose note this is: `2026-03-09`. */
  declare day: CreationOptional<string | null>;
  declare folderId: CreationOptional<string | null>;
  declare isFavourite: CreationOptional<boolean>;
  declare binnedAt: CreationOptional<Date | null>;
  declare archivedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
  declare tags?: NonAttribute<Tag[]>;
  declare setTags: (tags: Tag[], options?: object) => Promise<void>;

  static initialise(sequelize: Sequelize): void {
    NoteRow.init(
      {
        ...owned(),
        title: DataTypes.TEXT,
        body: jsonText<NoteBody | null>('body', null),
        text: { type: DataTypes.TEXT, defaultValue: '' },
        textChangedAt: { type: DataTypes.DATE, defaultValue: null },
        day: DataTypes.TEXT,
        folderId: DataTypes.UUID,
        isFavourite: { type: DataTypes.BOOLEAN, defaultValue: false },
        binnedAt: DataTypes.DATE,
        archivedAt: DataTypes.DATE,
        createdAt: DataTypes.DATE,
        updatedAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'notes', modelName: 'note' },
    );
  }
}

/** Instant of the last change of its text, whatever else changed since. */
export const textChangedAt = (n: NoteRow): string => (n.textChangedAt ?? n.createdAt).toISOString();

/** What a note is called in lists and sentences. */
export const titleOfNote = ({ title }: { title: string }): string => title || 'Untitled note';

export class NoteTag extends Model<InferAttributes<NoteTag>, InferCreationAttributes<NoteTag>> {
  declare noteId: string;
  declare tagId: string;

  static initialise(sequelize: Sequelize): void {
    NoteTag.init(
      {
        noteId: tiedId(),
        tagId: tiedId(),
      },
      { sequelize, tableName: 'note_tags', modelName: 'noteTag', timestamps: false },
    );
  }
}

/** A link that stands in a note, to another note or to a recording. */
export class LinkRow extends Model<InferAttributes<LinkRow>, InferCreationAttributes<LinkRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare fromNoteId: string;
  declare toNoteId: string | null;
  declare toRecordingId: string | null;
  declare from?: NonAttribute<NoteRow>;

  static initialise(sequelize: Sequelize): void {
    LinkRow.init(
      {
        ...owned(),
        fromNoteId: DataTypes.UUID,
        toNoteId: DataTypes.UUID,
        toRecordingId: DataTypes.UUID,
      },
      { sequelize, tableName: 'links', modelName: 'link' },
    );
  }
}
