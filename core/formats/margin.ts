import { markdownText } from './markdownText';
import { clockTime } from './times';

/** Something in the margin, with the words beside which it stands. */
export type MarginLine = {
  /** Null for what belongs to the whole recording. */
  startMs: number | null;
  /** What it is: the name of a mark, "To-do", "Link". */
  name: string;
  text: string;
  /** What was said there. */
  words: string;
  address: string | null;
  assignee: string | null;
  comments: readonly string[];
  isDone: boolean | null;
};

/** The margin as Markdown (CommonMark): a list in the order of time, to-dos with boxes. */
export function marginMarkdown(title: string, lines: readonly MarginLine[]): string {
  const entry = ({ startMs, name, text, words, address, assignee, comments, isDone }: MarginLine) => {
    const box = isDone === null ? '' : isDone ? '[x] ' : '[ ] ';
    const what = [markdownText(text), address === null ? '' : `<${address}>`].filter(Boolean).join(' ');
    const rest = [what, assignee ? `(for ${markdownText(assignee)})` : ''].filter(Boolean).join(' ');
    return [
      `- ${box}${startMs === null ? '' : `${clockTime(startMs)} `}**${markdownText(name)}**${rest ? `: ${rest}` : ''}`,
      ...(words ? [`  > ${markdownText(words)}`] : []),
      ...(words && comments.length ? [''] : []),
      ...comments.map((c) => `  - ${markdownText(c)}`),
    ].join('\n');
  };
  return `# ${markdownText(title)}\n\n${lines.map(entry).join('\n')}\n`;
}
