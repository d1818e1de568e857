import { type Word, paragraphsOf, passageText } from './manuscript';
import { passagesFrom } from './passages';

/** Words at two a second; `|1.5` is a pause of so many seconds. */
function words(text: string): Word[] {
  let at = 0;
  return text.split(' ').flatMap((token): Word[] => {
    if (token.startsWith('|')) {
      at += Number(token.slice(1)) * 1000;
      return [];
    }
    const word = { startMs: at, endMs: at + 400, text: token, confidence: 1 };
    at += 500;
    return [word];
  });
}
const texts = (text: string) => passagesFrom(words(text)).map(passageText);

describe('passages and paragraphs', () => {
  it('end at a pause after a sentence', () => {
    expect(texts('We plant today. |1 It rains.')).toEqual(['We plant today.', 'It rains.']);
  });

  it('do not end at a pause inside a sentence, as when somebody dictates', () => {
    expect(texts('Dear members |2 of the council.')).toEqual(['Dear members of the council.']);
    const dictated = passagesFrom(words('I ask you |4 to approve. |4 the planting.'));
    expect(paragraphsOf(dictated)).toHaveLength(1);
  });

  it('take "Dr." for no end', () => {
    expect(texts('I met Dr. |1 Sund there.')).toEqual(['I met Dr. Sund there.']);
  });

  it('are never longer than 30 s and lose no word', () => {
    const long = Array.from({ length: 400 }, (_, i) => `word${i}`).join(' ');
    const passages = passagesFrom(words(long));
    expect(passages.map(passageText).join(' ')).toBe(long);
    for (const p of passages) expect(p.endMs - p.startMs).toBeLessThanOrEqual(30_000);
  });

  it('begin a paragraph where the topic turns after a long pause, not at every pause', () => {
    const orchard =
      'The orchard needs stakes and ties. |0.8 The orchard trees need water and stakes. |0.8 We stake the orchard trees.';
    const dentist = '|2.5 Now the dentist called about Thursday. |0.8 The dentist wants the card.';
    const paragraphs = paragraphsOf(passagesFrom(words(`${orchard} ${dentist}`)));
    expect(paragraphs.map((p) => p.length)).toEqual([3, 2]);
  });

  it('has nothing to say to nothing', () => {
    expect(passagesFrom([])).toEqual([]);
  });
});
