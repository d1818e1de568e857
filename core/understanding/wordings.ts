import { ACTION_VERBS, baseOfParticiple, baseOfThirdPerson, isActionVerb } from '../language/todos/actionVerbs';
import { spokenRepeat } from '../language/spokenRepeats';
import { spokenDate } from '../language/spokenDates';
import { lowerFirst } from '../language/todos/clauses';
import { SOMEBODY } from '../language/todos/scene';
import { upperFirst, withoutEnd } from '../language/words';
import { type Reading, type Token, WEAK, tokenText } from './reading';

/**
 * A way to word a to-do: `kind` says how it was made, `unit` where its verb stands, `units` how many it is made of,
 * `next` which part of speech follows it, so that what was cut off can be told.
 */
export type Wording = { text: string; kind: string; unit: number; units: number; verb: string; next: string };

const LEADS = new Set(
  "to must should shall will can could would may gotta better please just i'll we'll he'll she'll they'll you'll let's never don't".split(
    ' ',
  ),
);
const ADVERBS = new Set(
  'still also just really probably definitely now then all both only first better always maybe perhaps actually honestly finally quickly please even at least'.split(
    ' ',
  ),
);
const DETERMINERS = new Set(
  'the a an my our his her their your this that these those some any another no more new two three four five six ten both all'.split(
    ' ',
  ),
);
const PASSIVE_LEADS =
  /^(?:must|should|shall|to|has|have|had|needs?|wants?|is|are|will|'ll|gotta|got|ought|still|also|really|all|better|going)$/;
const PRONOUNS = /^(?:it|them|him|one|that|those|these|this|some)$/;
const NOT_VERBS = new Set(
  'be been is are was were have had not only just so that this the a an also go know think say see mean'.split(' '),
);

/** The base form of "fetching", or null when it is not one of a verb that people plan with. */
export function baseOfGerund(word: string): string | null {
  if (!word.endsWith('ing') || word.length < 5) return null;
  const stem = word.slice(0, -3);
  const known = [stem, `${stem}e`, stem.replace(/(.)\1$/u, '$1'), stem.replace(/y$/, 'ie')].find((c) =>
    ACTION_VERBS.has(c),
  );
  if (known) return known;
  if (
    !/[aeiouy]/.test(stem) ||
    /(?:th|ev|even|morn|dur|noth|someth|anyth|everyth|build|ceil|meet|wedd|train|fund)$/.test(stem)
  )
    return null;
  return /(?:[aiu]t|iz|is|v|c|[^n]g|u|[bpdtg]l|rs|ns)$/.test(stem) && !/(?:it|is)$/.test(stem)
    ? `${stem}e`
    : stem.replace(/([bdgmnprt])\1$/, '$1');
}

/** What a wording loses at its end: reasons, hedges, what only leads on. */
const TAIL =
  /,? (?:because|since|so that|so i|so we|otherwise|or else|if possible|i think|i suppose|i guess|i mean|you know|please|though|then|again|as well|too|instead|at some point|or something|and so on|and that|and stuff|whatever|anyway|just in case|if i can|if you can|when i can|when you can|before i forget|and|but|so|or|to|of|for|with|by|on|in|at|the|a|an|my|which|that)$/iu;
/** Words of time that the dates leave: "first thing", "in the morning", "the day" of "the day before". */
const TIME_TAIL =
  /,? (?:(?:in|during) the (?:morning|afternoon|evening|night)|first thing|at the (?:very )?latest|straight away|right away|right now|there and then|the (?:same )?day|same day|(?:one|a|two) (?:days?|weeks?) (?:before|later)|now|onwards|(?:on|before|until|till) (?:morning|evening))$/iu;
/** "When you're", of "when you're in": a clause that has lost its end. */
const OPEN_CLAUSE =
  /,? (?:(?:when|where|while|once|because|if|as|that|what|which|until|till|before|after|so) )?(?:i|you|he|she|it|we|they|there|that)'(?:re|s|m|ll|ve|d)$/iu;
/** "Will write the application" is worded as what is to be done. */
const LEADS_IN =
  /^(?:(?:and|so|but|then|also|just|please) )*(?:(?:will|would|can|could|must|should|shall|gotta|have to|has to|need to|needs to|going to|want to|wants to) (?!be\b|not\b|have\b))?/iu;
/** Says that something is done, and not what: "Can do", "Offer you". */
const SAYS_NOTHING = /^(?:\p{L}+ )?(?:do|to|it|that|this|so|you|me|us|can|will|be|go|get|make|let|okay)$/iu;
export const saysNothing = (text: string): boolean => SAYS_NOTHING.test(text);

/** Why a thing is to be done is not what is to be done. */
const REASON = /,? (?:because|otherwise|or else|so that|in case)\b.*$/iu;
const FILLERS =
  /(?<=^|[\s,])(?:um+|uh+|er+m?|you know|i mean|sort of|kind of|what's it called|what do you call it|well|like)(?:,|(?=\s|$))/giu;

/** A wording as a person would write it: no fillers, dates or trailing commentary, a capital in front. */
export function tidyWording(words: string, at: string, keepsDates = false): string {
  let text = words.replace(/’/g, "'").replace(FILLERS, ' ').replace(/\s+/g, ' ').trim();
  if (!keepsDates) {
    for (let round = 0; round < 3; round++) {
      const phrase = spokenRepeat(text, at) ?? spokenDate(text, at);
      if (!phrase || phrase.end <= phrase.start) break;
      const next = `${text.slice(0, phrase.start)} ${text.slice(phrase.end)}`.replace(/\s+/g, ' ').trim();
      if (next.split(' ').length < 2) break;
      text = next;
    }
  }
  text = text
    .replace(LEADS_IN, '')
    .replace(REASON, '')
    .replace(/\b(the|a|an|my|our|to|some), (?=\p{L})/giu, '$1 ');
  // "the, the, um, the pump": said again until it is right.
  text = text.replace(/\b((?:\p{L}+ ){0,3}?\p{L}+),? (?:no,? |sorry,? )?(?=\1\b)/giu, '');
  for (let before = ''; before !== text;) {
    before = text;
    text = withoutEnd(text, ' ,;:.?!–—-')
      .replace(TAIL, '')
      .replace(OPEN_CLAUSE, '')
      .replace(keepsDates ? /$^/u : TIME_TAIL, '')
      .replace(/^[\s,;:.–—-]+/u, '')
      .replace(/ ([,;.])/g, '$1')
      .replace(/,(?: ?,)+/g, ',');
  }
  return upperFirst(text.replace(/[.?!;:](?= )/g, ','));
}

/** The noun phrase that begins at a token, as the number of the token after it; the same number where none begins. */
export function nounPhraseEnd(tokens: readonly Token[], from: number, end: number): number {
  let i = from;
  let hasNoun = false;
  for (; i < end; i++) {
    const { tag, bare, text } = tokens[i]!;
    const isNoun =
      /Noun|Plural|Person|Place|Organization|Possessive/.test(tag) ||
      (/^\p{Lu}/u.test(text) && bare !== 'i' && i > from) ||
      // "The circuit board": after a noun, what the tagger takes for a verb is mostly another noun.
      (hasNoun &&
        /^(?:Infinitive|PresentTense|Verb|Imperative|Gerund)$/.test(tag) &&
        /Noun/.test(tokens[i - 1]!.tag) &&
        !/s$/.test(tokens[i - 1]!.bare));
    const isLead = DETERMINERS.has(bare) || /Determiner|Adjective|Value|Possessive/.test(tag);
    if (isNoun) hasNoun = true;
    else if (hasNoun && bare === 'of' && i + 1 < end) {
      // goes on
    } else if (!isLead || hasNoun) break;
    if (/[,;:.?!]$/.test(text)) {
      i++;
      break;
    }
  }
  return hasNoun ? i : from;
}

const isVerbish = (token: Token | undefined): boolean =>
  Boolean(
    token &&
    (isActionVerb(token.bare) ||
      (/^(?:Infinitive|Imperative|PresentTense|Verb)$/.test(token.tag) && !NOT_VERBS.has(token.bare))),
  );

/** What was spoken of longer ago is no longer clear. */
const CLEAR_TOKENS = 30;

/**
 * What "it" or "him" before a token stands for: the one thing, or person, that was named shortly before by the same
 * speaker; null where there is none or more than one, for a wrong one is worse than the pronoun.
 */
function meantBefore({ tokens, sentences }: Reading, at: number, isPerson: boolean): string | null {
  const found = new Set<string>();
  const { speaker } = sentences[tokens[at]!.sentence]!;
  for (let i = Math.max(0, at - CLEAR_TOKENS); i < at;) {
    const end = nounPhraseEnd(tokens, i, Math.min(at, i + 7));
    if (end > i) {
      const words = tokens.slice(i, end);
      const text = withoutEnd(tokenText(tokens, i, end));
      const isName = words.some((t) => t.tag === 'Person') || /^\p{Lu}\p{Ll}+(?: \p{Lu}\p{Ll}+)*$/u.test(text);
      const isThing = !isName && !SOMEBODY.test(text) && DETERMINERS.has(words[0]!.bare);
      const isOfTime = words.some((t) => /WeekDay|Month|Date|Time/.test(t.tag));
      const isOwn = sentences[words[0]!.sentence]!.speaker === speaker;
      if ((isPerson ? isName : isThing) && text.length > 2 && !isOfTime && isOwn) found.add(text);
      i = end;
    } else i++;
  }
  return found.size === 1 ? [...found][0]! : null;
}

/**
 * Ways to word what a stretch of units asks for, each beginning with a verb where there is one.
 * @param from first unit
 * @param to unit after the last
 */
export function wordingsOf(reading: Reading, from: number, to: number, at: string): Wording[] {
  const { tokens, units } = reading;
  const out: Wording[] = [];
  const seen = new Set<string>();
  const add = (words: string, kind: string, unit: number, count: number, verb: string, end = units[unit]!.to): void => {
    const text = tidyWording(words, at);
    const size = text.split(' ').length;
    if (text.length < 3 || size > 20 || seen.has(`${kind} ${text}`)) return;
    seen.add(`${kind} ${text}`);
    const after = tokens[end];
    const isCut = after && after.sentence === units[unit]!.sentence && !/[,;:.?!]$/.test(tokens[end - 1]!.text);
    out.push({ text, kind, unit, units: count, verb, next: isCut ? after.tag : '$' });
  };
  const rest = (start: number, end: number): string => lowerFirst(tokenText(tokens, start, end));
  /** The phrase from a verb to the end of its unit, and on through the units that continue it. */
  const phrases = (verb: string, start: number, unit: number, kind: string): void => {
    for (let last = unit; last < to && last < unit + 3; last++) {
      if (units[last]!.sentence !== units[unit]!.sentence) break;
      const said = rest(start, units[last]!.to);
      add(`${verb} ${said}`, last === unit ? kind : `${kind}+`, unit, last - unit + 1, verb, units[last]!.to);
      if (last > unit) continue;
      // What "it" stands for.
      const pronoun = tokens.slice(start, Math.min(units[last]!.to, start + 4)).findIndex((t) => PRONOUNS.test(t.bare));
      const isAlone =
        pronoun >= 0 &&
        nounPhraseEnd(tokens, start + pronoun, units[last]!.to) === start + pronoun &&
        tokens[start + pronoun - 1]?.bare !== 'of' &&
        tokens[start + pronoun + 1]?.bare !== 'of';
      const place = isAlone ? start + pronoun : -1;
      const thing = place < 0 ? null : meantBefore(reading, units[unit]!.from, tokens[place]!.bare === 'him');
      if (thing) {
        const words = `${verb} ${rest(start, place)} ${thing} ${rest(place + 1, units[last]!.to)}`;
        add(words, `${kind}/it`, unit, 1, verb);
      }
      // Only up to the object.
      const object = nounPhraseEnd(tokens, start, units[last]!.to);
      if (object > start && object < units[last]!.to)
        add(`${verb} ${rest(start, object)}`, `${kind}-`, unit, 1, verb, object);
    }
  };
  for (let u = from; u < to; u++) {
    const unit = units[u]!;
    const strong = (() => {
      for (let i = unit.from; i < unit.to; i++)
        if (tokens[i]!.bare && !WEAK.has(tokens[i]!.bare) && tokens[i]!.bare !== 'please') return i;
      return unit.from;
    })();
    for (let i = unit.from; i < unit.to; i++) {
      const token = tokens[i]!;
      let lead = i - 1;
      while (lead > unit.from && ADVERBS.has(tokens[lead]!.bare)) lead--;
      const leadWord = lead >= unit.from ? tokens[lead]!.bare : '^';
      if (
        isVerbish(token) &&
        (LEADS.has(leadWord) || /Modal$/.test(tokens[Math.max(unit.from, lead)]!.tag)) &&
        lead < i
      )
        phrases(token.bare, i + 1, u, leadWord === 'to' ? 'to' : 'modal');
      else if (isActionVerb(token.bare) && i === strong) phrases(token.bare, i + 1, u, 'command');
      else if (isActionVerb(token.bare) && /^(?:and|or|,|then|so)$/.test(leadWord))
        phrases(token.bare, i + 1, u, 'and');
      else if (isActionVerb(token.bare) && !/Determiner|Adjective|Possessive/.test(tokens[i - 1]?.tag ?? ''))
        phrases(token.bare, i + 1, u, 'verb');
      const gerund = baseOfGerund(token.bare);
      if (gerund) {
        const before = tokens[i - 1]?.bare ?? '';
        if (/^(?:wants?|needs?|with)$/.test(before) && i > unit.from) {
          const subject = rest(strong, i - 1).replace(/ (?:really|still|also|could do|just)$/u, '');
          add(`${gerund} ${subject} ${rest(i + 1, unit.to)}`, 'wants-doing', u, 1, gerund);
        }
        phrases(gerund, i + 1, u, /^(?:i'm|we're|am|are|is|he's|she's|they're)$/.test(leadWord) ? 'doing' : 'gerund');
      }
      const participle =
        /^(?:be|been|get|getting|gets)$/.test(leadWord) || /^(?:be|get)$/.test(tokens[i - 1]?.bare ?? '')
          ? baseOfParticiple(token.bare)
          : null;
      if (participle) {
        let verb = i - 1;
        while (verb > strong && !PASSIVE_LEADS.test(tokens[verb]!.bare)) verb--;
        while (verb > strong && PASSIVE_LEADS.test(tokens[verb - 1]!.bare)) verb--;
        add(`${participle} ${rest(strong, verb)} ${rest(i + 1, unit.to)}`, 'passive', u, 1, participle);
      }
      const undone =
        /^(?:never|haven't|hasn't|not|yet|still)$/.test(leadWord) && !participle ? baseOfParticiple(token.bare) : null;
      if (undone) phrases(undone, i + 1, u, 'undone');
      const third =
        !isActionVerb(token.bare) && /PresentTense|Verb/.test(token.tag) && i > strong
          ? baseOfThirdPerson(token.bare)
          : null;
      if (third) phrases(third, i + 1, u, 'third');
      if (/^(?:needs?|wants?|want|without|of|low|short|requires?)$/.test(token.bare) && i + 1 < unit.to) {
        const object = nounPhraseEnd(tokens, i + 1, unit.to);
        if (object > i + 1) {
          const kind = /^(?:of|low|short)$/.test(token.bare) ? 'out-of' : 'need';
          add(`get ${rest(i + 1, object)}`, kind, u, 1, 'get', object);
          add(`get ${rest(i + 1, unit.to)}`, `${kind}+`, u, 1, 'get');
        }
      }
    }
    add(`${rest(strong, unit.to)}`, 'whole', u, 1, '');
    const noun = nounPhraseEnd(tokens, strong, unit.to);
    if (noun > strong) {
      add(rest(strong, noun), 'noun', u, 1, '', noun);
      add(`get ${lowerFirst(rest(strong, noun))}`, 'get-noun', u, 1, 'get', noun);
    }
  }
  return out;
}
