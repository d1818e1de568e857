import { quantitiesIn } from '../find/quantities';
import type { Sentence } from '../language/sentences';
import { keyPhrases } from '../language/title';
import { peopleNamed } from '../language/todos/scene';
import { stem, topicStems, wordsOf } from '../language/words';

const DECIDED =
  /\b(?:(?:we|they|everybody|everyone|the \p{L}+)(?:'ve| have| has)?(?: all| now| finally)? (?:decided|agreed|settled|voted|chose|chosen|opted)|(?:we|they) (?:went|go|are going) (?:for|with)|(?:it|that|this)(?:'s| is) (?:decided|agreed|settled)|(?:the )?decision is|the vote (?:was|is)|agreed[,:.]|we (?:will |'ll )?go with|we settle on|we are agreed|that is the plan|final(?:ly)? (?:it is|we take)|^from now on)/iu;
const PROPOSED =
  /^(?:(?:so|then|okay|good|right|fine|in that case|all right)[, ]+)*(?:let us|let's|we(?:'ll| will| start| begin| take| meet| plant| do| use| leave| keep| move| wait| stay| go| skip| pay| order)\b)/i;
const SINGULAR_CHOICE =
  /^(?:(?:so|then|okay)[, ]+)+(?:it is|that makes|we have|the .{3,30} (?:is|are|goes|comes|stays?|moves?))\b/i;
/** "That one has to go", where the next speaker agrees. */
const FATE = /\b(?:has|have) to (?:go|stay)\b|\b(?:stays|goes)(?: as it is| where it is)?[.!]$/i;
const ANNOUNCED = /^we(?:'ll| will| are going to) (?!see\b|have to\b|need\b|know\b|think\b|be (?:sorry|late)\b)/i;
/** What follows from what the other has just said: "Good, then we take two metres." A promise of one's own is a to-do. */
const CONCLUDED =
  /^(?:(?:good|okay|ok|fine|right|great|so|well|all right|perfect|agreed|too \p{L}+)[,.]? )*(?:then|so) (?!.*\b(?:can|could|shall|should|perhaps|maybe|if)\b)(?:we|it|that|you|they|the \p{L}+)(?:'ll)? (?!(?:can|have|had|see|are done)\b)/iu;
const IT_IS = /^(?:(?:so|okay|good|fine|right|well)[, ]+)*(?:the )?\p{L}+(?: \p{L}+)? it is[.!]$/iu;
/** A choice that was taken up in a word: "Okay, October." */
const SHORT_CHOICE = /^(?:okay|ok|good|fine|right|great|perfect|then|so|all right)[, ]+(.{2,40})[.!]$/i;
const SHORT_CHOICE_WORDS = 5;
const ASSENT =
  /^(?:yes|yeah|good|agreed|fine|okay|ok|right|sure|all right|alright|perfect|that works|that makes sense|as you like|done|deal|i agree|i am glad|of course|exactly|very good|great|wonderful)\b/i;
const BARE_AGREEMENT =
  /^(?:(?:good|yes|right|okay),? )?(?:agreed|decided|that is decided|that is agreed|done|it is settled)[.!]*$/i;
const DISSENT =
  /^(?:no\b|not\b|i don't think|i do not think|i am not so sure|but\b|wait|hm+|really\?|perhaps\b|maybe\b)/i;
const CONDITION = /\b(?:not|never|haven't|didn't|if)\b/i;

/** So many sentences before a short choice, the other has offered what it chooses from. */
const OFFERED_WITHIN = 4;

/**
 * Sentences in which something is decided: by words that say so, a proposal for all that the next speaker agrees to, or
 * a conclusion from what the other has said. Common practice, no source.
 */
export function decisionsIn(sentences: readonly Sentence[]): Sentence[] {
  const agreedTo = sentences.filter((s, i) => {
    const answer = sentences[i + 1];
    return answer && answer.speaker !== s.speaker && BARE_AGREEMENT.test(answer.text) && s.text.split(/\s+/).length > 3;
  });
  return sentences.filter((s, i) => {
    const { text, speaker } = s;
    if (text.trim().endsWith('?') || BARE_AGREEMENT.test(text)) return false;
    if (agreedTo.includes(s)) return true;
    if (DECIDED.test(text)) return !CONDITION.test(text);
    if (speaker === null) return false;
    const next = sentences.slice(i + 1, i + 3).find((n) => n.speaker !== speaker);
    if (next && DISSENT.test(next.text)) return false;
    const before = sentences.slice(Math.max(0, i - OFFERED_WITHIN), i);
    const isReply = before.some((b) => b.speaker !== speaker);
    if (isReply && (CONCLUDED.test(text) || IT_IS.test(text) || isShortChoice(text, before))) return true;
    if (ANNOUNCED.test(text)) return !CONDITION.test(text);
    const isAgreed = next !== undefined && ASSENT.test(next.text);
    return isAgreed && (PROPOSED.test(text) || SINGULAR_CHOICE.test(text) || FATE.test(text));
  });
}

function isShortChoice(text: string, before: readonly Sentence[]): boolean {
  const chosen = SHORT_CHOICE.exec(text)?.[1];
  if (!chosen || chosen.split(/\s+/).length > SHORT_CHOICE_WORDS || /\b(?:i|i'll|you|we)\b/i.test(chosen)) return false;
  const stems = topicStems(chosen);
  const offered = before.filter((b) => /\bor\b|\?$/i.test(b.text));
  return stems.some((t) => offered.some((b) => topicStems(b.text).includes(t)));
}

const UNSURE =
  /\b(?:i don't know|i do not know|we (?:don't|do not) know|not (?:so )?sure|no idea|we(?:'ll| will) see|wait and see|(?:have|need|would have) to (?:check|ask|find out|look|think)|good question|hard to say|(?:it|that) depends|nobody (?:knows|has|could|can)|let me (?:check|ask|think|look)|(?:cannot|can't) say|still open|not yet (?:clear|known))\b|^(?:hm+\b|perhaps\b|maybe\b|i hope\b)/i;
const ASKED_IN_WORDS =
  /\b(?:the (?:open )?question is|i wonder|it is (?:still )?(?:open|unclear)|remains (?:open|unclear)|we (?:still )?(?:don't|do not) know|i (?:still )?(?:don't|do not) know (?:whether|if|what|how|when|where|who))\b/i;
/** Asked for form's sake: nobody waits for an answer. */
const EMPTY =
  /^(?:right|okay|ok|really|isn't it|you know|and|so|what|why not|how are you.*|can you hear me|shall we( begin| start)?|any questions|is that (?:all|right|clear)|good|yes|no)\?$/i;
/** A question back, as against an answer that ends in one. */
const ASKS_BACK =
  /^(?:(?:and|but|so|well)[, ]+)?(?:who|what|when|where|why|how|which|do|does|did|is|are|was|were|can|could|should|shall|will|would|have|has)\b/i;

const MIN_ASKED = 4;
/** Every question that was asked, answered or not: what a lecture is learned by. */
export const askedIn = (sentences: readonly Sentence[]): Sentence[] =>
  sentences.filter(({ text }) => {
    const asked = text.trim();
    return asked.endsWith('?') && !EMPTY.test(asked) && asked.split(/\s+/).length >= MIN_ASKED;
  });

/** One voice for so long is a lecture. Common practice, no source. */
const LECTURE_SENTENCES = 60;

/** Questions that nobody answered: what follows is unsure, another question, or nothing. */
export function openQuestionsIn(sentences: readonly Sentence[]): Sentence[] {
  const isLecture = sentences.length >= LECTURE_SENTENCES && new Set(sentences.map((s) => s.speaker)).size === 1;
  return sentences.filter((s, i) => {
    const text = s.text.trim();
    const after = sentences.slice(i + 1, i + 4);
    const reply = s.speaker === null ? after[0] : after.find((n) => n.speaker !== s.speaker);
    // "I do not know yet" is the answer to a question that is listed itself.
    const isAnswer = sentences[i - 1]?.text.trim().endsWith('?') && sentences[i - 1]!.speaker !== s.speaker;
    if (ASKED_IN_WORDS.test(text)) return !isAnswer;
    if (!text.endsWith('?') || EMPTY.test(text)) return false;
    if (/^(?:can|could|would|will) you\b/i.test(text.replace(/^\p{Lu}\p{Ll}+, /u, ''))) return false;
    const isUnsure = reply !== undefined && UNSURE.test(reply.text);
    // Of two words ("Which sort?") only when it is plain that nobody knew.
    if (text.split(/\s+/).length < 3) return isUnsure;
    if (!reply || isUnsure) return true;
    // Who lectures asks in order to answer.
    if (isLecture) return false;
    // In a memo one answers oneself, or goes on to something else.
    if (s.speaker === null) {
      const shared = topicStems(reply.text).filter((t) => topicStems(text).includes(t));
      return shared.length === 0 || reply.text.trim().endsWith('?');
    }
    return reply.text.trim().endsWith('?') && reply.text.split(/\s+/).length > 3 && ASKS_BACK.test(reply.text.trim());
  });
}

const DATE =
  /\b(?:(?:mon|tues|wednes|thurs|fri|satur|sun)day|january|february|march|april|june|july|august|september|october|november|december|may the \w+|the \w+ of may|today|tomorrow|next (?:week|month|year)|o'clock|half past|quarter (?:past|to))\b|\b\d{1,2}[:.]\d{2}\b/i;

/** An amount that is worth a note: a large number, a share, or something measured. */
const AMOUNT =
  /\d{2,}|\d[.,]\d|\b(?:ten|eleven|twelve|\p{L}+teen|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety|hundred|thousand|million)\b|per ?cent|%|\b(?:milli|centi|kilo)?(?:met(?:er|re)s?|grams?|lit(?:er|re)s?)\b|\b(?:degrees?|hours?|minutes?|days?|weeks?|months?|years?|mm|cm|km|kg)\b/iu;

/** Sentences with a date, a time or an amount in them. */
export const datesAndNumbersIn = (sentences: readonly Sentence[]): Sentence[] =>
  sentences.filter(
    ({ text }) =>
      !text.trim().endsWith('?') && (DATE.test(text) || quantitiesIn(text).some((quantity) => AMOUNT.test(quantity))),
  );

export type Term = { term: string; sentence: Sentence };

const NAMED =
  /\b(?:(?:is|are) called|we call (?:it|this|that|them)?|called|known as|(?:is|are) named)\s+(?:the |a |an )?(\p{L}[\p{L}-]*(?: \p{L}[\p{L}-]*)?)/iu;
const MEANS = /^(?:the |an? )?(\p{L}[\p{L} -]{2,30}?) (?:is|are|means|describes) (?:the|an?|what|how|when|where)\b/iu;
const NO_TERM =
  /^(?:this|that|it|there|here|which|what|who|one|he|she|they|we|you|i|today|now|so|people|(?:the )?(?:first|second|third|fourth|last|next|other|same|point|reason|result|question|problem|idea|difference|rest|part|thing|way|answer))$/i;

/** Names and terms, each with the sentence that explains it or says it first. */
export function termsIn(sentences: readonly Sentence[], most: number): Term[] {
  const terms = new Map<string, Term>();
  const add = (term: string, sentence: Sentence) => {
    const plain = term.trim().replace(/(?<![.,;:!?])[.,;:!?]+$/, '');
    const key = wordsOf(plain).map(stem).join(' ');
    if (plain.length > 2 && key && !NO_TERM.test(plain) && !terms.has(key)) terms.set(key, { term: plain, sentence });
  };
  for (const s of sentences) {
    const named = NAMED.exec(s.text) ?? MEANS.exec(s.text);
    if (named) add(named[1]!, s);
  }
  for (const s of sentences) for (const name of peopleNamed(s.text)) add(name, s);
  const phrases = keyPhrases(
    sentences.map((s) => s.text),
    most,
  );
  // One plain word is no term.
  for (const phrase of phrases.filter((p) => p.includes(' '))) {
    const first = sentences.find((s) => s.text.toLowerCase().includes(phrase.toLowerCase()));
    if (first) add(phrase, first);
  }
  return [...terms.values()].slice(0, most);
}
