import { tableOf } from '../spokenNumbers';

/**
 * Verbs with which people word a thing to be done, in their base form. A list of our own: a tagger takes
 * sentence-initial verbs for names.
 */
export const ACTION_VERBS = new Set(
  `accept add adjust advertise agree aim air allocate announce answer apologise apologize apply approve archive
  arrange ask assemble assign attach attend audit babysit back bake bandage battle beat bill bind block blow boil
  bolt book borrow brief bring brush buff build bury button buy calculate calibrate call camp cancel carry carve cast
  celebrate change charge chase check choose chop circulate clarify clean clear close coach collate collect comb
  combine come commission compare compile complete compose compost confirm congratulate connect consult contact
  contribute convert convince cook copy correct count cover create crop cut cycle dance debug decide decline decorate
  defrost delegate delete deliver deposit describe design detach develop dial dig direct disconnect discuss dismantle
  display dispose distribute divide do document donate download draft draw dress drill drive drop dry duplicate dust
  edit elect email empty encourage engage enlarge enrol ensure enter erase erect establish estimate evaluate examine
  exchange exercise exhibit explain export extend extract fasten feed fence fertilise fertilize fetch figure file
  fill finalise finalize find finish fit fix flag fold follow forward frame freeze fry fund gather generate get give
  glue go grab grade grant grease greet grind group guide hammer hand handle hang harvest heat help hide hire hold
  hoover host identify illustrate import improve increase index inform insert inspect install insulate insure
  interview introduce invent investigate invite invoice iron join jot judge keep knit knock label launch lay lead
  learn leave lend let lift link list listen load lock log look loosen lower mail maintain make manage map mark match
  measure meet memorise memorize mend mention message mix modify monitor mop motivate mount move mow nail name
  negotiate nominate note notify obtain offer oil open operate order organise organize outline overhaul oversee pack
  paint park pass paste pause pay peel perform persuade phone photocopy photograph pick pin place plan plant polish
  post pour practice practise pray preheat prepare present press prevent print process produce program promote
  proofread propagate propose protect provide prune publish pull pump purchase push put quote raise rake rank reach
  read rearrange reassure recalculate recharge recommend reconnect reconsider record recover recruit recycle
  redecorate redesign redo reduce refill refine refresh refund refuse register regulate rehearse reinforce reinstall
  reject release relocate remind remove rename renew rent reorder reorganise reorganize repaint repair repeat replace
  reply report repot represent reprint request reschedule rescue research reserve reset reshape resize resolve
  respond restart restock restore restrict resume retrieve retry return reuse reverse review revise rewrite ring
  rinse roast roll rotate rub run sample save saw scan schedule screw seal search secure select sell send separate
  serve set settle sew shake share sharpen shave ship shop shovel show shut sieve sign simplify sing sketch skip
  slice smooth soak solve sort speak spend spray spread squeeze stack stain stake stamp staple start steam stick stir
  stitch stock stop store straighten strengthen stretch strip study submit subscribe sum summarise summarize
  supervise supply support survey suspend swap sweep swim switch take talk tape taste teach tell test text thank thaw
  thread throw tick tidy tie tighten toast tow trace track train transcribe transfer transform translate transplant
  treat trim try turn type uninstall unlock unpack unplug unscrew untie unwrap update upgrade upload use vacate
  vacuum varnish ventilate verify view visit volunteer vote wait wake walk warn wash watch water wax weed weigh
  welcome weld whisk wipe wire withdraw wrap write`.split(/\s+/),
);

/** Irregular participles of the verbs above. */
const PARTICIPLES = tableOf<string>({
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
  driven: 'drive',
  taught: 'teach',
  stuck: 'stick',
  shut: 'shut',
  frozen: 'freeze',
  hidden: 'hide',
  worn: 'wear',
  lit: 'light',
  ground: 'grind',
  fed: 'feed',
  withdrawn: 'withdraw',
  woken: 'wake',
  rewritten: 'rewrite',
  sewn: 'sew',
  bound: 'bind',
  gotten: 'get',
  got: 'get',
  redone: 'redo',
});

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

/** The base form of "prints" or "carries", or null when it is not one of a verb that people plan with. */
export function baseOfThirdPerson(word: string): string | null {
  const lower = word.toLowerCase();
  return (
    [lower.replace(/s$/, ''), lower.replace(/es$/, ''), lower.replace(/ies$/, 'y')].find((c) => ACTION_VERBS.has(c)) ??
    null
  );
}
