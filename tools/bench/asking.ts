/**
 * How well questions are answered over data/talk: 55 that it answers and 25 that it does not. They were written before the
 * method was changed; the odd ones were worked with, the even ones are for the figure.
 */
import fs from 'node:fs';
import path from 'node:path';
import { AskedTalks } from '../../core/find/askTalks';
import { readTalkFile, sentencesOfItem } from '../../core/understanding/learning/talk';
import { wordVectors } from '../../server/find/wordVectors';

type TalkQuestion = { question: string; item: string | null; quote: string | null };

const folder = path.resolve(__dirname, '..', '..', 'data', 'talk');
const talks = ['A', 'B', 'C']
  .flatMap((hand) => readTalkFile(fs.readFileSync(path.join(folder, `${hand}.jsonl`), 'utf8')))
  .map((item) => ({ file: item.id, sentences: sentencesOfItem(item) }));
const asked = new AskedTalks(talks, '2026-12-31T12:00', wordVectors());
const questions = fs
  .readFileSync(path.join(folder, 'questions.jsonl'), 'utf8')
  .split('\n')
  .filter(Boolean)
  .map((line) => JSON.parse(line) as TalkQuestion);

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ');
/** A sentence holds the quote, or a part of it where the quote goes over several. */
const holds = (sentence: string, quote: string): boolean =>
  plain(sentence).includes(plain(quote)) || plain(quote).includes(plain(sentence).trim());

const isVerbose = process.argv.includes('--verbose');
const sums = [0, 1].map(() => ({ wanted: 0, first: 0, three: 0, recording: 0, unanswerable: 0, refused: 0 }));
questions.forEach(({ question, item, quote }, i) => {
  const sum = sums[i % 2]!;
  const quotes = asked.ask(question);
  if (item === null) {
    sum.unanswerable++;
    if (!quotes.length) sum.refused++;
  } else {
    sum.wanted++;
    const right = quotes.findIndex((q) => q.ref.file === item && holds(q.text, quote!));
    if (right === 0) sum.first++;
    if (right >= 0) sum.three++;
    if (quotes.some((q) => q.ref.file === item)) sum.recording++;
    if (right >= 0) return;
  }
  if (isVerbose && i % 2 === 0 && (item || quotes.length))
    console.log(`${question} [${item ?? 'no answer'}] ${quotes.map((q) => `${q.ref.file}: ${q.text}`).join(' | ')}`);
});

console.log('\n## Asking\n');
console.log('| questions over 380 items | worked with | kept for the figure | aim |\n|---|---|---|---|');
const row = (name: string, part: (s: (typeof sums)[number]) => string, aim: string): void =>
  console.log(`| ${name} | ${sums.map(part).join(' | ')} | ${aim} |`);
row('The right sentence among three', (s) => `${s.three} of ${s.wanted}`, '75 %');
row('The same, first', (s) => `${s.first} of ${s.wanted}`, '');
row('A sentence of the right recording', (s) => `${s.recording} of ${s.wanted}`, '');
row('Refused, where there is no answer', (s) => `${s.refused} of ${s.unanswerable}`, '70 %');
