import type { NoteBody, NoteNode } from '@immeld/core/contract/notes';

/** Blocks that stand on lines of their own. */
const BLOCKS = new Set([
  'paragraph',
  'heading',
  'codeBlock',
  'listItem',
  'taskItem',
  'blockquote',
  'tableRow',
  'horizontalRule',
]);

/** What a link node leads to. */
export type LinkAttributes = { kind: 'recording' | 'note'; id: string; label: string };

const linkOf = (node: NoteNode): LinkAttributes | null =>
  node.type === 'mention' && node.attrs
    ? {
        kind: node.attrs['kind'] === 'note' ? 'note' : 'recording',
        id: String(node.attrs['id']),
        label: String(node.attrs['label'] ?? ''),
      }
    : null;

/** The words of a note, a line for each block, with links by their titles. */
export function textOfNote(body: NoteBody | null): string {
  const lines: string[] = [];
  let line = '';
  const end = () => {
    if (line.trim()) lines.push(line.trim());
    line = '';
  };
  const walk = (node: NoteNode): void => {
    const link = linkOf(node);
    if (link) line += link.label;
    else if (node.type === 'text') line += node.text ?? '';
    else if (node.type === 'hardBreak') end();
    for (const child of node.content ?? []) walk(child);
    if (BLOCKS.has(node.type)) end();
    else if (node.type === 'tableCell' || node.type === 'tableHeader') line += ' ';
  };
  if (body) walk(body);
  end();
  return lines.join('\n');
}

/** Every link in a note, each target once. */
export function linksOfNote(body: NoteBody | null): LinkAttributes[] {
  const found = new Map<string, LinkAttributes>();
  const walk = (node: NoteNode): void => {
    const link = linkOf(node);
    if (link) found.set(`${link.kind} ${link.id}`, link);
    for (const child of node.content ?? []) walk(child);
  };
  if (body) walk(body);
  return [...found.values()];
}

const isMoment = (node: NoteNode): boolean => typeof node.attrs?.['startMs'] === 'number';

/** The document with links by the titles that they have now. */
export function withTitles(body: NoteBody, titles: ReadonlyMap<string, string>): NoteBody {
  const walk = (node: NoteNode): NoteNode => {
    const link = linkOf(node);
    // A link to a moment says its time, not the title.
    const title = link && !isMoment(node) ? titles.get(link.id) : null;
    return {
      ...node,
      ...(title !== undefined && title !== null ? { attrs: { ...node.attrs, label: title } } : {}),
      ...(node.content ? { content: node.content.map(walk) } : {}),
    };
  };
  return walk(body) as NoteBody;
}

/** Ids of the to-dos whose check boxes stand in a note. */
export function todosOfNote(body: NoteBody | null): string[] {
  const ids: string[] = [];
  const walk = (node: NoteNode): void => {
    const id = node.type === 'taskItem' ? node.attrs?.['todoId'] : null;
    if (typeof id === 'string') ids.push(id);
    node.content?.forEach(walk);
  };
  if (body) walk(body);
  return ids;
}

/** A note whose check boxes are ticked as its to-dos are now; one whose to-do is gone stays as it was. */
export function withTicks(body: NoteBody, isDone: ReadonlyMap<string, boolean>): NoteBody {
  const walk = (node: NoteNode): NoteNode => {
    const checked = node.type === 'taskItem' ? isDone.get(String(node.attrs?.['todoId'])) : undefined;
    return {
      ...node,
      ...(checked === undefined ? {} : { attrs: { ...node.attrs, checked } }),
      ...(node.content ? { content: node.content.map(walk) } : {}),
    };
  };
  return walk(body) as NoteBody;
}
