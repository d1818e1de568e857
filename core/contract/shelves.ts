import * as yup from './yup';
import { LIST_SORTS } from './recordingLists';
import { personName, tagName } from './recordings';

/** Tints of folders, by the tokens of the look. */
export const TINTS = ['petrol', 'rowan', 'ochre', 'heather', 'lichen'] as const;
export type Tint = (typeof TINTS)[number];

const folderName = () =>
  yup.string().trim().min(1, 'Enter a name for the folder.').max(80, 'A folder name may have at most 80 characters.');

export const folderSchema = yup.object({
  id: yup.string().uuid().required(),
  name: yup.string().required(),
  tint: yup.string().oneOf(TINTS).required(),
  parentId: yup.string().uuid().defined().nullable(),
  /** Place among the folders of the same parent. */
  position: yup.number().integer().required(),
  /** Of recordings and notes that lie in it itself. */
  itemCount: yup.number().integer().min(0).required(),
});
export type Folder = yup.InferType<typeof folderSchema>;

export const newFolderSchema = yup
  .object({
    name: folderName().required('Enter a name for the folder.'),
    tint: yup.string().oneOf(TINTS),
    parentId: yup.string().uuid().nullable(),
  })
  .noUnknown();
export type NewFolder = yup.InferType<typeof newFolderSchema>;

export const folderChangeSchema = yup
  .object({
    name: folderName(),
    tint: yup.string().oneOf(TINTS),
    parentId: yup.string().uuid().nullable(),
    /** Place among its neighbours, from 0. */
    position: yup.number().integer().min(0).max(10_000),
    isBinned: yup.boolean(),
  })
  .noUnknown();
export type FolderChange = yup.InferType<typeof folderChangeSchema>;

export const tagSchema = yup.object({
  name: yup.string().required(),
  isPinned: yup.boolean().required(),
  itemCount: yup.number().integer().required(),
});
export type ShelfTag = yup.InferType<typeof tagSchema>;

/** Renamed to a name that is there already, two tags become one. */
export const tagChangeSchema = yup
  .object({ name: tagName().notRequired(), isPinned: yup.boolean(), isRemoved: yup.boolean() })
  .noUnknown();

const otherNames = () =>
  yup
    .array()
    .of(yup.string().trim().max(60, 'A name may have at most 60 characters.').required())
    .max(20, 'You can add up to 20 other names.');

/** A person or a project. */
export const namedSchema = yup.object({
  id: yup.string().uuid().required(),
  name: yup.string().required(),
  otherNames: yup.array().of(yup.string().required()).required(),
  itemCount: yup.number().integer().required(),
});
export type Named = yup.InferType<typeof namedSchema>;

export const newNamedSchema = yup.object({ name: personName(), otherNames: otherNames() }).noUnknown();

/** Renamed to a name that is there already, two become one. */
export const namedChangeSchema = yup
  .object({ name: personName().notRequired(), otherNames: otherNames(), isRemoved: yup.boolean() })
  .noUnknown();
export type NamedChange = yup.InferType<typeof namedChangeSchema>;

export const shelvesSchema = yup.object({
  folders: yup.array().of(folderSchema.required()).required(),
  tags: yup.array().of(tagSchema.required()).required(),
  projects: yup.array().of(namedSchema.required()).required(),
  people: yup.array().of(namedSchema.required()).required(),
  trayCount: yup.number().integer().required(),
  favouriteCount: yup.number().integer().required(),
  archiveCount: yup.number().integer().required(),
  binCount: yup.number().integer().required(),
  openTodoCount: yup.number().integer().required(),
});
export type Shelves = yup.InferType<typeof shelvesSchema>;

const ids = () => yup.array().of(yup.string().uuid().required()).max(2000, 'You can change up to 2,000 items at once.');

/** The same for many recordings and notes at once. What only recordings have (project, being filed) leaves notes as they are. */
export const batchSchema = yup
  .object({
    /** Recordings. */
    ids: ids().required(),
    noteIds: ids(),
    /** Files each as it is suggested. */
    asSuggested: yup.boolean(),
    folderId: yup.string().uuid().nullable(),
    addTags: yup.array().of(tagName()).max(20),
    removeTags: yup.array().of(tagName()).max(20),
    project: yup.string().trim().max(60).nullable(),
    isFiled: yup.boolean(),
    isFavourite: yup.boolean(),
    isArchived: yup.boolean(),
    isBinned: yup.boolean(),
  })
  .test(
    'some',
    'Choose at least one recording or note.',
    ({ ids: recordings, noteIds }) => (recordings?.length ?? 0) + (noteIds?.length ?? 0) > 0,
  )
  .noUnknown();
export type Batch = yup.InferType<typeof batchSchema>;

/** What was done, and by which id it is undone. */
export const doneSchema = yup.object({
  deedId: yup.string().uuid().defined().nullable(),
  text: yup.string().defined(),
  count: yup.number().integer().required(),
});
export type Done = yup.InferType<typeof doneSchema>;

export const changeEntrySchema = yup.object({
  id: yup.string().uuid().required(),
  text: yup.string().required(),
  /** An instant in ISO 8601. */
  doneAt: yup.string().required(),
  isUndone: yup.boolean().required(),
});
export type ChangeEntry = yup.InferType<typeof changeEntrySchema>;

export const undoneSchema = yup.object({
  /** How much went back, and how much had been changed since and stays. */
  undone: yup.number().integer().required(),
  kept: yup.number().integer().required(),
});

export const recordingListQuery = yup.object({
  place: yup.string().oneOf(['tray', 'shelves', 'favourites', 'archive', 'bin', 'all']).default('all'),
  folderId: yup.string().uuid(),
  tag: yup.string().max(60),
  personId: yup.string().uuid(),
  projectId: yup.string().uuid(),
  sort: yup.string().oneOf(LIST_SORTS).default('newest'),
  limit: yup.number().integer().min(1).max(200).default(50),
  offset: yup.number().integer().min(0).default(0),
});
export type RecordingListQuery = yup.InferType<typeof recordingListQuery>;
