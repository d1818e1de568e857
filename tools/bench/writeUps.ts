/** Write-ups: "Summary" against summaries by hand, and the parts of the lecture against those of its script. Prints Markdown tables. */
import path from 'node:path';
import { loadWorld } from '../../demo/src/world';
import { LECTURE_PARTS } from '../../core/language/evaluation/lectureParts';
import { boundariesOf, pk, windowDiff } from '../../core/language/parts';
import { sentencesOfText } from '../../core/language/sentences';
import { REFERENCE_SUMMARIES } from '../../core/writeup/evaluationSummaries';
import { makeWriteUp } from '../../core/writeup/makeWriteUp';
import { plainText } from '../../core/writeup/makeWriteUp';
import { rougeL, rougeN } from '../../core/writeup/rouge';
import { SHIPPED_TEMPLATES } from '../../core/writeup/shippedTemplates';
import { projectRoot } from '../../server/projectRoot';

const world = loadWorld(path.join(projectRoot(), 'demo', 'world'));
type Scores = { one: number; two: number; l: number };
const total = (): Scores => ({ one: 0, two: 0, l: 0 });
const [ours, lead] = [total(), total()];
const ids = Object.keys(REFERENCE_SUMMARIES);
for (const id of ids) {
  const script = world.find((s) => s.id === id)!;
  const passages = script.lines.map(({ speaker, text }, i) => ({
    ...{ speaker, startMs: i * 10_000, endMs: i * 10_000 + 9000, startsParagraph: true },
    words: text.split(/\s+/).map((word) => ({ text: word, startMs: i * 10_000, endMs: i * 10_000 + 1, confidence: 1 })),
  }));
  const made = plainText(makeWriteUp(SHIPPED_TEMPLATES.get('in-short')!, { passages, slips: [], todos: [] }, null));
  const first = sentencesOfText(script.lines.map((l) => l.text).join(' '))
    .slice(0, 3)
    .map((s) => s.text)
    .join(' ');
  for (const [text, sum] of [
    [made, ours],
    [first, lead],
  ] as const) {
    sum.one += rougeN(text, REFERENCE_SUMMARIES[id]!, 1).f1;
    sum.two += rougeN(text, REFERENCE_SUMMARIES[id]!, 2).f1;
    sum.l += rougeL(text, REFERENCE_SUMMARIES[id]!).f1;
  }
  if (process.argv.includes('--texts')) process.stderr.write(`${id}: ${made}\n\n`);
}
const row = (name: string, { one, two, l }: Scores) =>
  `| ${name} | ${[one, two, l].map((x) => (x / ids.length).toFixed(3)).join(' | ')} |`;
console.log(`| "Summary" of ${ids.length} recordings (F1, means) | ROUGE-1 | ROUGE-2 | ROUGE-L |`);
console.log('|---|---|---|---|');
console.log(row('In short, three sentences', ours));
console.log(row('the first three sentences, for comparison', lead));

const lecture = sentencesOfText(
  world
    .find((s) => s.id === 'lecture')!
    .lines.map((l) => l.text)
    .join(' '),
).map((s) => s.text);
const wanted = LECTURE_PARTS.map((beginning) => lecture.findIndex((s) => s.startsWith(beginning)));
if (wanted.includes(-1)) throw new Error('A part of the lecture begins with words that are not in its script.');
const even = wanted.map((_, i) => Math.round(((i + 1) * lecture.length) / (wanted.length + 1)));
console.log(`\n| Parts of the lecture (${wanted.length} beginnings, ${lecture.length} sentences) | Pk | WindowDiff |`);
console.log('|---|---|---|');
for (const [name, found] of [
  ['found by their words and turns of phrase', boundariesOf(lecture)],
  ['parts of even length, for comparison', even],
  ['no parts, for comparison', []],
] as const) {
  const figures = [pk(wanted, found, lecture.length), windowDiff(wanted, found, lecture.length)];
  console.log(`| ${name} | ${figures.map((f) => f.toFixed(2)).join(' | ')} |`);
}
