import type { NoteBody } from '@immeld/core/contract/notes';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { jsonText } from './jsonText';
import { owned } from './columns';

/** The text of a note as it stood until `createdAt`. */
export class NoteVersionRow extends Model<InferAttributes<NoteVersionRow>, InferCreationAttributes<NoteVersionRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare noteId: string;
  declare body: NoteBody | null;
  declare text: string;
  declare createdAt: CreationOptional<Date>;

  static initialise(sequelize: Sequelize): void {
    NoteVersionRow.init(
      {
        ...owned(),
        noteId: DataTypes.UUID,
        body: jsonText<NoteBody | null>('body', null),
        text: DataTypes.TEXT,
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'note_versions', modelName: 'noteVersion' },
    );
  }
}

/** A picture in a note. */
export class NotePictureRow extends Model<InferAttributes<NotePictureRow>, InferCreationAttributes<NotePictureRow>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare noteId: string;
  declare file: string;

  static initialise(sequelize: Sequelize): void {
    NotePictureRow.init(
      {
        ...owned(),
        noteId: DataTypes.UUID,
        file: DataTypes.TEXT,
      },
      { sequelize, tableName: 'note_pictures', modelName: 'notePicture' },
    );
  }
}
