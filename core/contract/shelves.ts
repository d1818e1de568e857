import * as yup from 'yup';

/** Tints of folders, by the tokens of the look. */
export const TINTS = ['petrol', 'rowan', 'ochre', 'heather', 'lichen'] as const;
export type Tint = (typeof TINTS)[number];

const folderName = () =>
  yup.string().trim().min(1, 'A folder needs a name.').max(80, 'A folder name may have at most 80 characters.');

export const folderSchema = yup.object({
  id: yup.string().uuid().required(),
  name: yup.string().required(),
  tint: yup.string().oneOf(TINTS).required(),
  parentId: yup.string().uuid().defined().nullable(),
  recordingCount: yup.number().integer().min(0).required(),
});
export type Folder = yup.InferType<typeof folderSchema>;

export const newFolderSchema = yup
  .object({
    name: folderName().required('A folder needs a name.'),
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
    isBinned: yup.boolean(),
  })
  .noUnknown();
export type FolderChange = yup.InferType<typeof folderChangeSchema>;

export const shelvesSchema = yup.object({
  folders: yup.array().of(folderSchema.required()).required(),
  tags: yup
    .array()
    .of(yup.object({ name: yup.string().required(), recordingCount: yup.number().integer().required() }).required())
    .required(),
  projects: yup.array().of(yup.string().required()).required(),
  trayCount: yup.number().integer().required(),
  binCount: yup.number().integer().required(),
  openTodoCount: yup.number().integer().required(),
});
export type Shelves = yup.InferType<typeof shelvesSchema>;
