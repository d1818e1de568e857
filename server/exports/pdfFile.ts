import {
  type Aside,
  type Block,
  type Item,
  type Run,
  type ExportDocument,
  plainRuns,
} from '@immeld/core/exports/exportDocument';
import { PRINT_TONES } from '@immeld/core/exports/documentHtml';
import type { CanvasPolyline, Column, Content, ContentText, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { PagePicture } from './pagePictures';
import { type PdfFont, byFont } from './pdfFonts';
import { pdfBytes } from './pdfMaker';
import { isRightToLeft, linesForPaper } from './rightToLeft';

/** Text width of A4 with the margins below, in points. */
const WIDTH_PT = 482;
const TALLEST_PT = 600;
/** Letters in a line of text that goes from right to left. */
const RTL_LINE = 78;
const FAINT = '#5A6766';
const RULE = '#DAD4C5';

/** A sheet as a PDF with the typefaces that ship; headings are its bookmarks. */
export async function pdfFile(sheet: ExportDocument, pictures: ReadonlyMap<string, PagePicture>): Promise<Buffer> {
  const definition: TDocumentDefinitions = {
    info: { title: sheet.title, creator: 'Immeld', producer: 'Immeld' },
    ...{ pageSize: 'A4', pageMargins: [56, 62, 56, 68], language: sheet.language },
    defaultStyle: { font: 'Literata', fontSize: 11, lineHeight: 1.3 },
    content: [...header(sheet), ...withHeadingsKept(sheet.blocks, pictures), ...footnotes(sheet.footnotes, pictures)],
    footer: (page: number, pages: number): Content =>
      pages > 1
        ? {
            text: `${page} / ${pages}`,
            alignment: 'center',
            font: 'Atkinson',
            fontSize: 8,
            color: FAINT,
            margin: [0, 24, 0, 0],
          }
        : '',
  };
  return pdfBytes(definition);
}

/** A heading stays with what follows it, as long as that is not longer than a part of a page. */
const MAX_KEPT = 900;

function withHeadingsKept(blocks: readonly Block[], pictures: ReadonlyMap<string, PagePicture>): Content[] {
  const contents: Content[] = [];
  for (let i = 0; i < blocks.length; i++) {
    if (blocks[i]!.kind !== 'heading') {
      contents.push(...blockContent(blocks[i]!, pictures));
      continue;
    }
    const kept = blockContent(blocks[i]!, pictures);
    while (blocks[i + 1]?.kind === 'heading') kept.push(...blockContent(blocks[++i]!, pictures));
    const next = blocks[i + 1];
    if (next && lengthOf(next) <= MAX_KEPT) {
      kept.push(...blockContent(next, pictures));
      i++;
    }
    contents.push(kept.length > 1 ? { stack: kept, unbreakable: true } : kept[0]!);
  }
  return contents;
}

/** Letters of a block; one that is too long to be kept whole counts as endless. */
function lengthOf(block: Block): number {
  if (block.kind === 'paragraph' || block.kind === 'quote') return plainRuns(block.runs).length;
  if (block.kind === 'list') return block.items.reduce((sum, item) => sum + plainRuns(item.runs).length + 60, 0);
  return Infinity;
}

const bookmark = (text: string, style: Partial<ContentText>): Content =>
  ({ text: pieces({ text }), outline: true, outlineText: text, ...style }) as Content;

const header = ({ title, facts, hasHeader, hasTitlePage }: ExportDocument): Content[] =>
  hasHeader
    ? [
        {
          text: pieces({ text: title }),
          fontSize: 20,
          bold: true,
          lineHeight: 1.15,
          margin: [0, hasTitlePage ? 220 : 0, 0, 4],
        },
        ...facts.map((f): Content => ({
          text: pieces({ text: f }),
          font: 'Atkinson',
          fontSize: 9,
          color: FAINT,
          margin: [0, 0, 0, 12],
        })),
        ...(hasTitlePage ? [{ text: '', pageBreak: 'after' } as Content] : []),
      ]
    : [];

/** A run in stretches of one typeface. */
function pieces({ text, isBold, isItalic, tone, address }: Run): ContentText[] {
  return byFont(text).map(({ text: piece, font }) => ({
    text: piece,
    ...(font ? { font: font satisfies PdfFont } : {}),
    ...(isBold ? { bold: true } : {}),
    ...(isItalic ? { italics: true } : {}),
    ...(tone ? { background: PRINT_TONES[tone].wash } : {}),
    ...(address ? { link: address, color: '#1F5A5E', decoration: 'underline' as const } : {}),
  }));
}

function textContent(runs: readonly Run[], style: Partial<ContentText> = {}): Content {
  const text = plainRuns(runs);
  if (!isRightToLeft(text)) return { text: runs.flatMap(pieces), margin: [0, 0, 0, 7], ...style } as Content;
  return {
    stack: linesForPaper(text, RTL_LINE).map(({ text: line, isRight }) => ({
      text: pieces({ text: line }),
      alignment: isRight ? ('right' as const) : ('left' as const),
    })),
    margin: style.margin ?? [0, 0, 0, 7],
  };
}

function asideContent(
  { label, text, address, comments, pictureId }: Aside,
  pictures: ReadonlyMap<string, PagePicture>,
): Content[] {
  return [
    textContent(
      [
        { text: text || address ? `${label}: ` : label, isBold: true },
        { text },
        ...(address ? [{ text: ` ${address}`, address }] : []),
      ],
      { fontSize: 9.5, margin: [0, 0, 0, 2] },
    ),
    ...comments.map((c) => textContent([{ text: `– ${c}` }], { fontSize: 9.5, margin: [8, 0, 0, 2] })),
    ...(pictureId ? pictureContent(pictureId, text || label, pictures) : []),
  ];
}

/** Beside a line, as in a margin. */
const beside = (content: Content[]): Content => ({
  table: { widths: [WIDTH_PT - 40], body: [[{ stack: content }]] },
  layout: {
    ...{ hLineWidth: () => 0, vLineWidth: (i: number) => (i === 0 ? 1.2 : 0), vLineColor: () => RULE },
    ...{ paddingLeft: () => 9, paddingTop: () => 0, paddingBottom: () => 0 },
  },
  margin: [22, 0, 0, 8],
});

function pictureContent(id: string, alt: string, pictures: ReadonlyMap<string, PagePicture>): Content[] {
  const picture = pictures.get(id);
  if (!picture) return [textContent([{ text: alt || 'Picture', isItalic: true }])];
  return [
    {
      image: `data:image/${picture.type === 'jpg' ? 'jpeg' : 'png'};base64,${picture.bytes.toString('base64')}`,
      fit: [Math.min(WIDTH_PT - 60, picture.width * 0.75), Math.min(TALLEST_PT, picture.height * 0.75)],
      margin: [0, 2, 0, 8],
    },
  ];
}

/** A box that is drawn, as few typefaces have one. */
const checkBox = (isTicked: boolean): Content & { width: number } => ({
  canvas: [{ type: 'rect', x: 0, y: 3, w: 8, h: 8, lineWidth: 0.8, lineColor: '#1E2A2B' }, ...(isTicked ? [TICK] : [])],
  width: 14,
});
const TICK: CanvasPolyline = {
  ...{ type: 'polyline', lineWidth: 1.2, lineColor: '#1E2A2B' },
  points: [
    { x: 1.5, y: 7 },
    { x: 3.5, y: 9 },
    { x: 7, y: 4.5 },
  ],
};

function listContent(items: readonly Item[], isNumbered: boolean): Content {
  const counters: number[] = [];
  return {
    stack: items.map(({ runs, box, depth }): Content => {
      counters.length = depth + 1;
      counters[depth] = (counters[depth] ?? 0) + 1;
      const mark: Column =
        box !== null ? checkBox(box) : { text: isNumbered ? `${counters[depth]}.` : '•', width: isNumbered ? 20 : 14 };
      return {
        columns: [mark, { stack: [textContent(runs, { margin: [0, 0, 0, 3] })], width: '*' }],
        margin: [4 + depth * 16, 0, 0, 0],
      };
    }),
    margin: [0, 0, 0, 6],
  };
}

function blockContent(block: Block, pictures: ReadonlyMap<string, PagePicture>): Content[] {
  switch (block.kind) {
    case 'heading':
      return [
        bookmark(block.text, {
          ...{ bold: true, fontSize: { 1: 17, 2: 14, 3: 12 }[block.level], lineHeight: 1.2 },
          ...{
            margin: [0, block.level === 3 ? 8 : 14, 0, 4] as [number, number, number, number],
            headlineLevel: block.level,
          },
        }),
      ];
    case 'paragraph': {
      const notes = block.notes.map((n): Run => ({ text: `[${n}]` }));
      return [textContent([...(block.lead ? [{ text: block.lead, isBold: true }] : []), ...block.runs, ...notes])];
    }
    case 'quote':
      return [beside([textContent(block.runs, { margin: [0, 0, 0, 2] })])];
    case 'list':
      return [listContent(block.items, block.isNumbered)];
    case 'table':
      return block.rows.length
        ? [
            {
              table: {
                headerRows: block.hasHeader ? 1 : 0,
                widths: block.rows[0]!.map((_, i) => (i === 1 || block.rows[0]!.length < 3 ? '*' : 'auto')),
                body: block.rows.map((row, i) =>
                  row.map((cell) => ({
                    text: cell.flatMap(pieces),
                    ...(block.hasHeader && i === 0 ? { bold: true } : {}),
                  })),
                ),
              },
              layout: { hLineColor: () => RULE, vLineColor: () => RULE, hLineWidth: () => 0.6, vLineWidth: () => 0.6 },
              margin: [0, 2, 0, 10],
            },
          ]
        : [];
    case 'aside':
      return [beside(asideContent(block.aside, pictures))];
    case 'picture':
      return pictureContent(block.pictureId, block.alt, pictures);
  }
}

const footnotes = (notes: readonly Aside[], pictures: ReadonlyMap<string, PagePicture>): Content[] =>
  notes.length
    ? [
        {
          canvas: [{ type: 'line', x1: 0, y1: 0, x2: 120, y2: 0, lineWidth: 0.6, lineColor: FAINT }],
          margin: [0, 12, 0, 8],
        },
        ...notes.map((note, i): Content => ({
          columns: [
            { text: `[${i + 1}]`, width: 26, fontSize: 9.5 },
            { stack: asideContent(note, pictures), width: '*' },
          ],
        })),
      ]
    : [];
