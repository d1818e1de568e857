import { baseOfParticiple, isActionVerb } from './actionVerbs';
import type { Sentence } from './sentences';
import { spokenDate } from './spokenDates';

/** A person or project with the other names it goes by. */
export type Named = { name: string; otherNames?: readonly string[] };

export type TodoContext = {
  /** When it was said, local: `2026-03-09T07:40`. Due dates are counted from here. */
  at: string;
  projects?: readonly Named[];
};

/** `who` is "me", a name, or null when nobody is named; `sentence` is the number of the sentence it came from. */
export type FoundTodo = {
  text: string;
  who: string | null;
  due: string | null;
  project: string | null;
  quote: string;
  sentence: number;
};

type Trigger = { who: string | null; action: string; isPassive?: boolean };

const FILLERS = /\b(?:(?:um+|uh+|erm?|sort of|kind of|basically)\b,?|(?:you know|i mean),)\s*/gi;
const OPENINGS =
  /^(?:(?:okay|ok|right|so|well|and|but|then|also|now|oh|yes|yeah|first(?:ly)?|second(?:ly)?|third(?:ly)?|finally|last(?:ly)?|next|after that|before that|one more thing|another thing|by the way|please|today|tonight|tomorrow(?: morning| afternoon| evening)?|this (?:morning|afternoon|evening)|at home|at work|for (?:the |my )?[\w ]{2,24}?(?=,)|next project|(?:on|by) (?:mon|tues|wednes|thurs|fri|satur|sun)day)\b[,:]?\s+)/i;

const ADVERB = '(?:really |still |also |just |probably |definitely |first |now |then |all |both |quickly |please )*';

