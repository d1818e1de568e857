import {
  type Aside,
  type Block,
  type Item,
  type Run,
  type ExportDocument,
  plainRuns,
} from '@immeld/core/exports/exportDocument';
import { PRINT_TONES } from '@immeld/core/exports/documentHtml';
import {
  AlignmentType,
  BorderStyle,
  CheckBox,
  CommentRangeEnd,
  CommentRangeStart,
  CommentReference,
  Document,
  ExternalHyperlink,
  FootnoteReferenceRun,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Packer,
  PageBreak,
  Paragraph,
  type ParagraphChild,
  ShadingType,
  Table,
  TableCell,
  TableLayoutType,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import type { PagePicture } from './pagePictures';

const HEADINGS = { 1: HeadingLevel.HEADING_1, 2: HeadingLevel.HEADING_2, 3: HeadingLevel.HEADING_3 } as const;
/** Text width of an A4 page with the margins below, in pixels of 1/96 inch. */
const WIDEST_PX = 605;
const TALLEST_PX = 760;
const RTL = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]/;
/** Characters that XML 1.0 cannot hold. */

const UNWRITABLE =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

const clean = (text: string): string => text.replace(UNWRITABLE, '');

/**
 * A sheet as a Word document (Office Open XML): real headings, lists, check boxes, footnotes and tables; what stands in the
 * margin is a comment at its words.
 */
export async function docxFile(sheet: ExportDocument, pictures: ReadonlyMap<string, PagePicture>): Promise<Buffer> {
  const comments: { id: number; author: string; children: Paragraph[] }[] = [];
  const children: (Paragraph | Table)[] = [];
  if (sheet.hasHeader) children.push(...header(sheet));
  const blocks = [...sheet.blocks];
  for (let i = 0; i < blocks.length; i++) {
    const block = blocks[i]!;
    if (block.kind !== 'paragraph') {
      children.push(...blockChildren(block, pictures));
      continue;
    }
    // What stands in the margin of a paragraph follows it.
    const beside: Aside[] = [];
    for (let next = blocks[i + 1]; next?.kind === 'aside'; next = blocks[i + 1]) {
      beside.push(next.aside);
      i++;
    }
    const ids = beside.map((aside) => {
      comments.push({ id: comments.length, author: 'Immeld', children: asideParagraphs(aside) });
      return comments.length - 1;
    });
    children.push(
      paragraphOf(block.runs, {
        lead: block.lead,
        before: ids.map((id) => new CommentRangeStart(id)),
        after: [
          ...ids.flatMap((id) => [new CommentRangeEnd(id), new TextRun({ children: [new CommentReference(id)] })]),
          ...block.notes.map((n) => new FootnoteReferenceRun(n)),
        ],
      }),
      ...beside.flatMap((a) => (a.pictureId ? pictureParagraphs(a.pictureId, a.text || a.label, pictures) : [])),
    );
  }
  const document = new Document({
    title: clean(sheet.title),
    creator: 'Immeld',
    styles: {
      default: {
        document: {
          run: { font: 'Georgia', size: 22, language: { value: sheet.language } },
          paragraph: { spacing: { after: 160, line: 300 } },
        },
        heading1: { run: { size: 36, bold: true }, paragraph: { spacing: { before: 320, after: 120 } } },
        heading2: { run: { size: 28, bold: true }, paragraph: { spacing: { before: 280, after: 100 } } },
        heading3: { run: { size: 24, bold: true }, paragraph: { spacing: { before: 240, after: 80 } } },
      },
    },
    numbering: {
      config: [
        {
          reference: 'numbers',
          levels: [0, 1, 2, 3, 4].map((level) => ({
            ...{ level, format: LevelFormat.DECIMAL, text: `%${level + 1}.`, alignment: AlignmentType.START },
            style: { paragraph: { indent: { left: 480 * (level + 1), hanging: 360 } } },
          })),
        },
      ],
    },
    footnotes: Object.fromEntries(sheet.footnotes.map((note, i) => [i + 1, { children: asideParagraphs(note) }])),
    comments: { children: comments },
    sections: [{ properties: { page: { size: { width: 11906, height: 16838 } } }, children }],
  });
  return Packer.toBuffer(document);
}

const header = ({ title, facts, hasTitlePage }: ExportDocument): Paragraph[] => [
  new Paragraph({ heading: HeadingLevel.TITLE, bidirectional: RTL.test(title), children: textRuns({ text: title }) }),
  ...facts.map((f) => new Paragraph({ children: [new TextRun({ text: clean(f), color: '5A6766', size: 18 })] })),
  ...(hasTitlePage ? [new Paragraph({ children: [new PageBreak()] })] : []),
];

/** The words in their look, a line break between lines. */
const textRuns = ({ text, isBold, isItalic, tone }: Run): TextRun[] =>
  clean(text)
    .split('\n')
    .map(
      (line, i) =>
        new TextRun({
          text: line,
          ...(i ? { break: 1 } : {}),
          ...(isBold ? { bold: true } : {}),
          ...(isItalic ? { italics: true } : {}),
          ...(RTL.test(text) ? { rightToLeft: true } : {}),
          ...(tone
            ? { shading: { type: ShadingType.CLEAR, color: 'auto', fill: PRINT_TONES[tone].wash.slice(1) } }
            : {}),
        }),
    );

