import fc from 'fast-check';
import { inReportedSpeech, tidyText } from './tidy';

describe('a spoken sentence as one would write it', () => {
  it.each([
    ['um we need stakes', 'We need stakes.'],
    ['Okay, so the trench is open.', 'The trench is open.'],
    ['I think that the limes are dry', 'The limes are dry.'],
    ['We need, we need stakes and ties.', 'We need stakes and ties.'],
    ['The the pit is full.', 'The pit is full.'],
    ['It was, you know, too wet.', 'It was too wet.'],
    ['Well, the school called.', 'The school called.'],
    ['The pump, which is old, works.', 'The pump, which is old, works.'],
    ['Who waters it?', 'Who waters it?'],
    ['He said “wait.”', 'He said “wait.”'],
    ['the form goes to Petra,', 'The form goes to Petra.'],
  ])('%s', (said, written) => expect(tidyText(said)).toBe(written));

  it('keeps what only looks like a filler', () => {
    expect(tidyText('The well is dry.')).toBe('The well is dry.');
    expect(tidyText('I like the silver lime.')).toBe('I like the silver lime.');
  });

  it('of nothing but fillers or signs nothing is left', () => {
    for (const said of ['', 'um, uh', '…', '?!', '   ']) expect(tidyText(said)).toBe('');
  });

  const words = fc.array(
    fc.constantFrom('um', 'the', 'pit', 'we', 'need', 'well,', 'stakes', 'I', 'think', 'water', 'and', 'lock', '12'),
    { minLength: 1, maxLength: 14 },
  );
  const plain = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}']+/gu) ?? [];

  it('only leaves words out: each that stands was said, in the order in which it was said', () => {
    fc.assert(
      fc.property(words, (said) => {
        const spoken = plain(said.join(' '));
        let at = 0;
        for (const word of plain(tidyText(said.join(' ')))) {
          at = spoken.indexOf(word, at) + 1;
          expect(at).toBeGreaterThan(0);
        }
      }),
    );
  });

  it('ends as a sentence, begins as one, and has no two blanks', () => {
    fc.assert(
      fc.property(words, (said) => {
        const written = tidyText(said.join(' '));
        if (!written) return;
        expect(written).toMatch(/[.?!…]["'”’)]?$/);
        expect(written.charAt(0)).toBe(written.charAt(0).toUpperCase());
        expect(written).not.toMatch(/\s\s|\s[,.;:?!]/);
      }),
    );
  });
});

describe('first person turned into who spoke', () => {
  it.each([
    ["I'll send the drawing.", 'Bram will send the drawing.'],
    ['I am sure of it.', 'Bram is sure of it.'],
    ["I've asked the nursery.", 'Bram has asked the nursery.'],
    ['I need my boots.', "Bram needs Bram's boots."],
    ['I think it is dry.', 'Bram thinks it is dry.'],
    ['I go there on Friday.', 'Bram goes there on Friday.'],
    ["I don't know.", "Bram doesn't know."],
    ['I also want the sand.', 'Bram also wants the sand.'],
    ['Give it to me.', 'Give it to Bram.'],
    ['That spade is mine.', "That spade is Bram's."],
    ['The pit is dry.', 'The pit is dry.'],
  ])('%s', (said, written) => expect(inReportedSpeech(said, 'Bram')).toBe(written));

  it('is left alone where the form is not known: then it stands as it was said', () => {
    expect(inReportedSpeech('I juggle.', 'Bram')).toBeNull();
    expect(inReportedSpeech('You and I, then.', 'Bram')).toBeNull();
  });

  it('takes any name as it is', () => {
    for (const name of ['$1', '$&', 'O’Hara', 'Zoë \\1']) {
      expect(inReportedSpeech('I will come.', name)).toBe(`${name} will come.`);
    }
  });
});
