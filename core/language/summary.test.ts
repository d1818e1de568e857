import { sentencesOfText } from './sentences';
import { cosine, summarise, tfIdfVectors } from './summary';
import { keyPhrases, suggestTitle } from './title';

const LETTER = sentencesOfText(
  'We ask the council to approve twelve lime trees along the quay. The trees give shade on the quay in summer. My tea is cold. ' +
    'The council would pay for the trench, so that rain reaches the roots of the trees. The bus was late today. Does it matter?',
);

describe('summary', () => {
  it('keeps the length that is asked for', () => {
    for (const most of [0, 1, 2, 3, 10]) expect(summarise(LETTER, most).length).toBeLessThanOrEqual(most);
  });

  it('takes the sentences that the others are about, in the order they were said', () => {
    const chosen = summarise(LETTER, 2);
    expect(chosen.map((s) => s.index)).toEqual([...chosen.map((s) => s.index)].sort((a, b) => a - b));
    expect(chosen.every((s) => /trees/.test(s.text))).toBe(true);
  });

  it('invents nothing and leaves questions out', () => {
    for (const s of summarise(LETTER, 6)) {
      expect(LETTER.map((l) => l.text)).toContain(s.text);
      expect(s.text).not.toMatch(/\?$/);
    }
  });

  it('does not say the same thing twice', () => {
    const twice = sentencesOfText(
      'The trench costs eleven thousand pounds. The trench costs eleven thousand pounds. Rain fills the pits slowly every winter.',
    );
    expect(summarise(twice, 3).filter((s) => /trench/.test(s.text))).toHaveLength(1);
  });

  it('has nothing to say to nothing', () => {
    expect(summarise([], 3)).toEqual([]);
  });
});

describe('TF-IDF vectors', () => {
  it('are of unit length, alike for alike texts and orthogonal for others', () => {
    const [a, b, c] = tfIdfVectors([['lime', 'root'], ['lime', 'root'], ['bus']]);
    expect(cosine(a!, b!)).toBeCloseTo(1);
    expect(cosine(a!, c!)).toBe(0);
  });
});

describe('title', () => {
  it('is what the speaker announces', () => {
    expect(
      suggestTitle(sentencesOfText('Good evening. Today we talk about infiltration and field capacity. It rains.')),
    ).toBe('Infiltration and field capacity');
    expect(suggestTitle(sentencesOfText('Notes on soil texture for the exam. Sand is coarse.'))).toBe('Soil texture');
  });

  it('else is made of the phrases that come back', () => {
    expect(suggestTitle(LETTER)?.toLowerCase()).toMatch(/trees|council|quay|trench/);
    expect(keyPhrases(['The pump is broken. The pump was new.', 'We need another pump.'], 1)[0]).toMatch(/pump/i);
  });

  it('is never too long, never cut inside a word, and missing when nothing was said', () => {
    const long = sentencesOfText(`This is about ${'unbelievably complicated considerations '.repeat(5)}.`);
    const title = suggestTitle(long)!;
    expect(title.length).toBeLessThanOrEqual(52);
    for (const word of title.toLowerCase().split(' '))
      expect(['unbelievably', 'complicated', 'considerations']).toContain(word);
    expect(suggestTitle([])).toBeNull();
  });
});
