import type { Passage } from '../transcript/manuscript';
import { topicMapOf } from './topicMap';

const passage = (text: string, startMs: number): Passage => ({
  ...{ speaker: null, startMs, endMs: startMs + 4000, startsParagraph: true },
  words: text
    .split(' ')
    .map((word, i) => ({ text: word, startMs: startMs + i * 200, endMs: startMs + i * 200 + 180, confidence: 1 })),
});
const about = (words: string[]): string[] =>
  Array.from({ length: 20 }, (_, i) => {
    const [a, b, c] = [words[i % words.length], words[(i + 1) % words.length], words[(i + 3) % words.length]];
    return `So um, the ${a} belongs to the ${b} and to the ${c}.`;
  });
const said = [
  ...about(['root', 'soil', 'water', 'pore', 'clay', 'tree']),
  ...about(['price', 'fund', 'council', 'invoice', 'budget', 'cost']),
].map((text, i) => passage(text, i * 5000));
const heading = (text: string, startMs: number) => ({ kind: 'heading', text, startMs });

describe('the topics of a recording', () => {
  it('are its parts, each with tidied points of its own that were said within it', () => {
    const parts = topicMapOf(said, []);
    expect(parts).toHaveLength(2);
    parts.forEach(({ title, startMs, points }, i) => {
      expect(title).toMatch(/^\p{Lu}/u);
      expect(points.length).toBeGreaterThan(0);
      for (const point of points) {
        expect(point.startMs).toBeGreaterThanOrEqual(startMs);
        expect(point.startMs).toBeLessThan(parts[i + 1]?.startMs ?? Infinity);
        expect(point.text).toMatch(/^The \w+ belongs/);
        const sentence = said.find((p) => p.startMs === point.startMs)!;
        expect(sentence.words.map((w) => w.text).join(' ')).toContain(point.text.slice(4));
      }
    });
  });

  it('go by one’s own headings where there are any; what came before the first belongs to it', () => {
    const parts = topicMapOf(said, [heading('Later', 150_000), heading('First', 20_000)]);
    expect(parts.map((p) => p.title)).toEqual(['First', 'Later']);
    expect(parts[1]!.points.every((p) => p.startMs >= 150_000)).toBe(true);
  });

  it('of a short talk hang at the centre, and of nothing are none', () => {
    expect(topicMapOf(said.slice(0, 6), []).map((p) => p.title)).toEqual([null]);
    expect(topicMapOf([], [])).toEqual([]);
    expect(topicMapOf([passage('7 7 7.', 0)], [])).toEqual([]);
  });
});
