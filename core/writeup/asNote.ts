import type { NoteBody, NoteNode } from '../contract/notes';
import type { Line, MadeSection } from '../contract/templates';
import { clockTime } from '../formats/times';
import { whoAndWhen } from './asMarkdown';
import { dayInWords } from '../formats/times';

/** Behind what a language model wrote without saying what it rests on. */
const NO_SOURCE = 'no source in the recording';
/** Behind a to-do that nobody has accepted. */
const PROPOSED = 'suggested';

const text = (words: string): NoteNode => ({ type: 'text', text: words });
const paragraph = (content: NoteNode[]): NoteNode => ({ type: 'paragraph', ...(content.length ? { content } : {}) });

/**
 * A write-up as the document of a note: each line leads to its second in the recording, check boxes are the to-dos
 * themselves.
 * @param ofAll the recording that everything is from; null where the lines say it
 * @param isAccepted whether a to-do is on the list; one that is not has no box and says that it is proposed
 */
export function writeUpAsNote(
  sections: readonly MadeSection[],
  ofAll: string | null,
  isAccepted: (todoId: string) => boolean = () => true,
): NoteBody {
  const moment = ({ startMs, recordingId = null }: Line): NoteNode[] =>
    startMs === null
      ? []
      : [
          text(' '),
          {
            type: 'mention',
            attrs: { kind: 'recording', id: recordingId ?? ofAll, label: clockTime(startMs), startMs },
          },
        ];
  const words = (line: Line): NoteNode[] => {
    const isProposed = line.todoId !== null && !isAccepted(line.todoId);
    const more = line.isUncited
      ? NO_SOURCE
      : [line.todoId ? whoAndWhen(line) : '', isProposed ? PROPOSED : ''].filter(Boolean).join(', ');
    return [text(more ? `${line.text} (${more})` : line.text), ...moment(line)];
  };
  const heading = (level: number, name: string): NoteNode => ({
    type: 'heading',
    attrs: { level },
    content: [text(name)],
  });
  const listOf = (form: MadeSection['form'], lines: readonly Line[]): NoteNode => {
    if (form === 'checks' && lines.every((l) => l.todoId === null || isAccepted(l.todoId))) {
      return {
        type: 'taskList',
        content: lines.map((l) => ({
          type: 'taskItem',
          attrs: { checked: l.isDone, todoId: l.todoId },
          content: [paragraph(words(l))],
        })),
      };
    }
    return {
      type: form === 'numbered' ? 'orderedList' : 'bulletList',
      content: lines.map((l) => ({ type: 'listItem', content: [paragraph(words(l))] })),
    };
  };
  const body = (form: MadeSection['form'], lines: readonly Line[]): NoteNode[] => {
    if (form === 'text') return [paragraph(lines.flatMap((l, i) => [...(i ? [text(' ')] : []), ...words(l)]))];
    if (form === 'checks') {
      const [boxed, proposed] = [true, false].map((wanted) =>
        lines.filter((l) => (l.todoId === null || isAccepted(l.todoId)) === wanted),
      );
      return [boxed!, proposed!].filter((some) => some.length).map((some) => listOf(form, some));
    }
    if (form !== 'table') return [listOf(form, lines)];
    // What stands in the first column of a table is said before the line.
    return [
      {
        type: 'bulletList',
        content: lines.map((l) => {
          const content = [
            ...(l.person ? [{ ...text(l.person), marks: [{ type: 'bold' }] }, text(': ')] : []),
            text(l.text),
            ...(l.due ? [text(` (by ${dayInWords(l.due)})`)] : []),
            ...(l.todoId !== null && !isAccepted(l.todoId) ? [text(` (${PROPOSED})`)] : []),
            ...moment(l),
          ];
          return { type: 'listItem', content: [paragraph(content)] };
        }),
      },
    ];
  };
  return {
    type: 'doc',
    content: sections.flatMap(({ heading: name, form, groups }) => [
      ...(name ? [heading(2, name)] : []),
      ...(groups.length === 0 ? [paragraph([text('Nothing was said about this.')])] : []),
      ...groups.flatMap((group) => [...(group.name ? [heading(3, group.name)] : []), ...body(form, group.lines)]),
    ]),
  };
}
