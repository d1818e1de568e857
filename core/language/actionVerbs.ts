/**
 * Verbs with which people word a thing to be done, in their base form. A list of our own: a tagger takes
 * sentence-initial verbs for names.
 */
export const ACTION_VERBS = new Set(
  `accept add adjust agree answer apologise apologize apply approve arrange ask assemble assign attach attend back bake
  bill block book borrow bring build buy calculate call cancel change charge chase check choose clarify clean clear
  close collect come compare complete confirm connect contact cook copy correct count cover create cut decide
  decline deliver describe design dig discuss dispose distribute divide do document donate download draft draw drop edit
  email empty enrol enter estimate exchange explain export fetch figure file fill find finish fix flag follow forward
  get give go grab greet hand hang help hire hold hoover import inform inspect install introduce invite invoice iron
  join keep label lay lead leave lend let list load lock log look mail make mark measure meet mend mention message move
  mow negotiate note notify nominate offer open order organise organize pack paint park pass pay phone pick place plan
  plant polish post practise practice prepare present press print propose prune publish pull push put raise read
  record recruit recycle redo reduce refund register rehearse remind remove renew rent repair replace reply report
  request reschedule research reserve resolve respond return review revise ring run save scan schedule search sell send
  separate set settle share sharpen ship shop show sign sort speak spend spread stake start stop store study submit
  subscribe summarise summarize supply survey sweep switch take talk tell test text thank throw tidy tie trace track
  train transfer translate trim try turn type unpack update upgrade upload use vacuum verify visit wait wake walk warn
  wash watch water weed weigh wrap write`.split(/\s+/),
);

/** Irregular participles of the verbs above. */
const PARTICIPLES: Record<string, string> = {
  bought: 'buy',
  brought: 'bring',
  built: 'build',
  chosen: 'choose',
  cut: 'cut',
  done: 'do',
  drawn: 'draw',
  dug: 'dig',
  found: 'find',
  given: 'give',
  held: 'hold',
  hung: 'hang',
  kept: 'keep',
  laid: 'lay',
  led: 'lead',
  left: 'leave',
  made: 'make',
  met: 'meet',
  paid: 'pay',
  put: 'put',
  read: 'read',
  rung: 'ring',
  run: 'run',
  sent: 'send',
  set: 'set',
  shown: 'show',
  sold: 'sell',
  spoken: 'speak',
  spread: 'spread',
  swept: 'sweep',
  taken: 'take',
  told: 'tell',
  thrown: 'throw',
  written: 'write',
  gotten: 'get',
  got: 'get',
  redone: 'redo',
};

/** The base form of a past participle, or null when it is not one of a verb that people plan with. */
export function baseOfParticiple(word: string): string | null {
  const lower = word.toLowerCase();
  if (lower in PARTICIPLES) return PARTICIPLES[lower]!;
  if (!lower.endsWith('ed')) return null;
  const stem = lower.slice(0, -2);
  const candidates = [
    stem,
    `${stem}e`,
    stem.replace(/(.)\1$/, '$1'),
    lower.endsWith('ied') ? `${lower.slice(0, -3)}y` : stem,
  ];
  return candidates.find((c) => ACTION_VERBS.has(c)) ?? null;
}

export const isActionVerb = (word: string): boolean => ACTION_VERBS.has(word.toLowerCase());
