import { parseQuery, toFts5 } from '../find/query';
import { readQuestion } from '../find/question';
import { parseNameList } from '../speech/names/nameList';
import { rework } from '../rework/rework';
import { Speller } from '../rework/proofread';
import { fillersIn } from '../transcript/fillers';
import { withNumerals } from '../transcript/inverseTextNormalisation';
import { occurrencesIn } from '../transcript/replace';
import { askedIn, datesAndNumbersIn, decisionsIn, openQuestionsIn, termsIn } from '../writeup/findings';
import { keyPhrases, suggestTitles } from './title';
import { sentencesOfText } from './sentences';
import { spokenDate } from './spokenDates';
import { spokenRepeat } from './spokenRepeats';
import { summarise } from './summary';
import { findTodos } from './todos/findTodos';
import { typedTodo } from './todos/typedTodo';

const AT = '2026-03-09T07:40';
const LENGTH = 200_000;
/** A rule that takes longer than the text is long would take minutes; what is measured here is only that none does. */
const PATIENCE_MS = 20_000;

/** Beginnings of what each rule looks for, again and again, so that it always has hope and never finds an end. */
const BEGINNINGS = [
  ...[
    'at 5 ',
    'a,',
    ' ',
    '\n',
    '.',
    '. ',
    '"',
    '1 2 3 ',
    'every other ',
    'I said I said ',
    'what did ',
    'remind me to ',
  ],
];

const nobody = { projects: [{ name: 'Quay' }], people: [{ name: 'Bram', otherNames: ['B'] }] };
const words = (text: string) =>
  text.split(/\s+/).map((word, i) => ({ startMs: i * 100, endMs: i * 100 + 90, text: word, confidence: 1 }));
const passage = (text: string) => ({ startMs: 0, endMs: 1, speaker: null, startsParagraph: true, words: words(text) });

const RULES: [string, (text: string) => unknown][] = [
  ['to-dos', (text) => findTodos(sentencesOfText(text), { at: AT, projects: [{ name: 'Quay' }] })],
  ['titles', (text) => suggestTitles(sentencesOfText(text))],
  ['key phrases', (text) => keyPhrases(sentencesOfText(text).map((s) => s.text))],
  ['a summary', (text) => summarise(sentencesOfText(text).slice(0, 300), 3)],
  ['dates', (text) => sentencesOfText(text).map((s) => spokenDate(s.text, AT))],
  ['repetitions', (text) => sentencesOfText(text).map((s) => spokenRepeat(s.text, AT))],
  ['decisions', (text) => decisionsIn(sentencesOfText(text))],
  ['questions', (text) => [askedIn(sentencesOfText(text)), openQuestionsIn(sentencesOfText(text))]],
  ['numbers', (text) => datesAndNumbersIn(sentencesOfText(text))],
  ['terms', (text) => termsIn(sentencesOfText(text), 10)],
  ['figures', (text) => withNumerals(text)],
  ['hesitations', (text) => fillersIn(words(text))],
  [
    'replacing',
    (text) => {
      const reading = { figures: [], hidesFillers: false };
      return occurrencesIn(passage(text), { find: 'a b', by: 'c', matchesCase: false }, reading);
    },
  ],
  ['a query', (text) => toFts5(parseQuery(text))],
  ['a question', (text) => readQuestion(text, nobody.people, '2026-03-09')],
  ['a to-do that is typed', (text) => typedTodo(text.slice(0, 500), AT, nobody)],
  ['a list of names', (text) => parseNameList(text)],
  ['shorter', (text) => rework([text.slice(0, 20_000)], 'shorter', new Speller([], new Set()))],
];

describe.each(RULES)('%s: two hundred thousand letters', (_, rule) => {
  it.each(BEGINNINGS)('of %j', async (beginning) => {
    const started = performance.now();
    await rule(beginning.repeat(Math.ceil(LENGTH / beginning.length)).slice(0, LENGTH));
    expect(performance.now() - started).toBeLessThan(PATIENCE_MS);
  });
});
