import { spokenDate } from '../spokenDates';
import { spokenRepeat } from '../spokenRepeats';
import { firstWord, splitAtVerbs } from './clauses';
import { HAPPENS, LOOSE_ENDS, type Trigger } from './triggers';

/** `source` is the wording as it was said, before the date was taken out. `repeat` is a recurrence rule (RFC 5545). */
export type Item = { text: string; due: string | null; repeat: string | null; source: string };

const TRAILING_REASON =
  /,? (?:because|since|so that|so we|so i|otherwise|before (?:it|he|she|they|we)\b|if (?:he|she|they|we|i|it|possible|the)\b|when(?:ever)? (?:he|she|they|we|i|it|the)\b|which\b|(?<!\b(?:of|about|on|to|with|for|know|ask|see|tell|check|decide) )who\b|or else|as soon as|but\b).*$/i;

const POINTS_ELSEWHERE =
  /^[\p{L}-]+(?: (?:up|out|in|off|down|back|over|at|to|with|about|for|on|away))?(?: (?:it|that|this|them|you|me|him|her|us|one|so))+(?: (?:up|out|back|down|off|over|together|now|then|again|away|about|to|by|in|hand|myself))*$/iu;
const MOVES_TO = /\b(?:move|postpone|reschedule|shift|put off|bring forward)\b.* to $/i;

/**
 * "plan, rehearse, record and upload the clip by Friday" is four to-dos with one object and one date;
 * "send the survey, call Bram and order stakes" is three of their own; of two joined by "and" a day counts for both.
 */
export function splitActions(trigger: Trigger, at: string): Item[] {
  const parts = trigger.isPassive ? [trigger.action] : splitAtVerbs(trigger.action);
  const items = parts.map((part) => part.replace(/[,;]\s*$/, '').trim()).filter(Boolean);
  const last = items.at(-1) ?? '';
  const lastRest = last.slice(firstWord(last).length).trim();
  const worded = items
    .map((item, i) => {
      const bare = i < items.length - 1 && /^[\p{L}-]+$/u.test(item);
      return wordAsAction(bare && lastRest ? `${item} ${lastRest}` : item, at);
    })
    .filter((item): item is Item => item !== null);
  const [first, second] = worded;
  const isPair = worded.length === 2 && items.length === 2 && !/[,;]|\bthen\b/.test(trigger.action);
  if (isPair && first && second) {
    if (isDay(first.due) && !second.due) second.due = first.due;
    else if (isDay(second.due) && !first.due && !namesDay(second)) first.due = second.due;
  }
  return worded;
}

const isDay = (due: string | null): boolean => due !== null && !due.includes('T');
/** Whether the day belongs to the thing ("the digger for Friday"). */
const namesDay = ({ text, source }: Item): boolean => text.toLowerCase() === source.toLowerCase();

/**
 * Words an action as a person would write it, with its date and repetition taken out; null where nothing is left.
 * @param reads whether dates and repetitions are read; words that are not read stay
 */
export function wordAsAction(action: string, at: string, reads = { date: true, repeat: true }): Item | null {
  const repeat = reads.repeat ? spokenRepeat(action, at) : null;
  const once = repeat ? `${action.slice(0, repeat.start)} ${action.slice(repeat.end)}`.trim() : action;
  const date = reads.date ? spokenDate(once, at) : null;
  let text = date ? withoutDate(once, date.start, date.end) : once;
  text = text
    .replace(TRAILING_REASON, '')
    .replace(/\b(?:again|as well|too|please|though|then|you know|instead)$/i, '')
    .replace(/(?<!\s)\s+([,;])/g, '$1')
    .replace(/(?<![\s,;:?–-])[\s,;:?–-]+$/g, '')
    .replace(/(?<!\s)\s+(?:by|before|on|at|until|for|and|to|in)$/i, (tail) => (POINTS_ELSEWHERE.test(text) ? tail : ''))
    .replace(/^(?:please|also|just|then|to|actually|quickly)\s+/i, '')
    .replace(/\s+/g, ' ')
    .trim();
  if (text.length < 3 || HAPPENS.test(text) || LOOSE_ENDS.test(text)) return null;
  // "Do that" and a bare verb say nothing without what came before; a bare verb with a time is a promise.
  if (!text.includes(' ') && !date && !repeat) return null;
  return {
    text: text.charAt(0).toUpperCase() + text.slice(1),
    due: repeat ? dueOfRepeat(repeat.due, date?.due) : (date?.due ?? null),
    repeat: repeat?.rule ?? null,
    source: action,
  };
}

const dueOfRepeat = (first: string, date: string | undefined): string =>
  date?.includes('T') ? `${first}${date.slice(10)}` : first;

/** Whether a wording says nothing without what came before: "Check it", "Do that again". */
export const pointsElsewhere = (text: string): boolean => POINTS_ELSEWHERE.test(text);

/** A date goes from the wording unless it says what the thing is for ("the digger for Friday") or where it moves to. */
function withoutDate(text: string, start: number, end: number): string {
  if (/^for\s/i.test(text.slice(start, end)) || MOVES_TO.test(text.slice(0, start))) return text;
  return `${text.slice(0, start)} ${text.slice(end)}`;
}
