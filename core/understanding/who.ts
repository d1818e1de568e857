import { isCalled } from '../language/todos/people';
import { withoutEnd } from '../language/words';
import { type Linear, probabilities } from './linear';
import type { Prepared, RuledTodo } from './prepare';
import { type Reading, type Token, tokenText } from './reading';
import { signsOf } from './signs';
import { shapeOf } from './unitFeatures';
import type { Stretch } from './wordFeatures';

const NOT_PEOPLE =
  /^(?:(?:mon|tues|wednes|thurs|fri|satur|sun)days?|january|february|march|april|may|june|july|august|september|october|november|december|christmas|easter|god|lord|ok|okay|english|then|so|and|but|also|now|oh|well|right|um|yes|no|the|it|that|this|there|what|who|if|when|which|one|two|three|four|five|six|ten|next|first|last|not|please|still|only|maybe|perhaps|anyway|otherwise|because|room|chapter|page|they|he|she|we|you|somebody|someone|nobody|everybody|get|need|mate|my|our|a|an|in|on|for|to|of|at|by|with)$/;
/** Those who can be asked though they have no name here. */
const ROLE =
  /^(?:mum|mam|mom|dad|granny|grandad|nan|doctor|nurse|caretaker|landlord|landlady|plumber|builder|electrician|teacher|boss|manager|client|neighbour|vet|driver|pharmacist|pharmacy|school|office|daughter|son|wife|husband|sister|brother|cousin|aunt|uncle|lads|girls|boys|kids|team|kitchen|committee|council|apprentice|cleaner|chef|secretary|chair|treasurer|porter|registrar|engineer|supplier|agency|union|priest|vicar|matron|warden|head|coach|agent|lawyer|solicitor|clerk|printer|caterer)$/;
const TITLE =
  /^(?:mr|mrs|ms|miss|dr|doctor|professor|councillor|father|sister|auntie|uncle|judge|mister|reverend|officer|inspector|sergeant|captain|nurse|coach|chef|madam)$/;
/** What follows who takes something on. */
const TAKES =
  /^(?:will|to|can|could|promised|offered|agreed|volunteered|brings|takes|gets|sends|does|makes|collects|rings|writes|says|said|has|is|wants|must|should|needs)$/;
/** What comes before who is only spoken to or of. */
const OF =
  /^(?:ask|tell|ring|call|phone|email|text|remind|get|have|chase|see|thank|pay|send|meet|warn|write|to|for|with|from|about|at|of|give|show|take|and|by|on|in|near|like|than)$/;

