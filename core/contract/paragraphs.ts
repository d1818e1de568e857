import * as yup from './yup';

/** one: no paragraphs · few, usual, many: by sense · pauses: at every pause from a length on. */
export const PARAGRAPH_KINDS = ['one', 'few', 'usual', 'many', 'pauses'] as const;
export type ParagraphKind = (typeof PARAGRAPH_KINDS)[number];

export const paragraphKind = () => yup.string().oneOf(PARAGRAPH_KINDS);
/** From where on a pause begins a paragraph, in milliseconds. */
export const paragraphPause = () =>
  yup
    .number()
    .integer()
    .min(300, 'The pause must be at least 0.3 seconds.')
    .max(60_000, 'The pause can be at most one minute.');

/** Paragraphs made anew by a rule, or exactly these: the passages that begin one. */
export const paragraphChangeSchema = yup
  .object({
    kind: paragraphKind(),
    pauseMs: paragraphPause(),
    starts: yup.array().of(yup.number().integer().required()).max(50_000),
  })
  .noUnknown()
  .test('which', 'Choose a rule, or say where paragraphs begin.', ({ kind, starts }) => Boolean(kind ?? starts));
export type ParagraphChange = yup.InferType<typeof paragraphChangeSchema>;
