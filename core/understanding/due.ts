import { spokenDate } from '../language/spokenDates';
import { spokenRepeat } from '../language/spokenRepeats';
import type { Prepared } from './prepare';
import { unitText } from './reading';
import type { Stretch } from './wordFeatures';

/** `due` is an ISO day, `time` a clock time where one was said, `repeat` a recurrence rule (RFC 5545, 3.3.10). */
export type Due = { due: string | null; time: string | null; repeat: string | null };

const CORRECTS = /\b(?:no|sorry|hang on|hold on|wait|i mean|make that|or rather|actually|scrap that|not)\b/iu;
const PAST = /\b(?:last|since|ago|yesterday|was|were|had|did|used to|came|went|got|told|said|asked|rang|called)\b/iu;
const MAX_TEXT = 400;
/** "First thing Monday" is one date: so many characters lie between. */
const NEAR = 4;
const DAY_MS = 86_400_000;

type Named = { day: string; time: string | null; start: number; end: number; phrase: string; isTimeOnly: boolean };

const plusDays = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);

/** Before this hour "in the morning" is still to come, from then on it is tomorrow's. Common practice, no source. */
const MORNING_ENDS = 10;
/** From this hour on "at six" is tomorrow morning's. Common practice, no source. */
const EVENING = 17;
/** Words for today that are no dates: what is meant to be done at once, or on a way that is taken today. */
const AT_ONCE =
  /\b(?:right now|now-now|just now|right away|straight away|straightaway|at once|immediately|this instant|this minute|asap|(?<!on )the day(?= because|$|[,.;]| while)|this (?:arvo|night|lunchtime|dinnertime|aft)|at (?:lunch|lunchtime|dinner time|teatime)|after lunch|before lunch|after (?:tea|dinner|work|school|this(?! \p{L})|the (?:meeting|call|lesson|class|consults|service|shift))|straight after|when i(?:'m| am| get) (?:home|back|in)(?! on)\b|as soon as i(?:'m| am| get)\b|later on|on (?:my|the|our|his|her) way (?:home|in|out|back|to)|before (?:bed|i (?:go|leave|sit down|sleep)|closing)|while (?:i'm|we're) at it|when we stop)\b|\bnow(?=$|[,.;!?]|\s(?:before|so|and|while|on|i\b))/iu;
/** "After nine", "not before eight": today's, as far as it is still to come. */
const AFTER_CLOCK =
  /\b(?:not before|after) (?:half |quarter past )?(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|noon)(?=$|[.,;!?]| (?:and|so|today|because|they|he|she))/iu;
const IN_THE_MORNING = /\b(?:(?:first thing )?in the morning|first thing|the morn)\b/iu;
const THE_NIGHT = /\b(?:overnight|during the night)\b/iu;

/** What something has to be there for: it is due by that day ("by Monday's auction", "before the Monday matinee"). */
const LIMIT = /\b(?:by|before|for|until|till|in time for)(?: (?:the|that|this|our|my|her|his))?$/iu;
/** Dates that say what something is, not when it is due: "Monday's order", "the Friday lunch". */
function isAttribute(text: string, start: number, end: number): boolean {
  const [before, phrase, after] = [text.slice(0, start).trimEnd(), text.slice(start, end), text.slice(end)];
  if (LIMIT.test(before) || /^(?:by|before|for|until|till) /i.test(phrase)) return false;
  return (
    /^'s\b/.test(after) ||
    (/\b(?:the|that|this|our|my|a|his|her|their)$/iu.test(before) &&
      /^ \p{Ll}+/u.test(after) &&
      /^(?:mon|tues|wednes|thurs|fri|satur|sun)day$/i.test(phrase))
  );
}

