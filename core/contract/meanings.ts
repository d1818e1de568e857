import * as yup from './yup';

export const PARTS_OF_SPEECH = ['noun', 'verb', 'adjective', 'adverb'] as const;
export type PartOfSpeech = (typeof PARTS_OF_SPEECH)[number];

const texts = () => yup.array().of(yup.string().required()).required();

export const meaningSchema = yup.object({
  word: yup.string().required(),
  /** What the person's own glossary says; null where it has no such entry. */
  own: yup.string().defined().nullable(),
  /** By WordNet; none where it does not know the word. */
  senses: yup
    .array()
    .of(
      yup
        .object({
          partOfSpeech: yup.string().oneOf(PARTS_OF_SPEECH).required(),
          meaning: yup.string().required(),
          examples: texts(),
          synonyms: texts(),
        })
        .required(),
    )
    .required(),
  /** Place of the sense that the words around it speak for. */
  likeliest: yup.number().integer().min(0).required(),
});
export type Meaning = yup.InferType<typeof meaningSchema>;

/** Terms with their meanings, in the person's own words. */
export const glossarySchema = () =>
  yup
    .array()
    .of(
      yup.object({
        term: yup.string().trim().required('Enter a term.').max(80, 'A term may have at most 80 characters.'),
        meaning: yup
          .string()
          .trim()
          .required('Enter a meaning.')
          .max(500, 'A meaning may have at most 500 characters.'),
      }),
    )
    .max(500, 'The glossary may have at most 500 terms.');
