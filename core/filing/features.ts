import { topicStems } from '../language/words';

/** What is known of a recording when it is filed. */
export type Filed = {
  text: string;
  /** Local date and time. */
  startedAt: string;
  source: string;
  people: readonly string[];
  /** Title of the appointment during which it was made. */
  appointment: string | null;
  /** Latitude and longitude in degrees, as its file states them. */
  place: string | null;
};

const HOURS_TOGETHER = 3;
/** About a kilometre. */
const PLACE_DIGITS = 2;

/**
 * A recording as a set of features: stems of what was said, and from where, when, with whom and during what it was
 * made. Features that are no words begin with @.
 */
export function featuresOf({ text, startedAt, source, people, appointment, place }: Filed): Set<string> {
  const features = new Set(topicStems(text));
  const date = new Date(`${startedAt.slice(0, 10)}T00:00:00Z`);
  const hour = Number(startedAt.slice(11, 13));
  if (!Number.isNaN(date.getTime())) {
    features.add(`@hours ${Math.floor(hour / HOURS_TOGETHER)}`);
    features.add(`@day ${date.getUTCDay()}`);
  }
  features.add(`@source ${source}`);
  for (const person of people) features.add(`@person ${person.toLowerCase()}`);
  for (const stem of topicStems(appointment ?? '')) features.add(`@appointment ${stem}`);
  const degrees = place?.match(/-?\d+(?:\.\d+)?/g)?.map((d) => Number(d).toFixed(PLACE_DIGITS));
  if (degrees?.length) features.add(`@place ${degrees.join(' ')}`);
  return features;
}

const HABIT = /^@(?:hours|day|source)/;

/** What a recording is about, without when and from where it was made. */
export function withoutHabit(features: ReadonlySet<string>): Set<string> {
  return new Set([...features].filter((f) => !HABIT.test(f)));
}
