import { type Aside, type Item, type ExportDocument, plainRuns } from './exportDocument';

/** A sheet as plain text: an empty line between blocks, nothing that only looks nice. */
export function documentText(sheet: ExportDocument): string {
  const out: string[] = sheet.hasHeader ? [[sheet.title, ...sheet.facts].join('\n')] : [];
  for (const block of sheet.blocks) {
    switch (block.kind) {
      case 'heading':
        out.push(block.text);
        break;
      case 'paragraph':
        out.push(`${block.lead}${plainRuns(block.runs)}${block.notes.map((n) => ` [${n}]`).join('')}`);
        break;
      case 'quote':
        out.push(`> ${plainRuns(block.runs)}`);
        break;
      case 'list':
        out.push(block.items.map((item, i) => itemText(item, block.isNumbered ? `${i + 1}.` : '-')).join('\n'));
        break;
      case 'table':
        out.push(block.rows.map((row) => row.map(plainRuns).join('\t')).join('\n'));
        break;
      case 'aside':
        out.push(`    ${asideText(block.aside).join('\n    ')}`);
        break;
      case 'picture':
        out.push(`[${block.alt || 'Picture'}]`);
    }
  }
  if (sheet.footnotes.length) {
    out.push(sheet.footnotes.map((note, i) => `[${i + 1}] ${asideText(note).join('\n    ')}`).join('\n'));
  }
  const filled = out.filter((part) => part.trim() !== '');
  return filled.length ? `${filled.join('\n\n')}\n` : '';
}

const itemText = ({ runs, box, depth }: Item, mark: string): string =>
  `${'  '.repeat(depth)}${box === null ? mark : box ? '[x]' : '[ ]'} ${plainRuns(runs)}`;

const asideText = ({ label, text, address, comments }: Aside): string[] => [
  [label, text, address].filter(Boolean).join(': '),
  ...comments.map((c) => `- ${c}`),
];
