import * as yup from './yup';

const MAX_SEARCH = 200;

const wantedShape = {
  find: yup
    .string()
    .trim()
    .required('Enter the words to replace.')
    .max(MAX_SEARCH, 'The words to find may have at most 200 characters.')
    .matches(/[\p{L}\p{N}]/u, 'The words to find must contain letters or digits.'),
  by: yup.string().trim().defined().max(MAX_SEARCH, 'The replacement may have at most 200 characters.'),
  matchesCase: yup.boolean().required(),
};

/** Where: in one recording, in a folder, or everywhere when both are left out. */
export const replacementSearchSchema = yup
  .object({
    ...wantedShape,
    recordingId: yup.string().uuid('This address is not valid.'),
    folderId: yup.string().uuid('This address is not valid.'),
  })
  .noUnknown();
export type ReplacementSearch = yup.InferType<typeof replacementSearchSchema>;

const placeSchema = {
  passageId: yup.number().integer().required(),
  /** The text that was looked at; a later one is not touched. */
  revision: yup.number().integer().min(0).required(),
};

export const replacementPreviewSchema = yup.object({
  recordings: yup
    .array()
    .of(
      yup
        .object({
          recordingId: yup.string().uuid().required(),
          title: yup.string().required(),
          startedAt: yup.string().required(),
          hits: yup
            .array()
            .of(
              yup
                .object({
                  ...placeSchema,
                  /** Which of the places in this passage, counted from 0. */
                  index: yup.number().integer().min(0).required(),
                  startMs: yup.number().integer().required(),
                  before: yup.string().defined(),
                  found: yup.string().required(),
                  instead: yup.string().defined(),
                  after: yup.string().defined(),
                })
                .required(),
            )
            .required(),
        })
        .required(),
    )
    .required(),
  /** Whether there are more places than are shown. */
  isCut: yup.boolean().required(),
});
export type ReplacementPreview = yup.InferType<typeof replacementPreviewSchema>;

export const replacementSchema = yup
  .object({
    ...wantedShape,
    passages: yup
      .array()
      .of(
        yup
          .object({ ...placeSchema, indexes: yup.array().of(yup.number().integer().min(0).required()).required() })
          .required(),
      )
      .required()
      .min(1, 'Choose at least one place.')
      .max(5000, 'You can replace words in up to 5,000 passages at once.'),
  })
  .noUnknown();
export type Replacement = yup.InferType<typeof replacementSchema>;

export const replacedSchema = yup.object({
  /** To take it back by. */
  id: yup.string().uuid().required(),
  /** Places that read otherwise now. */
  replaced: yup.number().integer().required(),
  /** Passages that were changed elsewhere in the meantime and stayed as they were. */
  skipped: yup.number().integer().required(),
});
export type Replaced = yup.InferType<typeof replacedSchema>;
