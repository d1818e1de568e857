/** What a person typed into the find bar, taken apart. */
export type FindQuery = { required: string[][]; excluded: string[][] };

const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** Words, "words in quotes" that stand together, and words with a minus that must not occur. */
export function parseQuery(typed: string): FindQuery {
  const query: FindQuery = { required: [], excluded: [] };
  for (const match of typed.matchAll(/(-?)(?:"([^"]*)"?|“([^”]*)”?|(\S+))/g)) {
    const phrase = match[2] ?? match[3];
    const words = wordsIn(phrase ?? match[4] ?? '');
    if (words.length === 0) continue;
    const into = match[1] ? query.excluded : query.required;
    if (phrase !== undefined) into.push(words);
    else if (match[1]) into.push(words);
    else into.push(...words.map((w) => [w]));
  }
  return query;
}

/**
 * The query in SQLite's FTS5 syntax ("Full-text Query Syntax" of its documentation), or null when nothing is asked.
 * Every word is quoted, so nothing typed is taken for syntax; the last word also finds what it begins.
 */
export function toFts5(query: FindQuery): string | null {
  if (query.required.length === 0) return null;
  const quoted = (words: string[]) => `"${words.join(' ')}"`;
  const required = query.required
    .map((words, i) => quoted(words) + (i === query.required.length - 1 && words.length === 1 ? '*' : ''))
    .join(' AND ');
  const excluded = query.excluded.map((words) => ` NOT ${quoted(words)}`).join('');
  return `(${required})${excluded}`;
}
