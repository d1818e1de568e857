import fc from 'fast-check';
import { DICTATION_COMMANDS, type DictationCommand } from '../contract/dictationCommands';
import { dictated } from './dictation';
import { type Passage, paragraphsOf, passageText } from './manuscript';

const passage = (text: string): Passage => ({
  ...{ startMs: 0, endMs: 100_000, speaker: 'Speaker 1', startsParagraph: true },
  words: text.split(' ').map((word, i) => ({ startMs: i * 400, endMs: i * 400 + 300, text: word, confidence: 0.9 })),
});
const written = (text: string, commands?: Set<DictationCommand>): string[] =>
  paragraphsOf(dictated([passage(text)], commands)).map((group) => group.map(passageText).join(' '));

it.each([
  ['We planted twelve limes full stop the soil is dry', ['We planted twelve limes. The soil is dry']],
  ['The limes. Comma, the crane comma and the lock', ['The limes, the crane, and the lock']],
  ['Is it deep enough question mark I hope so exclamation mark', ['Is it deep enough? I hope so!']],
  ['Dear council, new paragraph. we write about the quay', ['Dear council,', 'We write about the quay']],
  ['three things colon The pits semicolon the trench', ['three things: the pits; the trench']],
  ['the pits open bracket All twelve close bracket are dug', ['the pits (all twelve) are dug']],
  ['he said open quote it is dry close quote full stop', ['he said “it is dry”.']],
  ['We meet on Monday. Strike that. We meet on Tuesday.', ['We meet on Tuesday.']],
  ['It rains. We meet on Monday strike that we meet on Tuesday', ['It rains. We meet on Tuesday']],
  ['First. New paragraph. Second thing scratch that third thing', ['First.', 'Third thing']],
  ['First new paragraph strike that second', ['Second']],
  ['I dash As always dash forgot', ['I – as always – forgot']],
  ['Put a comma there, not the full stop.', ['Put a comma there, not the full stop.']],
  ['The bus came to a full. Stop there.', ['The bus came to a full. Stop there.']],
  ['comma well', ['well']],
])('writes "%s"', (said, expected) => {
  expect(written(said)).toEqual(expected);
});

it('writes the words of a command that is switched off', () => {
  const some = new Set(DICTATION_COMMANDS.filter((c) => c !== 'comma'));
  expect(written('one comma two full stop', some)).toEqual(['one comma two.']);
});

it('is one piece by nobody in particular, however long the pauses', () => {
  const p = passage('We planted the limes. The soil is dry. We water on Monday.');
  const late = {
    ...p,
    words: p.words.map((w, i) => ({ ...w, startMs: w.startMs + i * 4000, endMs: w.endMs + i * 4000 })),
  };
  const result = dictated([late]);
  expect(result.length).toBeGreaterThan(1);
  expect(result.map((r) => r.startsParagraph)).toEqual(result.map((_, i) => i === 0));
  expect(result.every((r) => r.speaker === null)).toBe(true);
});

it('keeps the times of what it keeps, in their order', () => {
  const word = fc.constantFrom('comma', 'full', 'stop', 'new', 'paragraph', 'strike', 'that', 'limes.', 'The', 'wall,');
  fc.assert(
    fc.property(fc.array(word, { minLength: 1, maxLength: 40 }), (texts) => {
      const p = passage(texts.join(' '));
      const words = dictated([p]).flatMap((r) => r.words);
      expect(words.every((w) => p.words.some((o) => o.startMs === w.startMs && o.endMs === w.endMs))).toBe(true);
      expect(words.every((w, i) => i === 0 || words[i - 1]!.startMs < w.startMs)).toBe(true);
    }),
  );
});
