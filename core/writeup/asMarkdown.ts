import type { Line, MadeSection } from '../contract/templates';
import { markdownText as plain } from '../formats/markdownText';
import { clockTime, dayInWords } from '../formats/times';

/** Who and by when, as it stands behind something to be done. */
export const whoAndWhen = ({ person, due }: Line): string =>
  [person && person !== 'me' ? person : null, due ? `by ${dayInWords(due)}` : null].filter(Boolean).join(', ');

/** A write-up as Markdown (CommonMark; tables and task lists as in GFM). */
export function writeUpAsMarkdown(title: string, sections: readonly MadeSection[]): string {
  const out: string[] = [`# ${plain(title)}`];
  for (const { heading, form, indent, hasTimes, groups } of sections) {
    if (heading) out.push(`## ${plain(heading)}`);
    if (groups.length === 0) out.push('Nothing was said about this.');
    for (const { name, lines } of groups) {
      if (name) out.push(`### ${plain(name)}`);
      const time = (l: Line) => (hasTimes && l.startMs !== null ? ` (${clockTime(l.startMs)})` : '');
      const space = '  '.repeat(indent);
      if (form === 'text') out.push(lines.map((l) => plain(l.text)).join(' '));
      else if (form === 'table') {
        const cells = lines.map((l) => [l.person ?? '', `${l.text}${time(l)}`, l.due ? dayInWords(l.due) : '']);
        // A column in which nothing stands is none.
        const filled = [0, 1, 2].filter((column) => cells.some((row) => row[column]));
        const rows = cells.map((row) => `| ${filled.map((column) => plain(row[column]!)).join(' | ')} |`);
        out.push([`|${' |'.repeat(filled.length)}`, `|${'---|'.repeat(filled.length)}`, ...rows].join('\n'));
      } else {
        out.push(
          lines
            .map((l, i) => {
              const mark = form === 'checks' ? `- [${l.isDone ? 'x' : ' '}]` : form === 'numbered' ? `${i + 1}.` : '-';
              const more = l.todoId ? whoAndWhen(l) : '';
              return `${space}${mark} ${plain(l.text)}${more ? ` (${plain(more)})` : ''}${time(l)}`;
            })
            .join('\n'),
        );
      }
    }
  }
  return `${out.join('\n\n')}\n`;
}