const ENDS = /'(?:ll|s|d)$/u;
const withoutEnds = (text: string): string => withoutEnd(withoutEnd(text).replace(ENDS, ''));
const plain = (token: Token): string => withoutEnds(token.text.replace(/^["'(]+/, ''));
const isName = (token: Token): boolean =>
  /^["'(]*\p{Lu}[\p{L}'-]+/u.test(token.text) &&
  !NOT_PEOPLE.test(token.bare.replace(/'(?:ll|s|d)$/, '')) &&
  !/^i(?:'|$)/.test(token.bare);

/** The name or role that begins at a token: its words, and the number of the token after it. */
function personAt({ tokens }: Reading, at: number, to: number): { name: string; end: number } | null {
  const token = tokens[at]!;
  const next = tokens[at + 1];
  if (/^(?:the|my|our|her|his)$/.test(token.bare) && next && at + 1 < to && ROLE.test(plain(next).toLowerCase()))
    return { name: `${token.bare} ${plain(next)}`, end: at + 2 };
  if (/^(?:mum|mam|dad|granny|nan|matron|chef)$/i.test(plain(token))) return { name: plain(token), end: at + 1 };
  const opens = at === 0 || tokens[at - 1]!.sentence !== token.sentence;
  if (!isName(token)) return null;
  // A capital that opens a sentence is a name only where the tagger says so, or the same word has one elsewhere.
  if (
    opens &&
    token.tag !== 'Person' &&
    !TITLE.test(token.bare) &&
    !tokens.some((t, i) => i !== at && plain(t) === plain(token) && i > 0 && tokens[i - 1]!.sentence === t.sentence)
  )
    return null;
  let end = at + 1;
  while (
    end < to &&
    !/[,;:?!]$/.test(tokens[end - 1]!.text) &&
    !/'s$/.test(tokens[end - 1]!.bare) &&
    tokens[end]!.sentence === token.sentence &&
    isName(tokens[end]!)
  )
    end++;
  return {
    name: withoutEnds(tokenText(tokens, at, end)),
    end,
  };
}

/** Whom a message is spoken to: who is called by name, while "you" is said. */
export function listenerOf(reading: Reading): string | null {
  const { tokens } = reading;
  if (!tokens.some((t) => /^(?:you|your|you'll|you're|please)$/.test(t.bare))) return null;
  const called = new Map<string, number>();
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i]!;
    const person = isName(token) ? personAt(reading, i, Math.min(tokens.length, i + 3)) : null;
    if (!person || !/^\p{Lu}/u.test(person.name)) continue;
    const before = i > 0 && tokens[i - 1]!.sentence === token.sentence ? tokens[i - 1]! : null;
    const hasPauseAfter = /[,.?!]$/.test(tokens[person.end - 1]!.text);
    const hasPauseBefore =
      !before || /,$/.test(before.text) || /^(?:so|and|hi|hello|hey|dear|morning|ok|okay|right|oh)$/.test(before.bare);
    if (hasPauseAfter && hasPauseBefore) called.set(person.name, (called.get(person.name) ?? 0) + (before ? 1 : 2));
    i = person.end - 1;
  }
  return [...called].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

type Subject = { name: string; how: string };
/** The person who is the subject of a unit, nearest to its verb; "he" is who was named last. */
function subjectOf(reading: Reading, { from, head }: Stretch): Subject | null {
  const { tokens, units } = reading;
  const unit = units[head]!;
  for (let i = unit.from; i < unit.to; i++) {
    const token = tokens[i]!;
    if (/^(?:he|she|they)(?:'ll|'s|'re|'d|'ve)?$/.test(token.bare)) {
      for (let k = i - 1; k >= units[Math.max(0, from - 2)]!.from; k--) {
        const named = personAt(reading, k, i);
        if (named) return { name: named.name, how: 'pronoun' };
      }
    }
    const person = personAt(reading, i, unit.to);
    if (!person) continue;
    const before = tokens[i - 1];
    const next = tokens[person.end];
    const last = tokens[person.end - 1]!;
    if (i === unit.from && /,$/.test(last.text)) return { name: person.name, how: 'called' };
    if (!(before && i > unit.from && OF.test(before.bare))) {
      if (/'ll$/.test(withoutEnd(last.bare)) || TAKES.test(next?.bare ?? ''))
        return { name: person.name, how: `takes:${/'ll/.test(last.bare) ? 'will' : next?.bare}` };
      if (/'s$/.test(last.bare) && /ing$|^to$|^going$/.test(next?.bare ?? ''))
        return { name: person.name, how: 'is-doing' };
      return { name: person.name, how: 'named' };
    }
    i = person.end - 1;
  }
  return null;
}

export const WHO_CLASSES = ['me', 'nobody', 'subject', 'listener'] as const;

type WhoSigns = { features: string[]; subject: Subject | null; listener: string | null };
/** What tells whose a to-do of a memo is. */
export function whoSigns(
  { reading, kind }: Pick<Prepared, 'reading' | 'kind'>,
  stretch: Stretch,
  rule: Pick<RuledTodo, 'who'> | null,
  listener: string | null,
): WhoSigns {
  const { tokens, units } = reading;
  const unit = units[stretch.head]!;
  const shapes = Array.from({ length: unit.to - unit.from }, (_, k) => shapeOf(reading, unit.from + k, false));
  const words = new Set(tokens.slice(unit.from, unit.to).map((t) => t.bare));
  const around = new Set(tokens.slice(units[stretch.from]!.from, units[stretch.to - 1]!.to).map((t) => t.bare));
  const subject = subjectOf(reading, stretch);
  const features = [
    'bias',
    `subject:${subject?.how ?? 'none'}`,
    `listener:${listener !== null}`,
    `kind:${kind}`,
    `rule:${rule ? (rule.who === 'me' ? 'me' : rule.who ? 'name' : 'null') : '-'}`,
  ];
  for (const s of signsOf(reading, unit, shapes))
    features.push(`s:${s}`, `sl:${s} ${listener !== null}`, `ss:${s} ${subject?.how ?? '-'}`);
  for (const w of [
    'i',
    "i'll",
    "i've",
    "i'm",
    'my',
    'me',
    'we',
    "we'll",
    'you',
    'your',
    'please',
    'somebody',
    'someone',
    'he',
    'she',
    'they',
    'be',
    'myself',
  ]) {
    if (words.has(w)) features.push(`w:${w}`, `wl:${w} ${listener !== null}`, `wsub:${w} ${subject?.how ?? '-'}`);
    else if (around.has(w)) features.push(`a:${w}`);
  }
  features.push(
    `first:${shapes[0]}`,
    `sub2:${subject?.how ?? '-'} ${listener !== null} ${words.has('you')} ${words.has('i') || words.has("i'll")}`,
  );
  return { features, subject, listener };
}

/** Whose a to-do is in what one person says: "me", a name or role as it was said, or null for nobody. */
export function whoInMemo(
  talk: Pick<Prepared, 'reading' | 'kind'>,
  stretch: Stretch,
  rule: Pick<RuledTodo, 'who'> | null,
  listener: string | null,
  model: Linear,
): string | null {
  const { features, subject } = whoSigns(talk, stretch, rule, listener);
  const p = probabilities(model, features);
  let best = 0;
  WHO_CLASSES.forEach((name, i) => {
    if ((name === 'subject' && !subject) || (name === 'listener' && !listener)) return;
    if (p[i]! > p[best]!) best = i;
  });
  const chosen = WHO_CLASSES[best]!;
  return chosen === 'me' ? 'me' : chosen === 'nobody' ? null : chosen === 'subject' ? subject!.name : listener;
}

/** Whose a to-do is in a conversation: its speaker, who is spoken to, or who takes it. */
export function whoInDialogue(
  { reading }: Pick<Prepared, 'reading'>,
  stretch: Stretch,
  rule: Pick<RuledTodo, 'who'> | null,
): string | null {
  const { tokens, units, sentences } = reading;
  const speakers = [...new Set(sentences.flatMap((s) => s.speaker ?? []))];
  const unit = units[stretch.head]!;
  const words = tokens.slice(unit.from, unit.to).map((t) => t.bare);
  const own = unit.speaker;
  const named = (except: string | null): string | undefined => {
    for (let i = unit.from; i < unit.to; i++) {
      const found = speakers.find((s) => s !== except && isCalled(s, plain(tokens[i]!)));
      if (found) return found;
    }
    return undefined;
  };
  const asked = (): string | null =>
    named(own) ??
    units.slice(stretch.to).find((u) => u.speaker !== own)?.speaker ??
    speakers.find((s) => s !== own) ??
    null;
  const me = words.findIndex((w) => /^(?:i|i'll|i'm|i've|i'd)$/.test(w));
  const you = words.findIndex((w) => /^(?:you|you'll|you're)$/.test(w));
  const isQuestion = /^(?:can|could|would|will|do|don't)$/.test(words[0] ?? '');
  if (me >= 0 && !isQuestion && (you < 0 || me < you || words[me] === "i'll")) return own;
  if (you >= 0 || isQuestion) return asked();
  return named(null) ?? rule?.who ?? own;
}

const FIRST_PERSON = /^(?:i|we)(?:'(?:ll|m|re|ve|d))?$/;

/** The same where somebody else speaks to the person: what the speaker takes on is theirs, what is asked is "me". */
export function whoForListener(
  { reading }: Pick<Prepared, 'reading'>,
  { head }: Stretch,
  said: string | null,
  listener: string | null,
): string | null {
  const unit = reading.units[head]!;
  if (said === listener && listener !== null) return 'me';
  if (said !== 'me') return said;
  const words = reading.tokens.slice(unit.from, unit.to).map((t) => t.bare);
  // Nobody knows the name of a voice that is not named.
  return words.some((w) => FIRST_PERSON.test(w)) ? unit.speaker : 'me';
}
