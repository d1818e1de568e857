import type { Passage } from '../transcript/manuscript';
import { sentencesOf, sentencesOfText } from './sentences';
import { isStopword, stem, topicStems, wordsOf } from './words';

const passage = (text: string, startMs: number, speaker: string | null = null): Passage => ({
  ...{ startMs, endMs: startMs + 5000, speaker, startsParagraph: true },
  words: text
    .split(' ')
    .map((word, i) => ({ startMs: startMs + i * 100, endMs: startMs + i * 100 + 90, text: word, confidence: 1 })),
});

describe('sentences of a manuscript', () => {
  it('know their passage and their time', () => {
    const sentences = sentencesOf([passage('It rains. We wait.', 1000), passage('Then we plant.', 9000)]);
    expect(sentences.map((s) => [s.text, s.passage, s.startMs, s.endMs])).toEqual([
      ['It rains.', 0, 1000, 1190],
      ['We wait.', 0, 1200, 1390],
      ['Then we plant.', 1, 9000, 9290],
    ]);
  });

  it('go on over a cut between passages', () => {
    const [sentence] = sentencesOf([passage('Dear members', 0), passage('of the council.', 3000)]);
    expect(sentence).toMatchObject({ text: 'Dear members of the council.', passage: 0, startMs: 0, endMs: 3290 });
  });

  it('end where another speaker begins', () => {
    const sentences = sentencesOf([passage('And then', 0, 'Bram'), passage('Yes, but', 1000, 'Jun')]);
    expect(sentences.map((s) => [s.speaker, s.text])).toEqual([
      ['Bram', 'And then'],
      ['Jun', 'Yes, but'],
    ]);
  });
});

describe('sentences of plain text', () => {
  it.each([
    ['One. Two! Three? Four', ['One.', 'Two!', 'Three?', 'Four']],
    ['Dr. Sund called at 3.30 today. Good.', ['Dr. Sund called at 3.30 today.', 'Good.']],
    ['He said “Stop.” Then he left.', ['He said “Stop.”', 'Then he left.']],
    ['a line\r\nbroken in two\n\nanother block', ['a line broken in two', 'another block']],
    ['- buy bread\n- call Jun\n2) pay', ['buy bread', 'call Jun', 'pay']],
    [
      '今日は雨です。 Please send the plan. من يدفع؟ Bram pays.',
      ['今日は雨です。', 'Please send the plan.', 'من يدفع؟', 'Bram pays.'],
    ],
    ['It was late. and dark.', ['It was late. and dark.']],
    ['', []],
    ['  \n \n ', []],
  ])('%j', (text, sentences) => {
    expect(sentencesOfText(text).map((s) => s.text)).toEqual(sentences);
  });
});

describe('words', () => {
  it('are lower-cased and keep their apostrophes', () => {
    expect(wordsOf('Don’t plant Bram’s 12 limes—yet!')).toEqual(["don't", 'plant', "bram's", '12', 'limes', 'yet']);
  });

  it('share a stem in all their forms', () => {
    // Porter 1980, "An algorithm for suffix stripping": examples of its steps 1a, 1b and 2.
    for (const [word, expected] of [
      ['caresses', 'caress'],
      ['ponies', 'poni'],
      ['plastered', 'plaster'],
      ['motoring', 'motor'],
      ['hopping', 'hop'],
      ['relational', 'relat'],
    ] as const) {
      expect(stem(word)).toBe(expected);
    }
    expect(stem('limes')).toBe(stem('lime'));
  });

  it('of a topic are those that name something', () => {
    expect(topicStems('We will then water the limes on Monday')).toEqual(['water', 'lime']);
    expect(['the', '12', 'x', 'would'].every(isStopword)).toBe(true);
  });
});
