import { stem, wordsOf } from '../language/words';
import { type Candidate, answerFrom } from './answer';
import { readQuestion } from './question';

const PEOPLE = [{ name: 'Bram Vantongeren', otherNames: ['the arborist'] }];

const said = (text: string, more: Partial<Candidate<string>> = {}): Candidate<string> => ({
  ...{ text, before: '', after: '', around: [], title: '', speaker: null, people: [], isMarked: false },
  ...{ saidAt: '2026-03-10T09:00', ref: text },
  ...more,
});

/** Asks a few sentences as if they were the whole archive. */
function ask(question: string, candidates: readonly Candidate<string>[]) {
  const documents = candidates.map((c) => new Set(wordsOf(c.text).map(stem)));
  return answerFrom(readQuestion(question, PEOPLE, '2026-03-12'), candidates, {
    documentsWith: (s) => documents.filter((d) => d.has(s)).length,
    documents: documents.length,
    vectors: null,
  });
}
const best = (question: string, candidates: readonly Candidate<string>[]) => ask(question, candidates).quotes[0]?.text;

describe('the short answer', () => {
  const lifted = (question: string, text: string) => ask(question, [said(text), said('It rains.')]).quotes[0]?.lifted;

  it('is lifted out where the sentence supports it whole', () => {
    expect(lifted('When is the delivery?', 'The delivery comes on Tuesday.')).toBe('on Tuesday');
    expect(lifted('How deep is the trench?', 'The trench is one metre and a half deep.')).toBe('one metre and a half');
  });

  it('is none where the sentence takes it back, names two, or asks', () => {
    expect(lifted('When is the delivery?', "The delivery can't come on Tuesday.")).toBeNull();
    expect(lifted('When is the delivery?', 'The delivery was moved from Tuesday to Thursday.')).toBeNull();
    expect(lifted('When is the delivery?', 'The delivery on Tuesday is cancelled.')).toBeNull();
  });
});

describe('the sentence that answers', () => {
  it('has in it what is asked for', () => {
    const sentences = [said('The delivery is a large one.'), said('The delivery comes on Tuesday.'), said('It rains.')];
    expect(best('When is the delivery?', sentences)).toBe('The delivery comes on Tuesday.');
  });

  it('may meet the question in the sentence before it, above all where that one asks', () => {
    const asked = said('Eighteen have said yes.', { before: 'How many people come to the planting day?' });
    expect(best('How many people come to the planting day?', [asked, said('The planting was hard work.')])).toBe(
      'Eighteen have said yes.',
    );
  });

  it('was said by whom the question names', () => {
    const sentences = [
      said('The roots are dry.', { speaker: 'Jun Fairweather' }),
      said('The roots need a metre.', { speaker: 'Bram Vantongeren' }),
    ];
    expect(ask('What did Bram say about the roots?', sentences).quotes.map((q) => q.text)).toEqual([
      'The roots need a metre.',
    ]);
  });

  it('is better when the person has marked it', () => {
    const sentences = [
      said('The lamp is old.', { ref: 'plain' }),
      said('The lamp is old.', { ref: 'marked', isMarked: true }),
    ];
    expect(ask('Which lamp is old?', sentences).quotes[0]!.ref).toBe('marked');
  });

  it('is a promise of one’s own where promises are asked for', () => {
    const sentences = [
      said('I will write the application.', { speaker: 'me', people: ['Bram Vantongeren'] }),
      said('I will call the nursery.', { speaker: 'Bram Vantongeren', people: ['Bram Vantongeren'] }),
      said('I will wash the coat.', { speaker: 'me' }),
    ];
    expect(ask('What have I promised Bram?', sentences).quotes.map((q) => q.text)).toEqual([
      'I will write the application.',
    ]);
  });
});

describe('what is lifted out', () => {
  it.each([
    ['When is the delivery?', 'The delivery comes on Tuesday at half past two.', 'on Tuesday at half past two'],
    [
      'How much does the trench cost?',
      'The trench costs eleven thousand four hundred.',
      'eleven thousand four hundred',
    ],
    ['Who pays for the trench?', 'The town pays for the trench.', null],
  ])('%s', (question, sentence, lifted) => expect(ask(question, [said(sentence)]).quotes[0]!.lifted).toBe(lifted));
});

describe('where nothing answers', () => {
  it('nothing is quoted, and the nearest is shown', () => {
    const { quotes, nearest } = ask('When does the concert in the church begin?', [
      said('The church is closed.'),
      said('It rains.'),
    ]);
    expect(quotes).toEqual([]);
    expect(nearest.map((q) => q.text)).toEqual(['The church is closed.']);
  });

  it.each([
    ['no time is named', 'When is the delivery?', 'The delivery van is blue.'],
    ['no number is named', 'How many lamps are there?', 'There are lamps along the quay.'],
  ])('because %s, only what meets all of the question is quoted', (_, question, sentence) => {
    const { quotes, nearest } = ask(question, [said(sentence), said('Something else altogether.')]);
    expect([...quotes, ...nearest].map((q) => q.text)).toEqual([sentence]);
    for (const q of quotes) expect(q.coverage).toBeGreaterThanOrEqual(0.85);
  });

  it('an empty archive is no error', () => expect(ask('Who calls?', [])).toEqual({ quotes: [], nearest: [] }));
});
