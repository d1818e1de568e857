import type { SpokenKind, Voice } from '@immeld/core/contract/spokenKinds';
import type { Appointment } from '@immeld/core/contract/appointments';
import type { DiarizedVoice } from '@immeld/core/speech/speakers/diarizer';
import type { DraftSource, RecordingState, Suggestion } from '@immeld/core/contract/recordings';
import { jsonText } from './jsonText';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { PassageRow } from './passage';
import type { Person } from './person';
import type { Project } from './project';
import type { Tag } from './tag';
import type { TodoRow } from './todo';
import type { WriteUpRow } from './writeUp';
import { owned } from './columns';

/** A sound that was added to a recording later; `slipId` is the seam in the margin where it begins. */
export type MoreSound = {
  soundFile: string;
  fileName: string;
  sha256: string;
  sizeBytes: number;
  captureId: string | null;
  startedAt: string;
  slipId: string;
};

/** A moving picture: the sound's own file, or one that was sent after the sound. */
export type Video = { file: string; mediaType: string; captureId: string | null; sha256: string; sizeBytes: number };

/** A recording: where its sound lies, what is known of it and where it is filed. */
export class Recording extends Model<InferAttributes<Recording>, InferCreationAttributes<Recording>> {
  declare id: CreationOptional<string>;
  declare accountId: CreationOptional<string>;
  declare title: string | null;
  declare fileName: string;
  declare source: 'speak' | 'import' | 'demo';
  declare mediaType: string;
  /** Name inside the sound folder; the original, never changed. */
  declare soundFile: string;
  /** A copy that browsers can play and seek in, where the original cannot be. */
  declare playbackFile: string | null;
  declare sha256: string;
  declare sizeBytes: number;
  declare durationMs: number | null;
  /** Local time of the person: `2026-03-09T07:40:12`. */
  declare startedAt: string;
  declare state: RecordingState;
  declare problem: string | null;
  declare folderId: string | null;
  declare filedAt: Date | null;
  declare binnedAt: Date | null;
  declare archivedAt: CreationOptional<Date | null>;
  declare isFavourite: CreationOptional<boolean>;
  declare projectId: CreationOptional<string | null>;
  declare suggestion: Suggestion;
  declare peaks: number[];
  declare model: string | null;
  /** Whose words stand here until it is transcribed: the device's, or those of the pieces that are done. */
  declare draft: CreationOptional<DraftSource | null>;
  declare language: string | null;
  /** The name a device gave it while recording; sent twice it is still one recording. */
  declare captureId: CreationOptional<string | null>;
  /** Whether the recording was cut off and came back by itself. */
  declare isRecovered: CreationOptional<boolean>;
  declare appointment: CreationOptional<Appointment | null>;
  /** In the order in which they were added. */
  declare moreSounds: CreationOptional<MoreSound[]>;
  /** The video that belongs to the sound, where the server has it. */
  declare video: CreationOptional<Video | null>;
  /** Whether spoken commands are done and not written. */
  declare isDictation: CreationOptional<boolean>;
  /** When a file was brought in, local time; null for what was recorded here. */
  declare arrivedAt: CreationOptional<string | null>;
  declare foundKind: CreationOptional<SpokenKind | null>;
  /** What the person says it is. */
  declare chosenKind: CreationOptional<SpokenKind | null>;
  declare voice: CreationOptional<Voice | null>;
  /** Where it was recorded, as its file says, if the person wants that known. */
  declare place: CreationOptional<string | null>;
  /** The voices that were told apart in it, by the name they have here. */
  declare voices: CreationOptional<DiarizedVoice[]>;
  /** Templates by which a write-up was made without being asked for; none is made twice. */
  declare usualWriteUps: CreationOptional<string[]>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
  declare passages?: NonAttribute<PassageRow[]>;
  declare todos?: NonAttribute<TodoRow[]>;
  declare writeUps?: NonAttribute<WriteUpRow[]>;
  declare tags?: NonAttribute<Tag[]>;
  declare people?: NonAttribute<Person[]>;
  declare project?: NonAttribute<Project | null>;
  declare setTags: (tags: Tag[], options?: object) => Promise<void>;
  declare setPeople: (people: Person[], options?: object) => Promise<void>;

  static initialise(sequelize: Sequelize): void {
    Recording.init(
      {
        ...owned(),
        title: DataTypes.TEXT,
        fileName: DataTypes.TEXT,
        source: DataTypes.TEXT,
        mediaType: DataTypes.TEXT,
        soundFile: DataTypes.TEXT,
        playbackFile: DataTypes.TEXT,
        sha256: DataTypes.STRING(64),
        sizeBytes: DataTypes.INTEGER,
        durationMs: DataTypes.INTEGER,
        startedAt: DataTypes.TEXT,
        state: DataTypes.TEXT,
        problem: DataTypes.TEXT,
        folderId: DataTypes.UUID,
        filedAt: DataTypes.DATE,
        binnedAt: DataTypes.DATE,
        archivedAt: DataTypes.DATE,
        isFavourite: { type: DataTypes.BOOLEAN, defaultValue: false },
        projectId: DataTypes.UUID,
        suggestion: DataTypes.JSON,
        peaks: DataTypes.JSON,
        model: DataTypes.TEXT,
        draft: DataTypes.TEXT,
        language: DataTypes.TEXT,
        captureId: DataTypes.UUID,
        isRecovered: { type: DataTypes.BOOLEAN, defaultValue: false },
        isDictation: { type: DataTypes.BOOLEAN, defaultValue: false },
        arrivedAt: { type: DataTypes.TEXT, defaultValue: null },
        foundKind: { type: DataTypes.TEXT, defaultValue: null },
        chosenKind: { type: DataTypes.TEXT, defaultValue: null },
        voice: { type: DataTypes.TEXT, defaultValue: null },
        appointment: DataTypes.JSON,
        moreSounds: jsonText<MoreSound[]>('moreSounds', []),
        video: jsonText<Video | null>('video', null),
        place: DataTypes.TEXT,
        voices: jsonText<DiarizedVoice[]>('voices', []),
        usualWriteUps: jsonText<string[]>('usualWriteUps', []),
        createdAt: DataTypes.DATE,
        updatedAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'recordings', modelName: 'recording' },
    );
  }
}

/** What a recording is called: by its person, as suggested, or by its file. */
export const titleOf = ({
  title,
  suggestion,
  fileName,
}: Pick<Recording, 'title' | 'suggestion' | 'fileName'>): string => title ?? suggestion.title ?? fileName;

/** Whether its name says no more than when it was spoken. */
export const isNamedByTime = ({
  title,
  suggestion,
  source,
}: Pick<Recording, 'title' | 'suggestion' | 'source'>): boolean =>
  source === 'speak' && title === null && !suggestion.title;