/** Each date that a text names, in order. Spans give their last working day, and what lies behind is tomorrow's. */
function datesIn(text: string, at: string): Named[] {
  const [today, now = '00:00'] = at.split('T') as [string, string?];
  const plain = text.slice(0, MAX_TEXT).replace(/’/g, "'");
  const found: Named[] = [];
  for (let offset = 0, i = 0; i < 5 && offset < plain.length; i++) {
    const rest = plain.slice(offset);
    const date = spokenDate(rest, at);
    if (!date || date.end <= date.start) break;
    const phrase = rest.slice(date.start, date.end);
    const [start, end] = [offset + date.start, offset + date.end];
    offset = end;
    if (isAttribute(plain, start, end)) continue;
    const [said, time = null] = date.due.split('T') as [string, string?];
    let day = said;
    const lower = phrase.toLowerCase();
    if (/\bbefore\b/.test(lower) && !time && !/\b(?:end|weekend|week|month|year)\b/.test(lower))
      day = plusDays(day, -1);
    else if (/^(?:by |before |for |sometime |some time )?next week$/.test(lower)) day = plusDays(day, 4);
    else if (/^(?:by |before |for )?next month$/.test(lower)) day = monthEnd(day);
    const isTimeOnly =
      time !== null && said === today && !/\b(?:today|tonight|this (?:morning|afternoon|evening))\b/.test(lower);
    let clock = time;
    if (isTimeOnly && time <= now) {
      // Half past nine in the evening, "at six": in the morning, unless the evening was said.
      const hour = Number(time.slice(0, 2));
      day = plusDays(today, 1);
      const isEvening = Number(now.slice(0, 2)) >= EVENING;
      if (isEvening && hour >= 13 && !/p\.?m|evening|afternoon/.test(lower))
        clock = `${String(hour - 12).padStart(2, '0')}${time.slice(2)}`;
    }
    // "Friday at midnight" is the end of that day.
    if (/midnight/.test(lower)) [day, clock] = isTimeOnly ? [plusDays(said, 1), '00:00'] : [said, '23:59'];
    found.push({ day, time: clock, start, end, phrase, isTimeOnly });
  }
  const morning = IN_THE_MORNING.exec(plain);
  const day = Number(now.slice(0, 2)) < MORNING_ENDS ? today : plusDays(today, 1);
  if (
    morning &&
    !found.some(
      (d) => d.start <= morning.index + morning[0].length + NEAR && morning.index <= d.end + NEAR && !d.isTimeOnly,
    )
  ) {
    const time = found.find((d) => d.isTimeOnly);
    if (time) time.day = day;
    else
      found.push({
        day,
        time: null,
        start: morning.index,
        end: morning.index + morning[0].length,
        phrase: morning[0],
        isTimeOnly: false,
      });
  }
  if (!found.length) {
    const soon = AT_ONCE.exec(plain) ?? THE_NIGHT.exec(plain) ?? AFTER_CLOCK.exec(plain);
    if (soon)
      found.push({
        day: today,
        time: null,
        start: soon.index,
        end: soon.index + soon[0].length,
        phrase: soon[0],
        isTimeOnly: false,
      });
  }
  return found.sort((a, b) => a.start - b.start);
}

const monthEnd = (day: string): string => {
  const [year, month] = day.split('-').map(Number) as [number, number];
  return new Date(Date.UTC(year, month, 0)).toISOString().slice(0, 10);
};

/** When a to-do is due: what its own unit says, corrected by what comes after, else what stands around it. */
export function dueOf({ reading, at }: Pick<Prepared, 'reading' | 'at'>, { from, to, head }: Stretch): Due {
  const { units } = reading;
  const text = (i: number): string => unitText(reading, units[i]!);
  const own = [
    head,
    ...Array.from({ length: to - from }, (_, k) => from + k)
      .filter((i) => i !== head)
      .sort((a, b) => Math.abs(a - head) - Math.abs(b - head) || b - a),
  ];
  for (const i of own) {
    const repeat = spokenRepeat(text(i).slice(0, MAX_TEXT), at);
    if (repeat)
      return { due: repeat.due, time: datesIn(text(i), at).find((d) => d.time)?.time ?? null, repeat: repeat.rule };
  }
  // "On Monday I have to register the kids, get the permit and ...": the day that opens a sentence is for all of it.
  const opening = units.findIndex((u) => u.sentence === units[head]!.sentence);
  const around = opening >= 0 && opening < from && !PAST.test(text(opening)) ? [opening] : [];
  // "..., all by Friday.": what ends a sentence too.
  for (let k = to; k < units.length && k < to + 2 && units[k]!.sentence === units[head]!.sentence; k++)
    if (/^(?:all|both|by|before|and all|everything)\b/i.test(text(k))) around.push(k);
  for (const i of [...own, ...around]) {
    const dates = datesIn(text(i), at);
    const [first, ...more] = dates;
    if (!first) continue;
    let last: { day: string; time: string | null; isTimeOnly: boolean } = first;
    // A bare time that follows belongs to the day that was said before it, and a day to the time before it.
    const take = (next: Named): void => {
      last = next.isTimeOnly
        ? { ...last, time: next.time }
        : { day: next.day, time: next.time ?? (last.isTimeOnly ? last.time : null), isTimeOnly: false };
    };
    let end = first.end;
    for (const next of more) {
      const between = text(i).slice(end, next.start);
      const isAlso = next.isTimeOnly !== last.isTimeOnly && between.length < 12;
      if (CORRECTS.test(between) || isAlso) take(next);
      end = next.end;
    }
    if (last.isTimeOnly) {
      // "On Tuesday, ... at quarter past three."
      const day = [...own, ...around]
        .filter((k) => k !== i)
        .flatMap((k) => datesIn(text(k), at))
        .find((d) => !d.isTimeOnly);
      if (day) last = { day: day.day, time: last.time, isTimeOnly: false };
    }
    // "..., no, hang on, Friday."
    let isCorrected = false;
    for (let k = i + 1; k < units.length && k <= i + 3 && units[k]!.speaker === units[i]!.speaker; k++) {
      const [next] = datesIn(text(k), at);
      if (text(k).length >= 60) continue;
      isCorrected ||= CORRECTS.test(next ? text(k).slice(0, next.start + 1) : text(k));
      if (next && (isCorrected || (k < to && next.isTimeOnly && !last.time))) take(next);
    }
    return { due: last.day, time: last.time, repeat: null };
  }
  return { due: null, time: null, repeat: null };
}
