/** What a person typed into the find bar, taken apart. */
export type FindFilters = {
  /** Names of people; each has to be there. */
  people: string[];
  tags: string[];
  /** Name of a folder; what lies in folders inside it counts too. */
  folders: string[];
  /** Days as `2026-05-12`: recorded before this day, and on it or after it. */
  before: string | null;
  after: string | null;
  has: HasFilter[];
};
export const HAS_FILTERS = ['todo', 'mark', 'note', 'picture', 'file'] as const;
export type HasFilter = (typeof HAS_FILTERS)[number];

/** Words that have to be there (several in one entry stand together) and words that must not. */
export type FindQuery = { required: string[][]; excluded: string[][]; filters: FindFilters };

const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

export const noFilters = (): FindFilters => ({
  ...{ people: [], tags: [], folders: [], before: null, after: null, has: [] },
});

export const hasFilters = (f: FindFilters): boolean =>
  f.people.length + f.tags.length + f.folders.length + f.has.length > 0 || f.before !== null || f.after !== null;

const DAY = /^(\d{4})(?:-(\d{1,2}))?(?:-(\d{1,2}))?$/;

/** `2026`, `2026-05` or `2026-05-12` as the first day of it; null for what is no date. */
export function firstDayOf(text: string): string | null {
  const match = DAY.exec(text.trim());
  if (!match) return null;
  const [, year, month = '1', day = '1'] = match;
  const date = `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  const real = new Date(`${date}T00:00:00Z`);
  return !Number.isNaN(real.getTime()) && real.toISOString().startsWith(date) ? date : null;
}

function takeFilter(filters: FindFilters, name: string, value: string): boolean {
  switch (name) {
    case 'person':
      filters.people.push(value);
      return true;
    case 'tag':
      filters.tags.push(value);
      return true;
    case 'in':
      filters.folders.push(value);
      return true;
    case 'before':
    case 'after': {
      const day = firstDayOf(value);
      if (day) filters[name] = day;
      return day !== null;
    }
    case 'has': {
      const kind = HAS_FILTERS.find((k) => k === value.toLowerCase().replace(/-|s$/g, ''));
      if (kind) filters.has.push(kind);
      return kind !== undefined;
    }
    default:
      return false;
  }
}

/** In characters; what is pasted by mistake is cut. */
const MAX_QUERY = 1000;
const MAX_WORDS = 24;

const PIECE =
  /(?:(person|tag|in|before|after|has):(?:"([^"]*)"?|“([^”]*)”?|(\S+))|(-?)(?:"([^"]*)"?|“([^”]*)”?|(\S+)))/giu;

/**
 * Words, "words in quotes" that stand together, words with a minus that must not occur, and filters such as
 * `person:Bram tag:"field work" in:Home before:2026-05 after:2026-01-15 has:todo`. What is no filter after all is words.
 */
export function parseQuery(typed: string): FindQuery {
  const query: FindQuery = { required: [], excluded: [], filters: noFilters() };
  for (const match of typed.slice(0, MAX_QUERY).matchAll(PIECE)) {
    const [whole, name, quoted, curly, bare, minus, phraseQuoted, phraseCurly, word] = match;
    if (name) {
      const value = (quoted ?? curly ?? bare ?? '').trim();
      if (value && takeFilter(query.filters, name.toLowerCase(), value)) continue;
      query.required.push(...wordsIn(whole).map((w) => [w]));
      continue;
    }
    const phrase = phraseQuoted ?? phraseCurly;
    const words = wordsIn(phrase ?? word ?? '');
    if (words.length === 0) continue;
    if (minus) query.excluded.push(words);
    else if (phrase !== undefined) query.required.push(words);
    else query.required.push(...words.map((w) => [w]));
  }
  query.required = eachOnce(query.required);
  query.excluded = eachOnce(query.excluded);
  return query;
}

/** What is asked for twice is asked for once; words beyond the first make no query better. */
const eachOnce = (words: readonly string[][]): string[][] =>
  [...new Map(words.map((w) => [w.join(' '), w])).values()].slice(0, MAX_WORDS);

/** Filters as they are typed, so that chips can put them into the find bar. */
export function writeFilters(filters: FindFilters): string {
  const quoted = (value: string) => (/[\s"]/.test(value) ? `"${value.replaceAll('"', '')}"` : value);
  return [
    ...filters.people.map((p) => `person:${quoted(p)}`),
    ...filters.tags.map((t) => `tag:${quoted(t)}`),
    ...filters.folders.map((f) => `in:${quoted(f)}`),
    ...(filters.after ? [`after:${filters.after}`] : []),
    ...(filters.before ? [`before:${filters.before}`] : []),
    ...filters.has.map((h) => `has:${h}`),
  ].join(' ');
}

/** The words of a query as they are typed, without its filters. */
export function writeWords({ required, excluded }: FindQuery): string {
  const written = (words: string[]) => (words.length > 1 ? `"${words.join(' ')}"` : words[0]!);
  return [...required.map(written), ...excluded.map((w) => `-${written(w)}`)].join(' ');
}

/** What else a word may have become: other spellings, or two words that belong together, each as words in a row. */
export type Variants = (word: string) => readonly string[][];

const quoteFts = (words: readonly string[]): string => `"${words.join(' ')}"`;

/**
 * The query in SQLite's FTS5 syntax ("Full-text Query Syntax" of its documentation), or null when no word is asked for.
 * Every word is quoted, so nothing typed is taken for syntax; the last word also finds what it begins. Two neighbours
 * are also found written as one, and a word in any of its variants.
 */
export function toFts5(query: Pick<FindQuery, 'required' | 'excluded'>, variants: Variants = () => []): string | null {
  const { required } = query;
  if (required.length === 0) return null;
  const isLastWord = (i: number) => i === required.length - 1 && required[i]!.length === 1;
  const one = (words: string[], i: number): string => {
    const self = quoteFts(words) + (isLastWord(i) ? '*' : '');
    const others = words.length === 1 ? variants(words[0]!) : [];
    return others.length ? `(${[self, ...others.map(quoteFts)].join(' OR ')})` : self;
  };
  const parts = required.map(one);
  const joined = required.slice(1).flatMap((words, k) => {
    const before = required[k]!;
    if (words.length > 1 || before.length > 1) return [];
    const rest = parts.filter((_, i) => i !== k && i !== k + 1);
    return [[...rest, quoteFts([before[0]! + words[0]!])].join(' AND ')];
  });
  const all = [parts.join(' AND '), ...joined];
  const asked = all.length > 1 ? all.map((a) => `(${a})`).join(' OR ') : all[0]!;
  const excluded = query.excluded.map((words) => ` NOT ${quoteFts(words)}`).join('');
  return `(${asked})${excluded}`;
}
