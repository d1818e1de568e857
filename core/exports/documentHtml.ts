import type { MarkTone } from '../contract/markKinds';
import { type Aside, type Item, type Run, type ExportDocument } from './exportDocument';

/** Paper and ink: the tones of marks as they stand on white. */
export const PRINT_TONES: Record<MarkTone, { ink: string; wash: string }> = {
  rowan: { ink: '#B8432F', wash: '#F6DDD7' },
  heather: { ink: '#6F4E7C', wash: '#E9DFED' },
  ochre: { ink: '#9A6A14', wash: '#F3E6CB' },
  petrol: { ink: '#1F5A5E', wash: '#D5E6E6' },
  lichen: { ink: '#55702F', wash: '#E2EAD4' },
};

export const escapeHtml = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[sign]!);

/** How the blocks of a sheet look; marks have the wash of their tone. */
export const DOCUMENT_STYLE = `
${Object.entries(PRINT_TONES)
  .map(([tone, { wash }]) => `mark.${tone} { background: ${wash}; color: inherit; }`)
  .join('\n')}
${[1, 2, 3, 4].map((depth) => `.depth-${depth} { margin-left: ${depth * 1.4}em; }`).join('\n')}
:root { color-scheme: light; }
body { max-width: 42em; margin: 2em auto; padding: 0 1em; font: 17px/1.6 Literata, Georgia, serif; color: #1e2a2b; background: #fffdf7; }
h1 { font-size: 1.6em; line-height: 1.25; margin: 0 0 .2em; } h2 { font-size: 1.25em; margin: 1.6em 0 .3em; } h3 { font-size: 1.05em; margin: 1.4em 0 .2em; }
.facts { color: #5a6766; margin: 0 0 1.4em; font-size: .85em; } .lead { font-weight: bold; }
ul.checks { list-style: none; padding-left: 0; } ul.checks li { padding-left: 1.6em; text-indent: -1.6em; } ul.checks input { width: 1em; height: 1em; margin: 0 .4em 0 0; vertical-align: -.1em; }
aside { border-left: 2px solid #dad4c5; margin: 0 0 1em 1.4em; padding-left: .8em; font-size: .9em; }
aside .label { color: #5a6766; display: block; } table { border-collapse: collapse; } td, th { border: 1px solid #dad4c5; padding: .25em .6em; text-align: left; vertical-align: top; }
img { max-width: 100%; max-height: 26em; display: block; } blockquote { margin: 0 0 1em; padding-left: 1em; border-left: 2px solid #1f5a5e; }
@page { size: A4; margin: 22mm 20mm 24mm; } @media print { body { background: #fff; font-size: 11pt; max-width: none; margin: 0; } p, li, aside { break-inside: avoid; orphans: 3; widows: 3; } h2, h3 { break-after: avoid; } }
`.trim();

/**
 * A sheet as one HTML file without scripts.
 * @param pictures addresses of the pictures by their ids (`data:` addresses keep it one file)
 */
export function documentHtml(sheet: ExportDocument, pictures: ReadonlyMap<string, string> = new Map()): string {
  const head = sheet.hasHeader
    ? `<h1>${escapeHtml(sheet.title)}</h1>\n${sheet.facts.map((f) => `<p class="facts">${escapeHtml(f)}</p>`).join('\n')}`
    : '';
  return `<!doctype html>
<html lang="${escapeHtml(sheet.language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(sheet.title)}</title>
<style>${DOCUMENT_STYLE}</style>
</head>
<body>
<main>
${head}
${documentBody(sheet, pictures)}
</main>
</body>
</html>
`;
}

/** The blocks and footnotes of a sheet, to stand in a page. */
export function documentBody(
  { blocks, footnotes }: ExportDocument,
  pictures: ReadonlyMap<string, string> = new Map(),
): string {
  const picture = (id: string, alt: string) =>
    pictures.has(id)
      ? `<img src="${escapeHtml(pictures.get(id)!)}" alt="${escapeHtml(alt || 'Picture')}">`
      : `<em>${escapeHtml(alt || 'Picture')}</em>`;
  const asideHtml = ({ label, text, address, comments, pictureId }: Aside): string =>
    [
      `<span class="label">${escapeHtml(label)}</span>${escapeHtml(text)}`,
      address ? ` <a href="${escapeHtml(address)}">${escapeHtml(address)}</a>` : '',
      comments.length ? `<ul>${comments.map((c) => `<li>${escapeHtml(c)}</li>`).join('')}</ul>` : '',
      pictureId ? picture(pictureId, text || label) : '',
    ].join('');
  const parts = blocks.map((block): string => {
    switch (block.kind) {
      case 'heading':
        return `<h${block.level}>${escapeHtml(block.text)}</h${block.level}>`;
      case 'paragraph': {
        const notes = block.notes.map((n) => `<sup><a href="#note-${n}" id="ref-${n}">${n}</a></sup>`).join('');
        const lead = block.lead ? `<span class="lead">${escapeHtml(block.lead)}</span>` : '';
        return `<p dir="auto">${lead}${runsHtml(block.runs)}${notes}</p>`;
      }
      case 'quote':
        return `<blockquote dir="auto">${runsHtml(block.runs)}</blockquote>`;
      case 'list':
        return listHtml(block.items, block.isNumbered);
      case 'table':
        return `<table>${block.rows
          .map((row, i) => {
            const cell = i === 0 && block.hasHeader ? 'th' : 'td';
            return `<tr>${row.map((c) => `<${cell}>${runsHtml(c)}</${cell}>`).join('')}</tr>`;
          })
          .join('')}</table>`;
      case 'aside':
        return `<aside>${asideHtml(block.aside)}</aside>`;
      case 'picture':
        return `<figure>${picture(block.pictureId, block.alt)}</figure>`;
    }
  });
  const notes = footnotes.map((n, i) => `<li id="note-${i + 1}">${asideHtml(n)} <a href="#ref-${i + 1}">↩</a></li>`);
  return [...parts, ...(notes.length ? [`<hr><ol>${notes.join('')}</ol>`] : [])].join('\n');
}

export const runsHtml = (runs: readonly Run[]): string =>
  runs
    .map(({ text, isBold, isItalic, tone, address, startMs }) => {
      let html = escapeHtml(text);
      if (isBold) html = `<strong>${html}</strong>`;
      if (isItalic) html = `<em>${html}</em>`;
      if (tone) html = `<mark class="${tone}">${html}</mark>`;
      // The blank before a word does not light up with it.
      if (startMs !== undefined) html = html.replace(/^( ?)([\s\S]*)$/, `$1<span data-ms="${startMs}">$2</span>`);
      return address ? `<a href="${escapeHtml(address)}">${html}</a>` : html;
    })
    .join('');

function listHtml(items: readonly Item[], isNumbered: boolean): string {
  const tag = isNumbered ? 'ol' : 'ul';
  const rows = items.map(({ runs, box, depth }) => {
    const mark =
      box === null
        ? ''
        : `<input type="checkbox" disabled${box ? ' checked' : ''} aria-label="${box ? 'done' : 'open'}"> `;
    return `<li dir="auto"${depth ? ` class="depth-${Math.min(depth, 4)}"` : ''}>${mark}${runsHtml(runs)}</li>`;
  });
  return `<${tag}${items.some((i) => i.box !== null) ? ' class="checks"' : ''}>${rows.join('')}</${tag}>`;
}
