import { quantitiesIn } from '../find/quantities';
import type { Sentence } from '../language/sentences';
import { keyPhrases } from '../language/title';
import { peopleNamed } from '../language/todos/scene';
import { stem, topicStems, wordsOf } from '../language/words';

const DECIDED =
  /\b(?:(?:we|they)(?:'ve| have)? (?:decided|agreed|settled)|(?:it|that|this)(?:'s| is) (?:decided|agreed|settled)|(?:the )?decision is|agreed[,:.]|we (?:will |'ll )?go with|we settle on|we are agreed|that is the plan|final(?:ly)? (?:it is|we take))/i;
const PROPOSED =
  /^(?:(?:so|then|okay|good|right|fine|in that case|all right)[, ]+)*(?:let us|let's|we(?:'ll| will| start| begin| take| meet| plant| do| use| leave| keep| move| wait| stay| go| skip| pay| order)\b)/i;
const SINGULAR_CHOICE =
  /^(?:(?:so|then|okay)[, ]+)+(?:it is|that makes|we have|the .{3,30} (?:is|are|goes|comes|stays?|moves?))\b/i;
const ASSENT =
  /^(?:yes|yeah|good|agreed|fine|okay|ok|right|sure|all right|alright|perfect|that works|done|deal|i agree|of course|exactly|very good|great)\b/i;
const BARE_AGREEMENT =
  /^(?:(?:good|yes|right|okay),? )?(?:agreed|decided|that is decided|that is agreed|done|it is settled)[.!]*$/i;
const DISSENT = /^(?:no\b|not\b|i don't think|but\b|wait|hm+|really\?)/i;

/**
 * Sentences in which something is decided: by words that say so, or a proposal for all that the next speaker agrees to.
 * Common practice, no source.
 */
export function decisionsIn(sentences: readonly Sentence[]): Sentence[] {
  const agreedTo = sentences.filter((s, i) => {
    const answer = sentences[i + 1];
    return answer && answer.speaker !== s.speaker && BARE_AGREEMENT.test(answer.text) && s.text.split(/\s+/).length > 3;
  });
  return sentences.filter((s, i) => {
    if (s.text.trim().endsWith('?') || BARE_AGREEMENT.test(s.text)) return false;
    if (agreedTo.includes(s)) return true;
    if (DECIDED.test(s.text)) return !/\b(?:not|never|haven't|didn't|if)\b/i.test(s.text);
    const next = sentences.slice(i + 1, i + 3).find((n) => n.speaker !== s.speaker);
    if (s.speaker === null || !next || DISSENT.test(next.text)) return false;
    return (PROPOSED.test(s.text) || SINGULAR_CHOICE.test(s.text)) && ASSENT.test(next.text);
  });
}

const UNSURE =
  /\b(?:i don't know|i do not know|not sure|no idea|we(?:'ll| will) see|have to (?:check|ask|find out|look)|need to (?:check|ask|find out)|good question|hard to say|it depends|nobody knows|let me (?:check|ask|think))\b/i;
const ASKED_IN_WORDS =
  /\b(?:the (?:open )?question is|i wonder|it is (?:still )?(?:open|unclear)|remains (?:open|unclear)|we (?:still )?(?:don't|do not) know|i (?:still )?(?:don't|do not) know (?:whether|if|what|how|when|where|who))\b/i;
/** Asked for form's sake: nobody waits for an answer. */
const EMPTY =
  /^(?:right|okay|ok|really|isn't it|you know|and|so|what|why not|how are you.*|can you hear me|shall we( begin| start)?|any questions|is that (?:all|right|clear)|good|yes|no)\?$/i;

/** Questions that nobody answered: what follows is unsure, another question, or nothing. */
export function openQuestionsIn(sentences: readonly Sentence[]): Sentence[] {
  return sentences.filter((s, i) => {
    const text = s.text.trim();
    if (ASKED_IN_WORDS.test(text)) return true;
    if (!text.endsWith('?') || EMPTY.test(text) || text.split(/\s+/).length < 3) return false;
    if (/^(?:can|could|would|will) you\b/i.test(text.replace(/^\p{Lu}\p{Ll}+, /u, ''))) return false;
    const after = sentences.slice(i + 1, i + 4);
    const reply = s.speaker === null ? after[0] : after.find((n) => n.speaker !== s.speaker);
    if (!reply) return true;
    if (UNSURE.test(reply.text)) return true;
    // In a monologue one answers oneself, or goes on to something else.
    if (s.speaker === null) {
      const shared = topicStems(reply.text).filter((t) => topicStems(text).includes(t));
      return shared.length === 0 || reply.text.trim().endsWith('?');
    }
    return reply.text.trim().endsWith('?') && reply.text.split(/\s+/).length > 3;
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
    const plain = term.trim().replace(/[.,;:!?]+$/, '');
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
