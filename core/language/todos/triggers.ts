import { baseOfParticiple, baseOfThirdPerson, isActionVerb } from './actionVerbs';
import { firstWord, lowerFirst } from './clauses';

/**
 * Whose it is, as it was said: the speaker's own ("I"), somebody's who is named, the one who is spoken to ("can you"), the
 * listener's ("you have to", a plain command), or nobody's ("we", "somebody", a passive).
 */
export type Owner = 'speaker' | 'addressee' | 'listener' | 'nobody' | { name: string };
export type Trigger = { owner: Owner; action: string; isPassive?: boolean; isOffer?: boolean };

const ADVERB =
  '(?:really |still |also |just |probably |definitely |first |now |then |all |both |quickly |please |only |simply |then just )*';
const LATER = "(?:need to|have to|got to|must|should|ought to|want to|had better|'d better|gotta)";

const MINE: RegExp[] = [
  /^(?:please )?(?:remind me|remember|don't (?:let me )?forget|(?:i|we) (?:mustn't|must not|shouldn't|should not) forget|make sure|be sure) to (.+)$/i,
  /^(?:please )?(?:make sure|remember) that i (?:have to|need to|must) (.+)$/i,
  new RegExp(
    `^(?:i think |i guess |i suppose |maybe |perhaps )?i(?:'ve| have)? ${ADVERB}${LATER.replace('(?:', "(?:'d better|")} ${ADVERB}(.+)$`,
    'i',
  ),
  new RegExp(`^(?:i think |i guess )?i'd (?:better|like to|love to) ${ADVERB}(.+)$`, 'i'),
  new RegExp(
    `^i(?:'ll| will| shall|'m going to| am going to|'m supposed to|'m meant to| promised to| promised i'd| said i'd| said i would| agreed to) ${ADVERB}(.+)$`,
    'i',
  ),
  /^i (?:told|promised) \p{Lu}[\p{L}'-]+ (?:that )?i(?: would|'d) (.+)$/iu,
  /^(?:my|the) next (?:step|task|job) is to (.+)$/i,
  /^(?:my (?:job|task|to-do|action)(?: (?:for|until) [\p{L} ]{2,20}?)?|note to self|to-do|todo|action point)(?: is)?(?: to)?[:,]? (.+)$/iu,
];
const OURS: RegExp[] = [
  new RegExp(
    `^(?:i think |maybe |perhaps )?we(?:'ve| have)? ${ADVERB}${LATER.replace('want to|', '')} ${ADVERB}(.+)$`,
    'i',
  ),
  new RegExp(`^we(?:'ll| will| shall|'re going to| are going to| agreed to) ${ADVERB}(.+)$`, 'i'),
  new RegExp(`^let(?:'s| us) ${ADVERB}(?!begin|start|turn|look|see|go on|continue|move on|say|talk about)(.+)$`, 'i'),
  /^(?:somebody|someone) (?:has to|needs to|must|should|ought to) (.+)$/i,
  /^(?:can|could|would|will) (?:we|somebody|someone)(?: please| also| just)* (.+?)\??$/i,
  /^(?:the|our|my) (?:plan|idea|goal|aim|intention) is to (.+)$/i,
];
const YOU_ASKED = /^(?:can|could|would|will) you(?: please| also| just)* (.+?)\??$/i;
const YOU_TAGGED = /^(.+?), (?:will|would|could|can) you\?$/i;
const YOU_MUST = new RegExp(
  `^you (?:all )?${ADVERB}(?:have to|need to|must|should|will|ought to|had better|'d better|are to) ${ADVERB}(.+)$`,
  'i',
);
const NAME =
  "((?:Professor |Doctor |Dr\\. |Mrs?\\. |Ms\\. )?\\p{Lu}[\\p{L}'-]+(?: \\p{Lu}[\\p{L}'-]+)?|[Tt]he \\p{Ll}[\\p{L}-]+(?: \\p{Ll}[\\p{L}-]+)?)";
const NAMED_PROMISE = new RegExp(
  `^${NAME} (?:will|'ll|has to|have to|needs to|need to|must|should|is going to|are going to|is supposed to|agreed to|promised to|promised (?:he|she|they)'d|said (?:he|she|they) (?:would|will)|said (?:he|she|they)'d|offered to|wants to) ${ADVERB}(.+)$`,
  'u',
);
const NAMED_REQUEST = new RegExp(`^${NAME}, (?:can|could|would|will) you(?: please| also)* (.+?)\\??$`, 'u');
const REQUEST_NAMED = new RegExp(
  `^(?:[Cc]an|[Cc]ould|[Ww]ould|[Ww]ill) you(?: please| also)* (.+?), (\\p{Lu}[\\p{L}'-]+)\\??$`,
  'u',
);
/** Only after "action point two": "Jun prints twenty flyers", "I book the hall". */
const NAMED_PRESENT = /^(\p{Lu}[\p{L}'-]+(?: \p{Lu}[\p{L}'-]+)?) (\p{Ll}+s) (.+)$/u;
const OWN_PRESENT = /^i (\p{Ll}+) (.+)$/iu;

