import bidiFactory from 'bidi-js';

const bidi = bidiFactory();
const RTL = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]/;

export const isRightToLeft = (text: string): boolean => RTL.test(text);

/**
 * Words of a paragraph in the order in which they stand on paper, for a page maker that only goes from left to right:
 * Unicode Bidirectional Algorithm (UAX #9) on each line of at most `width` characters. Letters inside a word stay in the
 * order in which they are read where the page maker shapes them itself.
 */
export function linesForPaper(text: string, width: number): { text: string; isRight: boolean }[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/)) {
    if (line && line.length + word.length + 1 > width) {
      lines.push(line);
      line = '';
    }
    line += (line ? ' ' : '') + word;
  }
  if (line) lines.push(line);
  const isRight = bidi.getEmbeddingLevels(text).paragraphs[0]?.level === 1;
  return lines.map((logical) => ({ text: visual(logical, isRight ? 'rtl' : 'ltr'), isRight }));
}

/** Words in visual order: whole words are moved, as shaping turns the letters of each. */
function visual(line: string, base: 'rtl' | 'ltr'): string {
  const words = line.split(' ');
  const levels = bidi.getEmbeddingLevels(line, base).levels;
  let at = 0;
  const items = words.map((word) => {
    const level = levels[at + Math.floor(word.length / 2)] ?? 0;
    at += word.length + 1;
    return { word, level };
  });
  const highest = Math.max(...items.map((i) => i.level));
  // Rule L2: from the highest level down to 1, what stands at that level or above is turned round.
  for (let level = highest; level >= 1; level--) {
    for (let start = 0; start < items.length; start++) {
      if (items[start]!.level < level) continue;
      let end = start;
      while (end < items.length && items[end]!.level >= level) end++;
      items.splice(start, end - start, ...items.slice(start, end).reverse());
      start = end;
    }
  }
  return items.map((i) => i.word).join(' ');
}
