import type { Sentence } from '../language/sentences';
import { keyPhrases } from '../language/title';
import { stem, wordsOf } from '../language/words';

/** A sentence of a talk with one of its terms left out, and the term. Times in milliseconds. */
export type RecallQuestion = { question: string; answer: string; startMs: number; endMs: number };

/** What stands in the place of the term. */
export const GAP = '____';
/** Words that point back, near the beginning. */
const POINTS = /\b(?:this|that|it|these|those|they|them)\b/i;
const POINTS_WITHIN = 30;
const MAX_CONTEXT = 240;
const WORDS = { fewest: 7, best: 14, most: 38 };
/** One for each minute is as much as anybody wants to be asked. */
const MS_FOR_EACH = 60_000;
const MOST = 40;
const TERMS_OF_SENTENCE = 4;
/** Five hours of talk have fewer. */
const MAX_SENTENCES = 6000;

/** Turns with which a speaker says what a thing is. Common practice, no source. */
const DEFINES =
  /\b(?:we call|is called|are called|is known as|means that|is (?:how|what|where|when|the (?:amount|share|point|force|rate|difference|name)|an? )|stands for|by agreement)\b/i;
/** Without the sentence before it nobody knows what is meant. */
const LEANS =
  /^(?:(?:and|but|so|or|then|because|also)\b[, ]*)?(?:it|this|that|these|those|they|he|she|there|here|one)\b/i;

/**
 * Questions for learning by recall: the most telling terms of a talk, each left out of the sentence that says most about it.
 * They are in the order of the talk; no term is asked and no sentence used twice.
 * @param sentences those without a time are left out
 */
export function recallQuestions(sentences: readonly Sentence[]): RecallQuestion[] {
  const timed = sentences.filter((s) => s.startMs !== null && s.endMs !== null).slice(0, MAX_SENTENCES);
  const last = timed.at(-1);
  if (!last) return [];
  const most = Math.min(MOST, Math.max(1, Math.round(last.endMs! / MS_FOR_EACH)));
  const asked = timed.map((sentence) => ({ sentence, terms: termsOf(sentence) }));
  const counts = new Map<string, number>();
  for (const key of asked.flatMap((a) => a.terms.map(keyOf))) counts.set(key, (counts.get(key) ?? 0) + 1);
  const pairs = asked
    .flatMap(({ sentence, terms }) => terms.map((term) => ({ sentence, term, key: keyOf(term) })))
    .map((pair) => ({ ...pair, worth: worthOf(pair.sentence, pair.term, counts.get(pair.key)!) }))
    .sort((x, y) => y.worth - x.worth);
  const used = { sentences: new Set<Sentence>(), terms: new Set<string>() };
  const questions: RecallQuestion[] = [];
  for (const { sentence, term, key } of pairs) {
    if (questions.length === most) break;
    if (used.sentences.has(sentence) || used.terms.has(key)) continue;
    const found = without(sentence.text, term);
    if (!found) continue;
    used.sentences.add(sentence);
    used.terms.add(key);
    const answer = term.toLowerCase() === term ? term : found.said;
    questions.push({
      question: withContext(found.question, sentence, term, timed),
      answer,
      startMs: sentence.startMs!,
      endMs: sentence.endMs!,
    });
  }
  return questions.sort((x, y) => x.startMs - y.startMs);
}

/** A sentence that speaks of “this” stands after the one that says what is meant. */
function withContext(question: string, sentence: Sentence, term: string, sentences: readonly Sentence[]): string {
  const before = sentences[sentences.indexOf(sentence) - 1]?.text;
  if (!before || !POINTS.test(sentence.text.slice(0, POINTS_WITHIN)) || before.length > MAX_CONTEXT) return question;
  return before.toLowerCase().includes(term.toLowerCase()) ? question : `${before} ${question}`;
}

function termsOf({ text }: Sentence): string[] {
  const count = wordsOf(text).length;
  return count < WORDS.fewest || count > WORDS.most ? [] : keyPhrases([text], TERMS_OF_SENTENCE);
}

const keyOf = (term: string): string => wordsOf(term).map(stem).join(' ');

function worthOf({ text }: Sentence, term: string, count: number): number {
  const words = wordsOf(text).length;
  return (
    (DEFINES.test(text) ? 2 : 0) +
    (/\d/.test(text) ? 0.7 : 0) -
    (LEANS.test(text) ? 2 : 0) -
    Math.abs(words - WORDS.best) / WORDS.best +
    // A term of the talk comes back, and it often has two words.
    Math.min(2, Math.log2(count)) +
    (term.includes(' ') ? 1.2 : 0)
  );
}

/** The sentence with the term left out; null where it is not there exactly once as a whole word. */
function without(text: string, term: string): { question: string; said: string } | null {
  const lower = text.toLowerCase();
  const wanted = term.toLowerCase();
  const at = lower.indexOf(wanted);
  if (at < 0 || lower.indexOf(wanted, at + 1) >= 0 || lower.length !== text.length) return null;
  const end = at + wanted.length;
  if (/[\p{L}\p{N}]/u.test(text[at - 1] ?? ' ') || /[\p{L}\p{N}]/u.test(text[end] ?? ' ')) return null;
  return { question: text.slice(0, at) + GAP + text.slice(end), said: text.slice(at, end) };
}