const PASSIVE =
  /^(?:the |my |our |a |an )?(.{2,60}?) (?:still )?(?:has to|have to|needs to|need to|must|should|ought to)(?: still)? be (\p{L}+)\b(.*)$/iu;
/** "The invitation has to go out by Monday." */
const GOES_OUT =
  /^((?:the|my|our|a|an) .{2,50}?) (?:has to|have to|needs to|need to|must|should) (?:go|get) out\b(.*)$/i;
const DUE = /^(the |my |our )(.{2,50}?) (?:is|are) due\b(.*)$/i;
const NEED_THING =
  /^(i|we)(?:'ll)? (?:still |also |just )?need ((?:\d+|some|a|an|the|new|more|two|three|four|five|six|seven|eight|nine|ten|twelve|twenty|another)\b.+|\p{L}+s\b.*)$/iu;
const NO_THING =
  /\b(?:need (?:some |a |more )?(?:time|help|rest|sleep|rain|money|break|idea|space|peace|luck|air|light|water|days?|weeks?|hours?|minutes?|years?))\b|\bneed (?:as|less|us)\b/i;

const DONE =
  /\b(?:already|have (?:just )?\p{L}+(?:ed|nt|ne)\b|is done|are done|was done|did that|that's done|has been|have been)\b/iu;
/** "We must not forget the water" names a thing, not an act. */
const NOT_FORGET =
  /^(?:please )?(?:don't (?:let (?:me|us) )?forget|(?:i|we) (?:mustn't|must not) forget) (?:about )?((?:the|a|an|my|our|his|her|their) .+)$/i;
const NOT_WANTED =
  /\b(?:don't (?:need|have|want) to|do not (?:need|have|want) to|doesn't (?:need|have)|does not (?:need|have)|no need|needn't|not going to|won't|will not|shouldn't|should not|never|used to|would have|could have|should have|had to|wanted to|needed to|didn't|did not|if i had|wish|nobody|no one)\b/i;

/** Names after which "will" or "should" tells how things are, not what somebody promised. */
const NOT_A_PERSON =
  /^(?:the (?:soil|water|rain|tree|trees|root|roots|wind|sun|sand|clay|plant|result|weather|value|rest|whole|first|last|next|same|other|only|best|more|quay|harbour|trench|pump|ground|day|week|lecture|curve|profile|meeting|delivery|library|shop|invitation|plants?)|it|this|that|there|what|which|nobody|everybody|everyone|nothing|everything|water|rain|soil)\b/i;
/** Verbs that tell what happens rather than what somebody does. */
export const HAPPENS =
  /^(?:be|have(?! \p{L}+(?: \p{L}+)? (?:sign|check|read|look|write|call|send|bring)| a look)|need|feel|hear|become|seem|remain|happen|depend|grow|drain|see|know|think|say|like|understand|imagine|consider|suppose|mean|owe|get (?:cold|wet|dry|dark|tired))\b/iu;
export const LOOSE_ENDS = /^(?:is|are|was|were|it|that|this|they|he|she|there|which|who|because|if|when|while|what)\b/i;

const plausible = (trigger: Trigger): Trigger | null =>
  HAPPENS.test(trigger.action) || LOOSE_ENDS.test(trigger.action) ? null : trigger;

/**
 * What a clause asks for, or null.
 * @param carried what the clause before asked for, so that a further verb belongs to it
 * @param isPoint whether it was announced as an action point, where plain statements are meant as tasks
 */
export function triggerOf(clause: string, carried: Trigger | null, isPoint = false): Trigger | null {
  if (NOT_WANTED.test(clause) || DONE.test(clause) || /^(?:and )?if\b/i.test(clause)) return null;
  const { body, person } = withoutAddress(clause);
  const thing = NOT_FORGET.exec(body);
  if (thing) return { owner: 'speaker', action: `remember ${thing[1]!}` };
  const request = NAMED_REQUEST.exec(body) ?? null;
  if (request) return plausible({ owner: { name: request[1]! }, action: request[2]! });
  const askedLast = REQUEST_NAMED.exec(body);
  if (askedLast) return plausible({ owner: { name: askedLast[2]! }, action: askedLast[1]! });
  const named: Owner | null = person ? { name: person } : null;
  for (const pattern of MINE) {
    const match = pattern.exec(body);
    if (match) return plausible({ owner: 'speaker', action: match[1]! });
  }
  for (const pattern of OURS) {
    const match = pattern.exec(body);
    if (match) return plausible({ owner: named ?? 'nobody', action: match[1]! });
  }
  const asked = YOU_ASKED.exec(body) ?? YOU_TAGGED.exec(body);
  if (asked) return plausible({ owner: named ?? 'addressee', action: asked[1]! });
  if (body.endsWith('?')) return null;
  const must = YOU_MUST.exec(body);
  if (must) return plausible({ owner: named ?? 'listener', action: must[1]! });
  const needed = NEED_THING.exec(body);
  if (needed && !NO_THING.test(body) && !/\bneed to\b/i.test(body)) {
    return { owner: /^i$/i.test(needed[1]!) ? 'speaker' : 'nobody', action: `get ${needed[2]!}` };
  }
  const out = GOES_OUT.exec(body);
  if (out) return { owner: 'nobody', action: `send out ${lowerFirst(out[1]!)}${out[2]!}`, isPassive: true };
  const passive = passiveOf(body);
  if (passive) return passive;
  const due = DUE.exec(body);
  if (due) return { owner: 'speaker', action: `finish ${due[1]!.toLowerCase()}${due[2]}${due[3]}`, isPassive: true };
  const promise = NAMED_PROMISE.exec(body);
  if (promise && !NOT_A_PERSON.test(promise[1]!)) {
    return plausible({ owner: { name: promise[1]!.replace(/^The /, 'the ') }, action: promise[2]! });
  }
  if (isPoint) {
    const present = NAMED_PRESENT.exec(body);
    const base = present && baseOfThirdPerson(present[2]!);
    if (present && base) return { owner: { name: present[1]! }, action: `${base} ${present[3]!}` };
    const own = OWN_PRESENT.exec(body);
    if (own && isActionVerb(own[1]!)) return { owner: 'speaker', action: `${own[1]!.toLowerCase()} ${own[2]!}` };
  }
  if (isCommand(body)) return { owner: named ?? 'listener', action: body };
  if (carried && isActionVerb(firstWord(body))) return { owner: carried.owner, action: body };
  return null;
}

function passiveOf(body: string): Trigger | null {
  const passive = PASSIVE.exec(body);
  const isPlainSubject =
    passive &&
    !/^(?:it|this|that|he|she|they|too|two|three|one|some|all|both|most|many|others?)\b|\b(?:that|which|who)\b/i.test(
      passive[1]!,
    );
  const base = isPlainSubject ? baseOfParticiple(passive[2]!) : null;
  if (!passive || !base) return null;
  const by = /^ by (\p{Lu}[\p{L}'-]+(?: \p{Lu}[\p{L}'-]+)?)/u.exec(passive[3]!);
  const isPerson =
    by &&
    !/^(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day|^(?:January|February|March|April|May|June|July|August|September|October|November|December)/.test(
      by[1]!,
    );
  const subject = body.slice(0, body.indexOf(passive[1]!) + passive[1]!.length).replace(/ still$/, '');
  const behind = isPerson ? passive[3]!.slice(by[0].length) : passive[3]!;
  const particle = /^ (?:in|out|up|off|back|down|over|away)(?= (?!the|a|my)|$)/i.exec(behind)?.[0] ?? '';
  const rest = behind.slice(particle.length);
  return {
    owner: isPerson ? { name: by[1]! } : 'nobody',
    action: `${base}${particle} ${lowerFirst(subject)}${rest}`,
    isPassive: true,
  };
}

/** "Bram, bring the spade" is for Bram. */
function withoutAddress(clause: string): { body: string; person: string | null } {
  const match = /^(\p{Lu}[\p{L}'-]+), (?=\p{Ll})(.+)$/u.exec(clause);
  if (!match || NAMED_REQUEST.test(clause)) return { body: clause, person: null };
  return isActionVerb(firstWord(match[2]!)) && !isActionVerb(match[1]!)
    ? { body: match[2]!, person: match[1]! }
    : { body: clause, person: null };
}

/** Nouns and verbs that look alike: a command needs an object that begins like one. */
const OBJECT =
  /^[\p{L}-]+(?: (?:up|out|in|off|down|back|over|on|round|around|away|through))? (?:the|a|an|my|our|his|her|their|your|this|that|these|those|it|some|all|every|both|two|three|four|five|six|seven|eight|nine|ten|twelve|twenty|\d|new|more|about|to|for|with|at|in|on|if|when|where|whether|after|from|chapter|chapters|page|pages|section|me|him|them|\p{Lu}|\p{L}+(?:s|es)\b)/u;
const EXPLAINS =
  /^(?:note that|remember that|take (?:for example|a look|the case)|let (?:me|us)|let's|say |look at (?:this|the (?:slide|curve|figure))|think |go on|come on|hold on|thank|do (?:you|not|we|they|that|it)|have |turn to the|start with|show you|leave it|tell me|try it|wait |(?:talk|speak) to you|see you)/i;

function isCommand(clause: string): boolean {
  const verb = firstWord(clause);
  if (!isActionVerb(verb) || EXPLAINS.test(clause)) return false;
  const words = clause.split(' ').length;
  // "Plan, rehearse, record and upload the clip": verbs in a row share what the last one has.
  const row = /^(?:[\p{L}-]+, )+(?:and )?/u.exec(clause);
  if (
    row &&
    row[0]
      .split(/, (?:and )?/)
      .filter(Boolean)
      .every(isActionVerb)
  )
    return words <= 30;
  return (
    words <= 30 &&
    (words === 2 ||
      OBJECT.test(clause) ||
      /^(?:call|ring|phone|email|text|message|pay|buy|order|book|print|ask|tell|water) /i.test(clause))
  );
}