const runChildren = (run: Run): ParagraphChild[] =>
  run.address
    ? [
        new ExternalHyperlink({
          link: run.address,
          children: [new TextRun({ text: clean(run.text), style: 'Hyperlink' })],
        }),
      ]
    : textRuns(run);

type ParagraphParts = { lead?: string; before?: ParagraphChild[]; after?: ParagraphChild[]; indent?: number };

function paragraphOf(
  runs: readonly Run[],
  { lead = '', before = [], after = [], indent = 0 }: ParagraphParts = {},
): Paragraph {
  return new Paragraph({
    bidirectional: RTL.test(runs[0]?.text.slice(0, 40) ?? ''),
    ...(indent ? { indent: { left: indent } } : {}),
    children: [
      ...before,
      ...(lead ? textRuns({ text: lead, isBold: true }) : []),
      ...runs.flatMap(runChildren),
      ...after,
    ],
  });
}

const asideParagraphs = ({ label, text, address, comments }: Aside): Paragraph[] => [
  paragraphOf([
    { text: text || address ? `${label}: ` : label, isBold: true },
    { text },
    ...(address ? [{ text: ` ${address}`, address }] : []),
  ]),
  ...comments.map((c) => paragraphOf([{ text: `– ${c}` }])),
];

function itemParagraph({ runs, box, depth }: Item, isNumbered: boolean): Paragraph {
  const level = Math.min(depth, 4);
  if (box !== null) {
    return new Paragraph({
      indent: { left: 360 + 480 * level, hanging: 360 },
      children: [
        new CheckBox({ checked: box, checkedState: { value: '2612' }, uncheckedState: { value: '2610' } }),
        new TextRun({ text: ' ' }),
        ...runs.flatMap(runChildren),
      ],
    });
  }
  return new Paragraph({
    ...(isNumbered ? { numbering: { reference: 'numbers', level } } : { bullet: { level } }),
    children: runs.flatMap(runChildren),
  });
}

function pictureParagraphs(id: string, alt: string, pictures: ReadonlyMap<string, PagePicture>): Paragraph[] {
  const picture = pictures.get(id);
  if (!picture) return [paragraphOf([{ text: alt || 'Picture', isItalic: true }])];
  const scale = Math.min(1, WIDEST_PX / picture.width, TALLEST_PX / picture.height);
  return [
    new Paragraph({
      children: [
        new ImageRun({
          type: picture.type,
          data: picture.bytes,
          transformation: { width: Math.round(picture.width * scale), height: Math.round(picture.height * scale) },
          altText: { title: clean(alt), description: clean(alt), name: clean(alt) || 'Picture' },
        }),
      ],
    }),
  ];
}

/** Between the margins of an A4 page, in twentieths of a point. */
const TABLE_WIDTH = 9026;
/** No column takes less than this of the width, nor counts for more letters than a line has. */
const MIN_SHARE = 0.12;
const MAX_CELL = 60;

/** Widths by what stands in the columns, so that a name does not take as much room as a sentence. */
function columnWidths(rows: Extract<Block, { kind: 'table' }>['rows']): number[] {
  const count = Math.max(...rows.map((r) => r.length));
  const letters = Array.from({ length: count }, (_, column) =>
    Math.max(1, ...rows.map((r) => Math.min(MAX_CELL, plainRuns(r[column] ?? []).length))),
  );
  const all = letters.reduce((sum, n) => sum + n, 0);
  const shares = letters.map((n) => Math.max(n / all, MIN_SHARE));
  const sum = shares.reduce((a, b) => a + b, 0);
  return shares.map((share) => Math.round((share / sum) * TABLE_WIDTH));
}

const LINE = { style: BorderStyle.SINGLE, size: 4, color: 'DAD4C5' };

function blockChildren(
  block: Exclude<Block, { kind: 'paragraph' }>,
  pictures: ReadonlyMap<string, PagePicture>,
): (Paragraph | Table)[] {
  switch (block.kind) {
    case 'heading':
      return [new Paragraph({ heading: HEADINGS[block.level], children: textRuns({ text: block.text }) })];
    case 'quote':
      return [paragraphOf(block.runs, { indent: 480 })];
    case 'list':
      return block.items.map((item) => itemParagraph(item, block.isNumbered));
    case 'table':
      if (block.rows.length === 0) return [];
      return [
        new Table({
          width: { size: TABLE_WIDTH, type: WidthType.DXA },
          columnWidths: columnWidths(block.rows),
          layout: TableLayoutType.FIXED,
          borders: { top: LINE, bottom: LINE, left: LINE, right: LINE, insideHorizontal: LINE, insideVertical: LINE },
          rows: block.rows.map(
            (row, i) =>
              new TableRow({
                ...(block.hasHeader && i === 0 ? { tableHeader: true } : {}),
                children: row.map(
                  (cell, column) =>
                    new TableCell({
                      width: { size: columnWidths(block.rows)[column]!, type: WidthType.DXA },
                      margins: { top: 40, bottom: 40, left: 80, right: 80 },
                      children: [
                        paragraphOf(block.hasHeader && i === 0 ? cell.map((r) => ({ ...r, isBold: true })) : cell),
                      ],
                    }),
                ),
              }),
          ),
        }),
        new Paragraph({ children: [] }),
      ];
    case 'aside':
      return [
        ...asideParagraphs(block.aside),
        ...(block.aside.pictureId ? pictureParagraphs(block.aside.pictureId, block.aside.text, pictures) : []),
      ];
    case 'picture':
      return pictureParagraphs(block.pictureId, block.alt, pictures);
  }
}
