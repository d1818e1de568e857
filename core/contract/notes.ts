import * as yup from './yup';
import { tagName } from './recordings';

/** A node of the editor's document (ProseMirror's JSON form): what it is, what it holds, and how its text looks. */
export type NoteNode = {
  type: string;
  attrs?: Record<string, unknown>;
  content?: NoteNode[];
  marks?: { type: string; attrs?: Record<string, unknown> }[];
  text?: string;
};
export type NoteBody = NoteNode & { type: 'doc' };

const MAX_CHARACTERS = 2_000_000;
const DEEPEST = 60;

function isNode(value: unknown, depth = 0): value is NoteNode {
  if (depth > DEEPEST || typeof value !== 'object' || value === null) return false;
  const { type, content, text, marks } = value as Partial<Record<keyof NoteNode, unknown>>;
  return (
    typeof type === 'string' &&
    (text === undefined || typeof text === 'string') &&
    (marks === undefined || Array.isArray(marks)) &&
    (content === undefined || (Array.isArray(content) && content.every((c) => isNode(c, depth + 1))))
  );
}

export const noteBody = () =>
  yup
    .mixed<NoteBody>((value): value is NoteBody => isNode(value) && value.type === 'doc')
    .test(
      'size',
      'A note may have at most two million characters.',
      (value) => !value || JSON.stringify(value).length <= MAX_CHARACTERS,
    );

const noteTitle = () => yup.string().trim().max(200, 'A title may have at most 200 characters.');

/** Where a link in a note leads, with the title that it has now. */
export const linkTargetSchema = yup.object({
  kind: yup.string().oneOf(['recording', 'note']).required(),
  id: yup.string().uuid().required(),
  title: yup.string().defined(),
});
export type LinkTarget = yup.InferType<typeof linkTargetSchema>;

/** A note as it stands in lists. */
export const noteCardSchema = yup.object({
  id: yup.string().uuid().required(),
  title: yup.string().defined(),
  firstWords: yup.string().defined(),
  /** The day whose note it is. */
  day: yup.string().defined().nullable(),
  folderId: yup.string().uuid().defined().nullable(),
  tags: yup.array().of(yup.string().required()).required(),
  isFavourite: yup.boolean().required(),
  isArchived: yup.boolean().required(),
  isBinned: yup.boolean().required(),
  /** Instants in ISO 8601. */
  madeAt: yup.string().required(),
  changedAt: yup.string().required(),
});
export type NoteCard = yup.InferType<typeof noteCardSchema>;

export const noteSchema = noteCardSchema.shape({
  body: yup.mixed<NoteBody>().defined().nullable(),
  /** Instant at which its text was written last (ISO 8601); its title, folder and tags change without it. */
  textChangedAt: yup.string().required(),
  /** What its links lead to, by their present titles. */
  links: yup.array().of(linkTargetSchema.required()).required(),
  /** Notes that have a link to this one. */
  linkedFrom: yup.array().of(linkTargetSchema.required()).required(),
});
export type Note = yup.InferType<typeof noteSchema>;

export const noteChangeSchema = yup
  .object({
    title: noteTitle(),
    body: noteBody(),
    /** `textChangedAt` of the version on which this change was made; a later one is not written over. */
    seenAt: yup.string(),
    folderId: yup.string().uuid().nullable(),
    tags: yup.array().of(tagName()).max(50),
    isFavourite: yup.boolean(),
    isArchived: yup.boolean(),
    isBinned: yup.boolean(),
  })
  .noUnknown();
export type NoteChange = yup.InferType<typeof noteChangeSchema>;

export const newNoteSchema = yup
  .object({
    /** Given by the device, so that trying again makes no second note: one that is there already is answered. */
    id: yup.string().uuid(),
    title: noteTitle().defined(),
    body: noteBody(),
    folderId: yup.string().uuid().nullable(),
  })
  .noUnknown();

export const noteListQuery = yup.object({
  place: yup.string().oneOf(['shelves', 'favourites', 'archive', 'bin', 'all']).default('all'),
  folderId: yup.string().uuid(),
  tag: yup.string().max(60),
  /** Words that the title begins with or has in it. */
  titled: yup.string().max(100),
});

export const quickWordsSchema = yup
  .object({
    text: yup
      .string()
      .trim()
      .required('Write something first.')
      .max(2000, 'The text may have at most 2,000 characters.'),
    /** Local time of the person: `14:05`. */
    at: yup
      .string()
      .matches(/^\d{2}:\d{2}$/, 'Write the time like this: 14:05.')
      .required(),
  })
  .noUnknown();
