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
    const { parts, terms } = topicMapOf(said, []);
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
    expect(terms).toEqual([]);
  });

  it('have threads: terms that are said in several parts, with every moment', () => {
    const twice = [...said, ...said.map((p) => passage(p.words.map((w) => w.text).join(' '), p.startMs + 200_000))];
    const headings = [0, 100_000, 200_000, 300_000].map((ms) => heading(`Part ${ms}`, ms));
    const { terms } = topicMapOf(twice, headings);
    expect(terms.map((t) => t.text).sort()).toEqual(['clay', 'pore', 'root', 'soil', 'tree', 'water']);
    for (const { text, saidMs } of terms) {
      expect(new Set(saidMs.map((ms) => Math.floor(ms / 100_000))).size).toBeGreaterThan(1);
      const saying = twice.filter((p) => saidMs.includes(p.startMs));
      expect(saying).toHaveLength(saidMs.length);
      for (const p of saying) expect(p.words.map((w) => w.text).join(' ')).toContain(text);
    }
  });

  it('go by one’s own headings where there are any; what came before the first belongs to it', () => {
    const { parts } = topicMapOf(said, [heading('Later', 150_000), heading('First', 20_000)]);
    expect(parts.map((p) => p.title)).toEqual(['First', 'Later']);
    expect(parts[1]!.points.every((p) => p.startMs >= 150_000)).toBe(true);
  });

  it('of a short talk have no titles, and of nothing are none', () => {
    expect(topicMapOf(said.slice(0, 6), []).parts.map((p) => p.title)).toEqual([null]);
    expect(topicMapOf([], [])).toEqual({ parts: [], terms: [] });
    expect(topicMapOf([passage('7 7 7.', 0)], [])).toEqual({ parts: [], terms: [] });
  });
});
