import { ACTION_VERBS, baseOfParticiple, baseOfThirdPerson, isActionVerb } from '../language/todos/actionVerbs';
import { type Reading, type Unit, WEAK } from './reading';

const ADVERB =
  '(?:still|also|just|really|probably|definitely|now|then|all|both|only|first|better|always|maybe|perhaps|actually|honestly|finally|quickly)';
const AD = `(?: ${ADVERB}){0,2}`;
const pattern = (source: string): RegExp => new RegExp(`(?<= )(?:${source})(?= )`, 'u');

/** Turns of speech by which people say that something is to be done, or that it is not; the kinds, not single examples. */
const TURNS: Record<string, RegExp> = {
  must: pattern(
    `(?:i|we|i've|we've|you've|i'll|we'll)${AD} (?:have|has|need|got|gotta|want|ought|going|supposed|meant|due|about|promised|agreed|said)${AD} to`,
  ),
  mustPlain: pattern(
    `(?:i|we)${AD} (?:must|should|shall|gotta|need|better)|i'd better|we'd better|i'd${AD} better|i've to|we've to|i have to|i've got to|i've only to|i've still to|i gotta`,
  ),
  will: pattern(`(?:i|we)${AD} will|i'll|we'll|i'm gonna|i'm going to|we're going to|i shall`),
  going: pattern("i'm \\p{L}+ing|we're \\p{L}+ing|i am \\p{L}+ing"),
  owe: pattern(
    `(?:i|we)${AD} owe|owes? (?:me|us|him|her|them)|i've promised|i promised|i said i'd|i said i would|i told \\p{L}+ i'd`,
  ),
  forget: pattern(
    "(?:mustn't|must not|don't|can't|cannot|not to|let me|never|better not|won't|shouldn't) (?:let me |let us )?forget|remember to|remind me|remember",
  ),
  neverDid: pattern(
    `(?:i|we|nobody|no one|i've|we've|i haven't|i still haven't|we haven't|haven't|hasn't|still haven't) (?:never|still haven't|haven't|yet)?(?: ${ADVERB})? ?\\p{L}+(?:ed|en|nt|t)`,
  ),
  overdue: pattern(
    "overdue|long overdue|weeks late|owing|outstanding|still waiting|still haven't|haven't yet|not yet|yet to|still to|still not",
  ),
  want: pattern(
    "(?:wants?|wanted|needs?|need|requires?|asked for|is asking for|asks? for|expects?|waiting for|'d like|would like)",
  ),
  wantsDoing: pattern('(?:wants?|needs?|need|could do with|deserves|is worth) \\p{L}+ing'),
  needNoun: pattern(
    "(?:i|we|they|he|she|it|that)(?:'ll)? (?:still |also |just )?needs? (?:a|an|the|some|more|new|two|three|another|\\d+)",
  ),
  out: pattern(
    "(?:nearly|almost|running|run|we're|i'm|clean|all) (?:out|low|short)(?: of| on)?|runs? out|running low|last of the|down to the last|none left|no more",
  ),
  isTo: pattern("(?:is|are|am|'s|'re|'m|was|he's|she's|you're|i'm|they're) to (?!be sure|do with)\\p{L}+"),
  hasTo: pattern("(?:has|have|'s got|'ve got|got|have got|needs?|wants?|ought) to(?: be| go| come| get)?"),
  passive: pattern(
    '(?:to be|be|must be|should be|needs to be|has to be|have to be|get|getting|gets) \\p{L}+(?:ed|en|nt|t|ne|wn|ung|ut)',
  ),
  must3: pattern('\\p{L}+ (?:must|should|shall|had better|needs|ought)'),
  due: pattern(
    '(?:due|deadline|closes?|expires?|runs out|ends?|starts?|goes (?:out|in|off)|wants? (?:it|that|them)) (?:by|on|in|at|tomorrow|tonight|today|before)?',
  ),
  byTime: pattern(
    '(?:by|before|until|till|no later than) (?:the )?(?:end|monday|tuesday|wednesday|thursday|friday|saturday|sunday|noon|lunch|then|tomorrow|tonight|\\d+\\p{L}*|first|second|third|\\p{L}+th|\\p{L}+teenth|january|february|march|april|may|june|july|august|september|october|november|december|christmas|easter|weekend|next|dinner|half|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)',
  ),
  please: pattern(
    "please|would you|could you|can you|will you|would you mind|do you mind|you couldn't|can somebody|could somebody|can someone",
  ),
  let: pattern("let me|let's|let us|let \\p{L}+ know"),
  somebody: pattern(
    "(?:somebody|someone|one of us|one of you|nobody) (?:has|needs|should|must|ought|will|could|can|ought to|'s got)",
  ),
  youMust: pattern(
    "(?:you|you're|you'll|you've) (?:have|need|must|should|got|will|are|gotta|want|to|better|might)(?: to)?",
  ),
  theyWill: pattern(
    "(?:he|she|they)(?:'ll|'s going to|'re going to| will| is going to| has to| needs to| said (?:he|she|they)(?:'d|'ll))|he'll|she'll|they'll|she'd|he'd",
  ),
  nameWill: pattern(
    '#name (?:will|is going to|has to|needs to|said (?:he|she)|can|to|wants|is to|must|should|promised|offered)',
  ),
  askName: pattern(
    '(?:ask|tell|ring|call|phone|email|text|message|remind|get|have|chase|catch|see|thank|pay|send|meet|warn|write) (?:to )?(?:#name|him|her|them|mum|dad|my|the|mr|mrs|dr)',
  ),
  not: pattern(
    "(?:don't|do not|doesn't|didn't|won't|wouldn't|isn't|aren't|wasn't|can't|cannot|never|not|no|nothing|nobody|none|needn't|mustn't)",
  ),
  noNeed: pattern(
    "no need|needn't|don't need to|doesn't need to|don't have to|doesn't have to|no hurry|no rush|nothing to do|leave it|not my|not mine|isn't mine|not for me|forget it|scrap that|scratch that|never mind|doesn't matter|strike that|let it",
  ),
  done: pattern(
    '(?:already|done|finished|sorted|booked|paid|sent|fixed|gone|over|arrived|delivered|all set|dealt with|taken care of|in hand)',
  ),
  past: pattern(
    '(?:was|were|had|did|went|came|said|told|rang|called|asked|got|took|gave|put|made|saw|thought|knew|wrote|left|bought|brought|found|used to|stood|sat|kept|ate|felt|lost)',
  ),
  would: pattern("(?:would|i'd|you'd|he'd|she'd|they'd|we'd|could|might|may|maybe|perhaps|if only|suppose)"),
  condition: pattern('(?:if|unless|in case|whether|once|when|as long as|provided)'),
  ask: pattern('(?:ask|find out|check|see|wonder|know|look) (?:if|whether|who|what|when|where|how|which|about)'),
  mine: pattern(
    "(?:mine|my job|on me|up to me|for me to|me to|i'll do|i'll take|leave it with me|leave that with me|i can do|i'll see to|that's me)",
  ),
  ours: pattern("on you|up to you|for you to|your job|yours|you to do|that's you|over to you"),
  plan: pattern(
    '(?:plan|planning|thinking of|hoping|hope|intend|aim|mean|looking) to|the plan is|next step|next up|next thing|first thing|job (?:one|two|number|for)|list|to-do|note to self|note|things to',
  ),
  rule: pattern(
    "(?:always|never|every time|whenever|usually|normally|each time|as a rule|you can't|you don't|people|everybody|everyone|nobody)",
  ),
  accept: pattern(
    "(?:yes|yeah|yep|sure|okay|ok|fine|will do|no problem|of course|right|alright|happy to|gladly|go on then|can do|done|deal|agreed|i can|i could|i'll)",
  ),
};

