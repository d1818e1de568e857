import type { SlideWords } from './placeSlides';

/** Letters of one slide that are kept; a page of a book has 3,000. */
export const MAX_SLIDE_TEXT = 10_000;
export const MAX_SLIDE_TITLE = 200;
/** A line is the title where its letters are nearly as high as the highest ones. */
const TITLE_SHARE = 0.9;

/** One run of letters: what it says, how high its letters are in points, and whether its line ends with it. */
export type TextRun = { text: string; height: number; endsLine: boolean };

/** Runs of letters as pdfjs gives them; marks of structure are left out. */
export const runsOfPdf = (items: readonly object[]): TextRun[] =>
  (items as readonly { str?: string; height?: number; hasEOL?: boolean }[]).flatMap(({ str, height = 0, hasEOL }) =>
    str === undefined ? [] : [{ text: str, height, endsLine: hasEOL === true }],
  );

/**
 * A slide by the letters of its page; the largest ones make its title.
 * @param number of the page, from 1, which is its name where it has no words
 */
export function slideOf(runs: readonly TextRun[], number: number): SlideWords {
  const lines: { text: string; height: number }[] = [];
  let open = { text: '', height: 0 };
  for (const { text, height, endsLine } of runs) {
    open.text += text;
    if (text.trim()) open.height = Math.max(open.height, height);
    if (!endsLine) continue;
    lines.push(open);
    open = { text: '', height: 0 };
  }
  lines.push(open);
  const written = lines.map((l) => ({ ...l, text: l.text.replace(/\s+/g, ' ').trim() })).filter((l) => l.text);
  const highest = Math.max(0, ...written.map((l) => l.height));
  const first = written.findIndex((l) => l.height >= highest * TITLE_SHARE);
  const title: string[] = [];
  // A title may take two lines.
  for (const line of first < 0 ? [] : written.slice(first, first + 2))
    if (line.height >= highest * TITLE_SHARE) title.push(line.text);
    else break;
  return {
    title: title.join(' ').slice(0, MAX_SLIDE_TITLE) || `Slide ${number}`,
    text: written
      .map((l) => l.text)
      .join('\n')
      .slice(0, MAX_SLIDE_TEXT),
  };
}
