import { markdownText as plain } from '../formats/markdownText';
import { type Aside, type Item, type Run, type ExportDocument, plainRuns } from './exportDocument';

/**
 * A sheet as Markdown (CommonMark; tables, task lists and footnotes as in GFM).
 * @param pictures addresses of the pictures by their ids; what has none is named only
 */
export function documentMarkdown(sheet: ExportDocument, pictures: ReadonlyMap<string, string> = new Map()): string {
  const out: string[] = sheet.hasHeader ? [`# ${plain(sheet.title)}`, ...sheet.facts.map(plain)] : [];
  const picture = (id: string, alt: string) =>
    pictures.has(id) ? `![${plain(alt)}](<${pictures.get(id)!}>)` : `*${plain(alt || 'Picture')}*`;
  const aside = ({ label, text, address, comments, pictureId }: Aside): string[] => [
    `**${plain(label)}**${text ? `: ${plain(text)}` : ''}${address ? ` <${address}>` : ''}`,
    ...comments.map((c) => `- ${plain(c)}`),
    ...(pictureId ? [picture(pictureId, text || label)] : []),
  ];
  for (const block of sheet.blocks) {
    switch (block.kind) {
      case 'heading':
        out.push(`${'#'.repeat(block.level)} ${plain(block.text)}`);
        break;
      case 'paragraph': {
        const lead = block.lead.trim() ? `**${plain(block.lead.trim())}** ` : '';
        out.push(`${lead}${runsMarkdown(block.runs)}${block.notes.map((n) => `[^${n}]`).join('')}`);
        break;
      }
      case 'quote':
        out.push(`> ${runsMarkdown(block.runs)}`);
        break;
      case 'list':
        out.push(block.items.map((item, i) => itemMarkdown(item, block.isNumbered ? `${i + 1}.` : '-')).join('\n'));
        break;
      case 'table': {
        const rows = block.rows.map((row) => `| ${row.map((cell) => plain(plainRuns(cell))).join(' | ')} |`);
        const columns = block.rows[0]?.length ?? 0;
        const rule = `|${'---|'.repeat(columns)}`;
        const head = block.hasHeader ? rows.shift() : `|${' |'.repeat(columns)}`;
        if (columns) out.push([head, rule, ...rows].join('\n'));
        break;
      }
      case 'aside':
        out.push(
          aside(block.aside)
            .map((line) => `> ${line}`)
            .join('\n>\n'),
        );
        break;
      case 'picture':
        out.push(picture(block.pictureId, block.alt));
    }
  }
  sheet.footnotes.forEach((note, i) => out.push(`[^${i + 1}]: ${aside(note).join('\n    ')}`));
  return `${out.join('\n\n')}\n`;
}

/** A sentence that begins like a list or a heading would be taken for one. */
const notAList = (text: string): string =>
  text.replace(/^(\d+)([.)])(?=\s|$)/, '$1\\$2').replace(/^([-+])(?=\s|$)/, '\\$1');

const runsMarkdown = (runs: readonly Run[]): string =>
  notAList(
    runs
      .map(({ text, isBold, isItalic, address }) => {
        const words = text.trim();
        const before = words ? text.slice(0, text.indexOf(words)) : '';
        const after = text.slice(before.length + words.length);
        if (!words) return text;
        const mark = isBold ? '**' : isItalic ? '*' : '';
        const inside = `${mark}${plain(words)}${mark}`;
        return `${before}${address ? `[${inside}](<${address}>)` : inside}${after}`;
      })
      .join(''),
  );

const itemMarkdown = ({ runs, box, depth }: Item, mark: string): string =>
  `${'  '.repeat(depth)}${box === null ? mark : `- [${box ? 'x' : ' '}]`} ${runsMarkdown(runs)}`;
