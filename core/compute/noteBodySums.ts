import type { NoteBody, NoteNode } from '../contract/notes';
import { QUOTED, isTextBlock, linesOfBody } from './noteLines';
import { type LineAnswer, type SumSettings, noteSums } from './noteSums';
import type { Plot } from './plot';
import { plotInWords } from './plotInWords';

const textNode = (text: string): NoteNode => ({ type: 'text', text });
const paragraph = (text: string): NoteNode => ({ type: 'paragraph', content: [textNode(text)] });

/** A note with what it works out written into it, for readers who have no editor before them. */
export function withSums(body: NoteBody, settings: SumSettings): NoteBody {
  const answers = noteSums(linesOfBody(body), settings);
  let at = 0;
  const behind = (answer: LineAnswer | null | undefined): string | null =>
    answer?.kind === 'answer' ? ` ${answer.text}` : answer?.kind === 'problem' ? ` (${answer.text})` : null;
  const walk = (node: NoteNode): NoteNode[] => {
    if (node.type === 'horizontalRule') {
      const total = answers[at++];
      const text = total && total.kind !== 'plot' ? [paragraph(`Total: ${total.text}`)] : [];
      return [node, ...text];
    }
    if (QUOTED.has(node.type)) return [node];
    if (node.type !== 'doc' && isTextBlock(node)) {
      const content: NoteNode[] = [];
      const plots: Plot[] = [];
      const endOfLine = () => {
        const answer = answers[at++];
        const text = behind(answer);
        if (text) content.push(textNode(text));
        if (answer?.kind === 'plot') plots.push(answer.plot);
      };
      for (const inner of node.content ?? []) {
        if (inner.type === 'hardBreak') endOfLine();
        content.push(inner);
      }
      endOfLine();
      return [{ ...node, ...(content.length ? { content } : {}) }, ...plots.map((p) => paragraph(plotInWords(p)))];
    }
    return [{ ...node, content: (node.content ?? []).flatMap(walk) }];
  };
  return walk(body)[0] as NoteBody;
}
