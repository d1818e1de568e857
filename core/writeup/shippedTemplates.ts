import { type Template, templateSchema } from '../contract/templates';

type Written = Omit<Partial<Template>, 'sections'> & {
  name: string;
  sections: Partial<Template['sections'][number]>[];
};

const written: Record<string, Written> = {
  'in-short': {
    name: 'In short',
    about: 'What it was about, in three sentences',
    sections: [{ content: 'summary', form: 'text', most: 3, unit: 'sentences', isOptional: false }],
  },
  'key-points': {
    name: 'Key points',
    about: 'The points that stand for the whole',
    sections: [{ content: 'key-points', most: 8, isOptional: false, hasTimes: true }],
  },
  minutes: {
    name: 'Minutes',
    about: 'Key points, decisions, who does what, and what is open',
    wording: 'reported',
    sections: [
      { heading: 'In short', content: 'summary', form: 'text', most: 2, unit: 'sentences' },
      { heading: 'Decisions', content: 'decisions', form: 'numbered', isOptional: false },
      { heading: 'Mine to do', content: 'own-todos', form: 'checks', isOptional: false },
      { heading: 'Others’ to do', content: 'others-todos', form: 'table' },
      { heading: 'Open questions', content: 'questions' },
      { heading: 'Next steps', content: 'next-steps' },
    ],
  },
  'lecture-notes': {
    name: 'Lecture notes',
    about: 'Points, terms with their sentence, questions, and one’s own asides',
    sections: [
      { heading: 'In short', content: 'summary', form: 'text', most: 3, unit: 'sentences' },
      { heading: 'Key points', content: 'key-points', most: 14, grouping: 'part', hasTimes: true },
      { heading: 'Terms', content: 'terms', form: 'table', most: 12 },
      { heading: 'Numbers and dates', content: 'dates-and-numbers', most: 8 },
      { heading: 'Marked', content: 'marked', hasTimes: true },
      { heading: 'My asides', content: 'asides', hasTimes: true },
      { heading: 'Questions', content: 'asked', hasTimes: true },
      { heading: 'To do', content: 'all-todos', form: 'checks' },
    ],
  },
  appointment: {
    name: 'Appointment record',
    about: 'What was said, decided and promised, by person',
    sections: [
      { heading: 'In short', content: 'summary', form: 'text', most: 3, unit: 'sentences' },
      { heading: 'Decisions', content: 'decisions' },
      { heading: 'To do', content: 'all-todos', form: 'checks', grouping: 'person' },
      { heading: 'Dates and numbers', content: 'dates-and-numbers', most: 10 },
      { heading: 'What each of us said', content: 'quotes', grouping: 'person', most: 12 },
    ],
  },
  'todos-by-project': {
    name: 'To-dos by project',
    about: 'Everything to be done, sorted',
    sections: [{ content: 'all-todos', form: 'checks', grouping: 'project', isOptional: false }],
  },
  'after-call': {
    name: 'After the call',
    about: 'What matters, mine to do, others’ to do, next steps',
    wording: 'reported',
    sections: [
      { heading: 'What matters', content: 'key-points', most: 4 },
      { heading: 'Mine to do', content: 'own-todos', form: 'checks' },
      { heading: 'Others’ to do', content: 'others-todos', form: 'checks' },
      { heading: 'Next steps', content: 'next-steps' },
    ],
  },
  message: {
    name: 'Message',
    about: 'A few sentences to send on',
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
    about: 'The tidied text with what carries it in front',
    sections: [
      { content: 'summary', form: 'text', most: 2, unit: 'sentences' },
      { content: 'text', form: 'text' },
    ],
  },
  outline: {
    name: 'Outline',
    about: 'Points one under the other, in the order in which they came',
    sections: [
      { content: 'key-points', form: 'numbered', most: 15, grouping: 'part', hasTimes: true, isOptional: false },
    ],
  },
  letter: {
    name: 'Letter draft',
    about: 'What was thought aloud, tidied, as running text',
    sections: [{ content: 'text', form: 'text', isOptional: false }],
  },
  week: {
    name: 'Week in review',
    about: 'What was said, decided, done and left open',
    sections: [
      { heading: 'What it was about', content: 'key-points', most: 6 },
      { heading: 'Decided', content: 'decisions' },
      { heading: 'To do', content: 'all-todos', form: 'checks', grouping: 'project' },
      { heading: 'Open', content: 'questions' },
    ],
  },
};

/** The templates that ship, by id. */
export const SHIPPED_TEMPLATES: ReadonlyMap<string, Template> = new Map(
  Object.entries(written).map(([id, template]) => [id, templateSchema.validateSync(template)]),
);
