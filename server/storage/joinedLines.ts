/**
 * The text of a page as one reads it: one blank between words, none behind a hyphen at the end of a line. The hyphen
 * stays: whether it belongs to the word ("silver-lime") or only to the line cannot be told.
 */
export const joinedLines = (text: string): string =>
  text
    .replace(/(?<=\p{L}-)[ \t]*\n\s*(?=\p{Ll})/gu, '')
    .replace(/[ \t]+/g, ' ')
    .trim();