const SUBJECT_PAST = /ed$/;

const SUBJECTS: [string, RegExp][] = [
  ['I', /^(?:i|i'll|i'm|i've|i'd)$/],
  ['we', /^(?:we|we'll|we're|we've|we'd|let's)$/],
  ['you', /^(?:you|you'll|you're|you've|you'd)$/],
  ['he', /^(?:he|she|they|he's|she's|they're|he'll|she'll|they'll|he'd|she'd|they'd|they've)$/],
  ['it', /^(?:it|it's|it'll|that|that's|this|there|there's|which|what|who|those|these)$/],
];

/** How a unit reads: turns of speech, who acts, in which form the first verb stands. */
export function signsOf(reading: Reading, unit: Unit, shapes: readonly string[]): string[] {
  const tokens = reading.tokens.slice(unit.from, unit.to);
  const text = ` ${shapes.join(' ')} `;
  const out: string[] = [];
  for (const [name, turn] of Object.entries(TURNS)) if (turn.test(text)) out.push(name);
  const start = tokens.findIndex(
    (t) => t.bare && !WEAK.has(t.bare) && !/^(?:#day|#month)$/.test(t.bare) && t.bare !== 'please',
  );
  const first = tokens[start];
  if (first) {
    const subject = SUBJECTS.find(([, form]) => form.test(first.bare))?.[0];
    out.push(
      `starts:${subject ?? (isActionVerb(first.bare) ? 'verb' : /Person|#name/.test(first.tag) || shapes[start] === '#name' ? 'name' : first.tag)}`,
    );
    const next = tokens[start + 1];
    if (subject && next) {
      out.push(
        `${subject}+${isActionVerb(next.bare) ? 'base' : baseOfThirdPerson(next.bare) ? 'third' : baseOfParticiple(next.bare) || SUBJECT_PAST.test(next.bare) ? 'past' : next.tag}`,
      );
    }
    if (isActionVerb(first.bare))
      out.push(
        `verb+${next ? (/^(?:the|a|an|my|our|his|her|their|your|some|that|this|those|it|him|them|#name)$/.test(shapes[start + 1]!) ? 'object' : next.tag) : '$'}`,
      );
    if (/ing$/.test(first.bare) && ACTION_VERBS.has(first.bare.slice(0, -3))) out.push('starts-ing');
  }
  const verbs = tokens.findIndex((t) =>
    /Modal|Copula|Auxiliary|PastTense|PresentTense|Verb|Gerund|Infinitive|Imperative/.test(t.tag),
  );
  out.push(verbs < 0 ? 'verbless' : `first-verb:${tokens[verbs]!.tag}`);
  if (tokens.some((t) => /\d|#num/.test(t.bare)) || shapes.includes('#num')) out.push('number');
  return out;
}
