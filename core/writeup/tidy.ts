import { tableOf } from '../language/spokenNumbers';

const FILLERS =
  /\b(?:um+|uh+|erm?|basically|actually|literally)\b,?\s*|(?<=^|, )(?:you know|i mean|well|sort of|kind of|like),\s*|,\s*(?:you know|i mean)(?:(?=[.!?]|$)|,(?= ))/gi;
const OPENINGS =
  /^(?:(?:okay|ok|right|so|well|and|but|then|now|yes|yeah|oh|also|anyway|all right|alright)\b,?\s+|(?:i think|i guess|i suppose|i believe|i would say|it seems to me|let me say|as i said|what i mean is)(?: that)?,?\s+)+/i;
/** "We need, we need stakes." */
const RESTART = /\b((?:\p{L}[\p{L}']* ){0,3}\p{L}[\p{L}']*), (?=\1\b)/giu;
const TWICE = /\b(\p{L}+) \1\b(?! that)/giu;

/** A spoken sentence as one would write it: only words are left out, none is added. */
export function tidyText(sentence: string): string {
  let text = sentence.replace(/’/g, "'").replace(FILLERS, '').replace(RESTART, '').replace(TWICE, '$1');
  text = text
    .replace(OPENINGS, '')
    .replace(/(?<!\s)\s+([,.;:?!])/g, '$1')
    .replace(/\s+/g, ' ')
    .trim();
  if (!/[\p{L}\p{N}]/u.test(text)) return '';
  const upper = text.charAt(0).toUpperCase() + text.slice(1);
  return /[.?!…]["'”’)]?$/.test(upper) ? upper : `${upper.replace(/(?<![,;:–-])[,;:–-]+$/, '')}.`;
}

const AUXILIARIES: [RegExp, string][] = [
  [/\bi'm\b/gi, '$N is'],
  [/\bi am\b/gi, '$N is'],
  [/\bi've\b/gi, '$N has'],
  [/\bi have\b/gi, '$N has'],
  [/\bi'll\b/gi, '$N will'],
  [/\bi'd\b/gi, '$N would'],
  [/\bi do\b/gi, '$N does'],
  [/\bi don't\b/gi, "$N doesn't"],
  [/\bi was\b/gi, '$N was'],
  [
    /\bi (will|would|can|could|should|must|may|might|shall|had|did|was|wanted|needed|said|told|asked|promised|agreed|sent|saw|found|thought)\b/gi,
    '$N $1',
  ],
];
const THIRD = tableOf<string>({
  go: 'goes',
  do: 'does',
  have: 'has',
  try: 'tries',
  carry: 'carries',
  watch: 'watches',
  wish: 'wishes',
});
const PRESENT =
  /\bi ((?:also |still |just |really )?)(think|want|need|know|like|agree|suggest|propose|hope|see|mean|say|go|do|have|try|take|bring|send|call|ask|expect|believe|prefer|remember|doubt|promise|recommend|plan|work|live|feel)\b/gi;

/**
 * First person turned into the name of who spoke, where the form is one that is known; null where it is not, and the
 * sentence has to stand as it was said.
 */
export function inReportedSpeech(sentence: string, speaker: string): string | null {
  if (!/\b(?:i|me|my|mine|myself)\b/i.test(sentence)) return sentence;
  let text = sentence;
  for (const [pattern, form] of AUXILIARIES) text = text.replace(pattern, form.replace('$N', '\u0001'));
  text = text.replace(PRESENT, (_, adverb: string, verb: string) => {
    const lower = verb.toLowerCase();
    return `\u0001 ${adverb}${THIRD[lower] ?? `${lower}s`}`;
  });
  if (/\bi\b/i.test(text)) return null;
  text = text
    .replace(/\bmyself\b/gi, '\u0001')
    .replace(/\bmine\b/gi, "\u0001's")
    .replace(/\bmy\b/gi, "\u0001's")
    .replace(/\bme\b/gi, '\u0001');
  return text.replaceAll('\u0001', () => speaker);
}
