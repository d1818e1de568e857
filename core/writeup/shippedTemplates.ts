import { type Template, templateSchema } from '../contract/templates';

type Written = Omit<Partial<Template>, 'sections'> & {
  name: string;
  sections: Partial<Template['sections'][number]>[];
};

const written: Record<string, Written> = {
  'in-short': {
    name: 'Summary',
    about: 'The recording in three sentences',
    sections: [{ content: 'summary', form: 'text', most: 3, unit: 'sentences', isOptional: false }],
  },
  'key-points': {
    name: 'Key points',
    about: 'The most important points',
    sections: [{ content: 'key-points', most: 8, isOptional: false, hasTimes: true }],
  },
  minutes: {
    name: 'Minutes',
    about: 'Key points, decisions, tasks and open questions',
    wording: 'reported',
    sections: [
      { heading: 'Summary', content: 'summary', form: 'text', most: 2, unit: 'sentences' },
      { heading: 'Decisions', content: 'decisions', form: 'numbered', isOptional: false },
      { heading: 'My to-dos', content: 'own-todos', form: 'checks', isOptional: false },
      { heading: 'Other people’s to-dos', content: 'others-todos', form: 'table' },
      { heading: 'Open questions', content: 'questions' },
      { heading: 'Next steps', content: 'next-steps' },
    ],
  },
  'lecture-notes': {
    name: 'Lecture notes',
    about: 'Points, terms in context, questions and your own asides',
    sections: [
      { heading: 'Summary', content: 'summary', form: 'text', most: 3, unit: 'sentences' },
      { heading: 'Key points', content: 'key-points', most: 14, grouping: 'part', hasTimes: true },
      { heading: 'Terms', content: 'terms', form: 'table', most: 12 },
      { heading: 'Numbers and dates', content: 'dates-and-numbers', most: 8 },
      { heading: 'Marked passages', content: 'marked', hasTimes: true },
      { heading: 'My asides', content: 'asides', hasTimes: true },
      { heading: 'Questions', content: 'asked', hasTimes: true },
      { heading: 'To-dos', content: 'all-todos', form: 'checks' },
    ],
  },
  appointment: {
    name: 'Appointment record',
    about: 'What was said, decided and promised, person by person',
    sections: [
      { heading: 'Summary', content: 'summary', form: 'text', most: 3, unit: 'sentences' },
      { heading: 'Decisions', content: 'decisions' },
      { heading: 'To-dos', content: 'all-todos', form: 'checks', grouping: 'person' },
      { heading: 'Dates and numbers', content: 'dates-and-numbers', most: 10 },
      { heading: 'What each person said', content: 'quotes', grouping: 'person', most: 12 },
    ],
  },
  'todos-by-project': {
    name: 'To-dos by project',
    about: 'All to-dos, sorted by project',
    sections: [{ content: 'all-todos', form: 'checks', grouping: 'project', isOptional: false }],
  },
  'after-call': {
    name: 'After the call',
    about: 'Main points, to-dos for you and others, and next steps',
    wording: 'reported',
    sections: [
      { heading: 'Main points', content: 'key-points', most: 4 },
      { heading: 'My to-dos', content: 'own-todos', form: 'checks' },
      { heading: 'Other people’s to-dos', content: 'others-todos', form: 'checks' },
      { heading: 'Next steps', content: 'next-steps' },
    ],
  },
  message: {
    name: 'Message',
    about: 'A few sentences to pass on',
    sections: [{ content: 'summary', form: 'text', most: 60, unit: 'words', isOptional: false }],
  },
  'short-post': {
    name: 'Short post',
    about: 'At most 280 characters',
    mostCharacters: 280,
    sections: [{ content: 'summary', form: 'text', most: 280, unit: 'characters', isOptional: false }],
  },
  article: {
    name: 'Article draft',
    about: 'The tidied text, led by its main idea',
    sections: [
      { content: 'summary', form: 'text', most: 2, unit: 'sentences' },
      { content: 'text', form: 'text' },
    ],
  },
  outline: {
    name: 'Outline',
    about: 'Points in the order they were made',
    sections: [
      { content: 'key-points', form: 'numbered', most: 15, grouping: 'part', hasTimes: true, isOptional: false },
    ],
  },
  letter: {
    name: 'Letter draft',
    about: 'A dictated letter without what was said to the machine; other talk tidied',
    sections: [{ content: 'letter', form: 'text', isOptional: false }],
  },
  week: {
    name: 'Week in review',
    about: 'What was said, decided and done, and what is still open',
    sections: [
      { heading: 'Topics', content: 'key-points', most: 6 },
      { heading: 'Decisions', content: 'decisions' },
      { heading: 'To-dos', content: 'all-todos', form: 'checks', grouping: 'project' },
      { heading: 'Open questions', content: 'questions' },
    ],
  },
};

/** The templates that ship, by id. */
export const SHIPPED_TEMPLATES: ReadonlyMap<string, Template> = new Map(
  Object.entries(written).map(([id, template]) => [id, templateSchema.validateSync(template)]),
);
