import * as yup from './yup';

export const MARK_SHAPES = ['circle', 'diamond', 'triangle', 'square', 'ring', 'bar', 'cross', 'chevron'] as const;
export type MarkShapeName = (typeof MARK_SHAPES)[number];
export const MARK_TONES = ['rowan', 'heather', 'ochre', 'petrol', 'lichen'] as const;
export type MarkTone = (typeof MARK_TONES)[number];

/** Stays the same when the kind is renamed. */
export const markId = () => yup.string().matches(/^[a-z0-9][a-z0-9-]{0,39}$/, 'This kind of mark does not exist.');

const markKindSchema = yup.object({
  id: markId().required(),
  label: yup
    .string()
    .trim()
    .required('Enter a name for the mark.')
    .max(20, 'The name of a mark may have at most 20 characters.'),
  shape: yup.string().oneOf(MARK_SHAPES).required(),
  tone: yup.string().oneOf(MARK_TONES).required(),
  /** Not offered any more; marks that were made of it keep their name. */
  isHidden: yup.boolean().required(),
});
export type MarkKindSetting = yup.InferType<typeof markKindSchema>;

/** The mark that becomes a to-do. */
export const TODO_MARK = 'to-do';

export const markKindsSchema = () =>
  yup
    .array()
    .of(markKindSchema)
    .max(12, 'You may have at most twelve kinds of marks.')
    .test('own-ids', 'Two kinds of marks have the same id.', (kinds) =>
      kinds ? new Set(kinds.map((k) => k.id)).size === kinds.length : true,
    )
    .test('own-names', 'Two kinds of marks have the same name.', (kinds) => {
      const names = kinds?.filter((k) => !k.isHidden).map((k) => k.label.toLowerCase());
      return names ? new Set(names).size === names.length : true;
    })
    .test('to-do', 'You can rename the to-do mark but not remove it.', (kinds) =>
      kinds ? kinds.some((k) => k.id === TODO_MARK && !k.isHidden) : true,
    );

const kind = (id: string, label: string, shape: MarkShapeName, tone: MarkTone): MarkKindSetting => ({
  ...{ id, label, shape, tone },
  isHidden: false,
});

/** The kinds that ship. */
export const USUAL_MARK_KINDS: MarkKindSetting[] = [
  kind('key-point', 'Key point', 'circle', 'rowan'),
  kind('question', 'Question', 'diamond', 'heather'),
  kind('check-later', 'Check later', 'triangle', 'ochre'),
  kind(TODO_MARK, 'To-do', 'square', 'petrol'),
];
