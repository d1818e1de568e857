import type { Content } from 'pdfmake/interfaces';
import { pdfBytes } from '../exports/pdfMaker';
import { byFont } from '../exports/pdfFonts';

/** What a plain slide shows: a title, lines, and perhaps a picture as bytes. */
export type PlainSlide = {
  title: string;
  lines: readonly string[];
  picture?: { bytes: Buffer; type: 'png' | 'jpeg' } | null;
};

/** Of a page in points, four to three halves of a screen. */
const PAGE = { width: 720, height: 405 };
const MARGIN = 40;
const PICTURE_WIDTH = 260;
/** So many lines stand on one slide in letters of this size; more make them smaller. */
const ROOMY = { lines: 7, letters: 300, size: 25 };
const SMALLEST = 8;

const written = (text: string): Content =>
  byFont(text).map((piece) => ({ text: piece.text, ...(piece.font ? { font: piece.font } : {}) })) as Content;

/** Slides in a layout of our own, each on a page; what does not fit is cut off at its foot. */
export function plainSlidesPdf(slides: readonly PlainSlide[], foot = ''): Promise<Buffer> {
  return pdfBytes({
    pageSize: PAGE,
    pageMargins: [MARGIN, 34, MARGIN, 34],
    defaultStyle: { font: 'Atkinson', fontSize: ROOMY.size, lineHeight: 1.25 },
    footer: (): Content => ({ text: foot, fontSize: 8, color: '#5A6766', margin: [MARGIN, 8, MARGIN, 0] }),
    content: slides.map((slide, i): Content => ({
      stack: [
        { text: written(slide.title), font: 'Literata', fontSize: 36, bold: true, margin: [0, 0, 0, 18] },
        bodyOf(slide),
      ],
      ...(i > 0 ? { pageBreak: 'before' as const } : {}),
    })),
  });
}

function bodyOf({ lines, picture }: PlainSlide): Content {
  const letters = lines.reduce((sum, line) => sum + line.length, 0);
  const shrink = Math.max(1, Math.sqrt(letters / ROOMY.letters), lines.length / ROOMY.lines);
  const fontSize = Math.max(SMALLEST, ROOMY.size / shrink);
  const text: Content = {
    stack: lines.map((line): Content => ({ text: written(line), margin: [0, 0, 0, 6 / shrink] })),
    fontSize,
  };
  if (!picture) return text;
  const image = `data:image/${picture.type};base64,${picture.bytes.toString('base64')}`;
  return { columns: [text, { image, fit: [PICTURE_WIDTH, 280], width: PICTURE_WIDTH }], columnGap: 20 };
}