const MINE: RegExp[] = [
  /^(?:please )?(?:remind me|remember|don't (?:let me )?forget|(?:i|we) (?:mustn't|must not|shouldn't|should not) forget|make sure|be sure) to (.+)$/i,
  /^(?:please )?(?:make sure|remember) that i (?:have to |need to )?(.+)$/i,
  new RegExp(
    `^(?:i think |i guess |i suppose |maybe )?i(?:'ve| have)? ${ADVERB}(?:need to|have to|got to|must|should|ought to|want to|had better|'d better|gotta) ${ADVERB}(.+)$`,
    'i',
  ),
  new RegExp(`^(?:i think |i guess )?i'd (?:better|like to) ${ADVERB}(.+)$`, 'i'),
  new RegExp(
    `^i(?:'ll| will| shall|'m going to| am going to|'m supposed to|'m meant to| promised to| promised i'd| said i'd| agreed to) ${ADVERB}(.+)$`,
    'i',
  ),
  /^(?:my (?:job|task|to-do|action)|note to self|to-do|todo|action point)(?: is)?(?: to)?[:,]? (.+)$/i,
];
const OURS: RegExp[] = [
  new RegExp(
    `^(?:i think |maybe |perhaps )?we(?:'ve| have)? ${ADVERB}(?:need to|have to|got to|must|should|ought to|had better|'d better) ${ADVERB}(.+)$`,
    'i',
  ),
  new RegExp(`^we(?:'ll| will| shall|'re going to| are going to| agreed to) ${ADVERB}(.+)$`, 'i'),
  new RegExp(`^let(?:'s| us) ${ADVERB}(.+)$`, 'i'),
  /^(?:somebody|someone) (?:has to|needs to|must|should|ought to) (.+)$/i,
  /^(?:can|could|would|will) (?:you|we|somebody|someone)(?: please| also| just)* (.+?)\??$/i,
];
const NAME =
  "((?:Professor |Doctor |Dr\\. |Mrs?\\. |Ms\\. )?\\p{Lu}[\\p{L}'-]+(?: \\p{Lu}[\\p{L}'-]+)?|[Tt]he \\p{Ll}[\\p{L}-]+(?: \\p{Ll}[\\p{L}-]+)?)";
const NAMED_PROMISE = new RegExp(
  `^${NAME} (?:will|'ll|has to|needs to|must|should|is going to|is supposed to|agreed to|promised to|said (?:he|she|they) (?:would|will)|said (?:he|she|they)'d|offered to|wants to) ${ADVERB}(.+)$`,
  'u',
);
const NAMED_REQUEST = new RegExp(`^${NAME}, (?:can|could|would|will) you(?: please| also)* (.+?)\\??$`, 'u');
const REQUEST_NAMED = new RegExp(
  `^(?:[Cc]an|[Cc]ould|[Ww]ould|[Ww]ill) you(?: please| also)* (.+?), (\\p{Lu}[\\p{L}'-]+)\\??$`,
  'u',
);
const PASSIVE =
  /^(?:the |my |our |a |an )?(.{2,60}?) (?:has to|have to|needs to|need to|must|should|ought to) be (\p{L}+)\b(.*)$/iu;
const DUE = /^(the |my |our )(.{2,50}?) (?:is|are) due\b(.*)$/i;

const DONE =
  /\b(?:already|have (?:just )?\p{L}+(?:ed|nt|ne)\b|is done|are done|was done|did that|that's done|has been|have been)\b/iu;
/** "We must not forget the water" names a thing, not an act. */
const NOT_FORGET =
  /^(?:please )?(?:don't (?:let (?:me|us) )?forget|(?:i|we) (?:mustn't|must not) forget) (?:about )?((?:the|a|an|my|our|his|her|their) .+)$/i;

const NOT_WANTED =
  /\b(?:don't (?:need|have|want) to|do not (?:need|have|want) to|doesn't (?:need|have)|does not (?:need|have)|no need|needn't|not going to|won't|will not|shouldn't|should not|never|used to|would have|could have|should have|had to|wanted to|needed to|didn't|did not|if i had|wish)\b/i;

/** Names after which "will" or "should" tells how things are, not what somebody promised. */
const NOT_A_PERSON =
  /^(?:the (?:soil|water|rain|tree|trees|root|roots|wind|sun|sand|clay|plant|result|weather|value|rest|whole|first|last|next|same|other|only|best|more|quay|harbour|trench|pump|ground|day|week|lecture|curve|profile)|it|this|that|there|what|which|nobody|everybody|everyone|nothing|everything|water|rain|soil)\b/i;
/** Verbs that tell what happens rather than what somebody does. */
const HAPPENS =
  /^(?:be|have|need|feel|hear|become|seem|remain|happen|depend|grow|drain|see|know|think|say|like|understand|imagine|consider|suppose|mean|get (?:cold|wet|dry|dark|tired))\b/i;
const LOOSE_ENDS = /^(?:is|are|was|were|it|that|this|they|he|she|there|which|who|because|if|when|while|what)\b/i;

/**
 * To-dos in what was said: promises, requests, plain commands and things that have to be done; not what is done
 * already, not wanted, past or only supposed.
 */
export function findTodos(sentences: readonly Sentence[], context: TodoContext): FoundTodo[] {
  const found: FoundTodo[] = [];
  const isLecture = isTeaching(sentences);
  const projects = context.projects ?? [];
  let carriedProject: string | null = null;
  sentences.forEach((sentence, index) => {
    const announced = announcedProject(sentence.text, projects);
    if (announced !== undefined) carriedProject = announced;
    let carriedTrigger: Trigger | null = null;
    for (const clause of clausesOf(sentence.text)) {
      const isExplained = isLecture && !isAssignment(clause, sentence.text, context.at);
      const trigger: Trigger | null = isExplained ? null : triggerOf(clause, carriedTrigger);
      if (!trigger) {
        carriedTrigger = null;
        continue;
      }
      if (!trigger.isPassive) carriedTrigger = trigger;
      for (const item of splitActions(trigger, context.at)) {
        found.push({
          text: item.text,
          who: trigger.who,
          due: item.due,
          project: projectIn(item.source, projects) ?? carriedProject,
          quote: sentence.text,
          sentence: index,
        });
      }
    }
  });
  return found.filter((todo, i) => found.findIndex((t) => t.text.toLowerCase() === todo.text.toLowerCase()) === i);
}

/** Turns of phrase of somebody who explains to listeners. Common practice, no source. */
const TEACHES =
  /\b(?:lecture|exam|quiz|chapter|today we|this evening|we call|is called|let me (?:show|give|tell|begin|sum)|let us (?:begin|sum|look)|remember th(?:is|ese|at)|this means|that is why|for example|you will see|imagine)\b/gi;
const TEACHING_LENGTH = 40;

function isTeaching(sentences: readonly Sentence[]): boolean {
  const signs = sentences.reduce((n, s) => n + (s.text.match(TEACHES)?.length ?? 0), 0);
  return sentences.length >= TEACHING_LENGTH && signs >= 6;
}

/** In a lecture a command is mostly an explanation; what listeners are to do is asked with "please" or has a date. */
const isAssignment = (clause: string, sentence: string, at: string): boolean =>
  /^(?:i|my)\b/i.test(clause) ||
  /\bdue\b/i.test(clause) ||
  (!/^(?:we|let)\b/i.test(clause) &&
    (/\bplease\b/i.test(sentence) || /\d-\d/.test(spokenDate(clause, at)?.due.slice(0, 10) ?? '')) &&
    !/\bby (?:two|three|four|five|\d)/i.test(clause));

function clean(text: string): string {
  let rest = text.replace(/’/g, "'").replace(FILLERS, '').replace(/\s+/g, ' ').trim();
  for (let before = ''; before !== rest;) {
    before = rest;
    rest = rest.replace(OPENINGS, '').trim();
  }
  return rest
    .replace(/[.!…]+$/, '')
    .replace(/,\s*please$/i, '')
    .trim();
}

const SUBJECT_FOLLOWS =
  /(?:,? (?:and then|and also|and|but|then|so|plus)|[,;:]|,? -) (?=(?:i|we|you|he|she|they|it|remind me|please|somebody|someone|let's|don't forget|remember to|make sure|can you|could you|the [\p{Ll} ]{2,30} (?:has|have|needs|must|should)|(?:\p{Lu}[\p{L}'-]+ ){1,2}(?:will|has to|needs to|should|must|is going to))(?:'ll|'ve|'m|'d)?\b)/giu;

/** Keeps "Jun, could you ..." in one clause. */
const ADDRESS_COMMA = '\u0001';

const clausesOf = (text: string): string[] =>
  clean(text)
    .replace(/^(\p{Lu}[\p{L}'-]+), (?=(?:can|could|would|will) you)/u, `$1${ADDRESS_COMMA} `)
    .split(SUBJECT_FOLLOWS)
    .map((c) => clean(c.replace(ADDRESS_COMMA, ',')))
    .filter(Boolean);

function triggerOf(clause: string, carried: Trigger | null): Trigger | null {
  if (NOT_WANTED.test(clause) || DONE.test(clause) || /^if\b/i.test(clause)) return null;
  const { body, person } = withoutAddress(clause);
  const thing = NOT_FORGET.exec(body);
  if (thing) return { who: 'me', action: `remember ${thing[1]!}` };
  const request = NAMED_REQUEST.exec(body) ?? null;
  if (request) return plausible({ who: request[1]!, action: request[2]! });
  const askedLast = REQUEST_NAMED.exec(body);
  if (askedLast) return plausible({ who: askedLast[2]!, action: askedLast[1]! });
  for (const pattern of MINE) {
    const match = pattern.exec(body);
    if (match) return plausible({ who: 'me', action: match[1]! });
  }
  for (const pattern of OURS) {
    const match = pattern.exec(body);
    if (match) return plausible({ who: person, action: match[1]! });
  }
  if (body.endsWith('?')) return null;
  const passive = PASSIVE.exec(body);
  const isPlainSubject =
    passive &&
    !/^(?:it|this|that|he|she|they|too|two|three|one|some|all|both|most|many|others?)\b|\b(?:that|which|who)\b/i.test(
      passive[1]!,
    );
  const base = isPlainSubject ? baseOfParticiple(passive[2]!) : null;
  if (passive && base) {
    const by = /^ by (\p{Lu}[\p{L}'-]+(?: \p{Lu}[\p{L}'-]+)?)/u.exec(passive[3]!);
    const isPerson =
      by &&
      !/^(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day|^(?:January|February|March|April|May|June|July|August|September|October|November|December)/.test(
        by[1]!,
      );
    const subject = body.slice(0, body.indexOf(passive[1]!) + passive[1]!.length);
    const rest = isPerson ? passive[3]!.slice(by[0].length) : passive[3]!;
    return { who: isPerson ? by[1]! : null, action: `${base} ${lowerFirst(subject)}${rest}`, isPassive: true };
  }
  const due = DUE.exec(body);
  if (due) return { who: 'me', action: `finish ${due[1]!.toLowerCase()}${due[2]}${due[3]}`, isPassive: true };
  const promise = NAMED_PROMISE.exec(body);
  if (promise && !NOT_A_PERSON.test(promise[1]!)) {
    return plausible({ who: promise[1]!.replace(/^The /, 'the '), action: promise[2]! });
  }
  if (isCommand(body)) return { who: person ?? 'me', action: body };
  if (carried && isActionVerb(firstWord(body))) return { who: carried.who, action: body };
  return null;
}

/** "Bram, bring the spade" is for Bram. */
function withoutAddress(clause: string): { body: string; person: string | null } {
  const match = /^(\p{Lu}[\p{L}'-]+), (?=\p{Ll})(.+)$/u.exec(clause);
  if (!match || NAMED_REQUEST.test(clause)) return { body: clause, person: null };
  return isActionVerb(firstWord(match[2]!)) ? { body: match[2]!, person: match[1]! } : { body: clause, person: null };
}

const firstWord = (text: string): string => /^[\p{L}-]+/u.exec(text)?.[0] ?? '';
const lowerFirst = (text: string): string =>
  /^(?:The|My|Our|A|An)\b/.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text;

const plausible = (trigger: Trigger): Trigger | null =>
  HAPPENS.test(trigger.action) || LOOSE_ENDS.test(trigger.action) ? null : trigger;

/** Nouns and verbs that look alike: a command needs an object that begins like one. */
const OBJECT =
  /^[\p{L}-]+(?: (?:up|out|in|off|down|back|over|on|round|around|away|through))? (?:the|a|an|my|our|his|her|their|this|that|these|those|some|all|every|both|two|three|four|five|six|seven|eight|nine|ten|twelve|twenty|\d|new|more|about|to|for|with|at|in|on|if|whether|after|from|chapter|chapters|page|pages|section|me|him|them|\p{Lu}|\p{L}+(?:s|es)\b)/u;
const EXPLAINS =
  /^(?:note that|remember that|take (?:for example|a look|the case)|let me|say |look at (?:this|the (?:slide|curve|figure))|think |go on|come on|hold on|thank|do (?:you|not|we|they|that|it)|have |turn to the|start with|show you|leave it|tell me|try it|wait )/i;

function isCommand(clause: string): boolean {
  const verb = firstWord(clause);
  if (!isActionVerb(verb) || EXPLAINS.test(clause)) return false;
  const words = clause.split(' ').length;
  return (
    words <= 30 &&
    (words === 2 ||
      OBJECT.test(clause) ||
      /^(?:call|ring|phone|email|text|message|pay|buy|order|book|print|ask|tell|water) /i.test(clause))
  );
}

/** `source` is the wording as it was said, before the date was taken out. */
type Item = { text: string; due: string | null; source: string };

/**
 * "plan, rehearse, record and upload the clip by Friday" is four to-dos with one object and one date;
 * "send the survey, call Bram and order stakes" is three of their own.
 */
function splitActions(trigger: Trigger, at: string): Item[] {
  const parts = trigger.isPassive ? [trigger.action] : splitAtVerbs(trigger.action);
  const items = parts.map((part) => part.replace(/[,;]\s*$/, '').trim()).filter(Boolean);
  const last = items.at(-1) ?? '';
  const lastRest = last.slice(firstWord(last).length).trim();
  return items
    .map((item, i) => {
      const bare = i < items.length - 1 && /^[\p{L}-]+$/u.test(item);
      return wordAsAction(bare && lastRest ? `${item} ${lastRest}` : item, at);
    })
    .filter((item): item is Item => item !== null);
}

function splitAtVerbs(action: string): string[] {
  const parts: string[] = [];
  let rest = action;
  for (;;) {
    const joint = /,? (?:and then|and also|and|then|plus)(?: to| please)? (?=[\p{L}-]+)|, (?=[\p{L}-]+)/giu;
    let cut: { at: number; next: number } | null = null;
    for (const match of rest.matchAll(joint)) {
      const next = match.index + match[0].length;
      const word = firstWord(rest.slice(next));
      const after = rest.slice(next + word.length);
      if (isActionVerb(word) && !/^ (?:is|are|was|of|will|has)\b/.test(after)) {
        cut = { at: match.index, next };
        break;
      }
    }
    if (!cut) return [...parts, rest];
    parts.push(rest.slice(0, cut.at));
    rest = rest.slice(cut.next);
  }
}

const TRAILING_REASON =
  /,? (?:because|since|so that|so we|so i|otherwise|before (?:it|he|she|they|we|i|the)\b|if (?:he|she|they|we|i|it|possible|the)\b|when(?:ever)? (?:he|she|they|we|i|it|the)\b|which\b|who\b|or else|as soon as|but\b).*$/i;

const POINTS_ELSEWHERE =
  /^[\p{L}-]+(?: (?:up|out|in|off|down|back|over|at|to|with|about|for|on|away))?(?: (?:it|that|this|them|you|me|him|her|us|one|so))+(?: (?:up|out|back|down|off|over|together|now|then|away|about|to))*$/iu;

function wordAsAction(action: string, at: string): Item | null {
  const date = spokenDate(action, at);
  let text = date ? withoutDate(action, date.start, date.end) : action;
  text = text
    .replace(TRAILING_REASON, '')
    .replace(/\b(?:again|as well|too|please|though|then|you know)$/i, '')
    .replace(/\s+([,;])/g, '$1')
    .replace(/[\s,;:?–-]+$/g, '')
    .replace(/\s+(?:by|before|on|at|until|for|and|to|in)$/i, '')
    .replace(/^(?:please|also|just|then|to|actually|quickly)\s+/i, '')
    .replace(/\s+/g, ' ')
    .trim();
  if (text.length < 3 || HAPPENS.test(text) || LOOSE_ENDS.test(text)) return null;
  // "Do that" and a bare verb say nothing without what came before; a bare verb with a time is a promise.
  const namesPerson = /\b(?:me|us|him|her|them)\b/i.test(text);
  if ((POINTS_ELSEWHERE.test(text) && !(date && namesPerson)) || (!text.includes(' ') && !date)) return null;
  return { text: text.charAt(0).toUpperCase() + text.slice(1), due: date?.due ?? null, source: action };
}

/** A date goes from the wording unless it says what the thing is for ("the digger for Friday"). */
function withoutDate(text: string, start: number, end: number): string {
  if (/^for\s/i.test(text.slice(start, end))) return text;
  return `${text.slice(0, start)} ${text.slice(end)}`;
}

const escape = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** The project that a text names, by its name or one of its other names. */
export function projectIn(text: string, projects: readonly Named[]): string | null {
  for (const project of projects) {
    for (const name of [project.name, ...(project.otherNames ?? [])].map((n) => n.replace(/^(?:the|my|our) /i, ''))) {
      // "On the way home" is no project.
      const pattern = new RegExp(
        `(?<!\\b(?:way|go|going|get|come|coming|went|drive|walk|at) )\\b${escape(name)}\\b`,
        'i',
      );
      if (pattern.test(text)) return project.name;
    }
  }
  return null;
}

/** A project announced for what follows: "For the orchard, ...", "Next project, home." Undefined: nothing announced. */
function announcedProject(text: string, projects: readonly Named[]): string | null | undefined {
  const opening =
    /^(?:(?:okay|so|right|and|now|then|next)[, ]+)*(?:next project|(?:and )?for|as for|on|about|project|moving on to|to)?[,:]? ?(?:the |my )?(.{2,40}?)(?:[,.:;]|$)/i.exec(
      text,
    );
  if (!opening) return undefined;
  const named = projectIn(opening[1]!, projects);
  const short = opening[1]!.split(' ').length <= 4;
  return named && short ? named : undefined;
}
