import type { LinkTarget, NoteBody, NoteNode } from '@immeld/core/contract/notes';
import { type AnyExtension, Mark } from '@tiptap/core';
import Image from '@tiptap/extension-image';
import { TableKit } from '@tiptap/extension-table';
import { MarkdownManager } from '@tiptap/markdown';
import StarterKit from '@tiptap/starter-kit';
import { FoldingHeading } from './foldingHeading';
import { type LinkMenu, linkNodes } from './linkSuggestions';
import { type SumHost, noteSumsInEditor } from './noteSumsInEditor';
import { TaskList, TodoItem } from './todoItems';

/** Words in the colour of a kind of mark: what they mean, not only how they look. */
export const Meaning = Mark.create({
  name: 'meaning',
  addAttributes: () => ({
    kind: {
      default: 'key-point',
      parseHTML: (element: HTMLElement) => element.dataset['kind'],
      renderHTML: ({ kind }: { kind?: string }) => ({ 'data-kind': kind }),
    },
  }),
  parseHTML: () => [{ tag: 'mark[data-kind]' }],
  renderHTML: ({ HTMLAttributes }) => ['mark', HTMLAttributes, 0],
  // Markdown has no colours: the words stay.
  renderMarkdown: (node, helpers) => helpers.renderChildren(node),
});

const NOBODY = () => Promise.resolve<LinkTarget[]>([]);

/** What can stand in a note. */
export const noteExtensions = (
  find: (q: string) => Promise<LinkTarget[]> = NOBODY,
  show: (menu: LinkMenu | null) => void = () => undefined,
  sums: SumHost | null = null,
): AnyExtension[] => [
  ...(sums ? [noteSumsInEditor(sums)] : []),
  StarterKit.configure({ link: { openOnClick: false }, heading: false }),
  FoldingHeading.configure({ levels: [1, 2, 3] }),
  TaskList,
  TodoItem.configure({ nested: true }),
  TableKit.configure({ table: { resizable: false } }),
  Image.configure({ allowBase64: true }),
  Meaning,
  linkNodes(find, show),
];

const OWN_LINK = /^\/(recordings|notes)\/([0-9a-f-]{36})(?:\?at=(\d+))?$/i;

let manager: MarkdownManager | null = null;
const markdown = (): MarkdownManager => (manager ??= new MarkdownManager({ extensions: noteExtensions() }));

/** A note as Markdown (CommonMark with the tables and task lists of GFM); links to recordings and notes are links. */
export const noteAsMarkdown = (body: NoteBody): string => markdown().serialize(body).trim();

/** The document of a Markdown text; links that lead to recordings and notes here are such links again. */
export function markdownAsNote(text: string): NoteBody {
  const walk = (node: NoteNode): NoteNode => {
    const href = node.marks?.find((m) => m.type === 'link')?.attrs?.['href'];
    const own = typeof href === 'string' ? OWN_LINK.exec(href) : null;
    if (own && node.type === 'text') {
      const [, place, id, at] = own;
      const kind = place === 'notes' ? 'note' : 'recording';
      return { type: 'mention', attrs: { kind, id, label: node.text, startMs: at ? Number(at) : null } };
    }
    return { ...node, ...(node.content ? { content: node.content.map(walk) } : {}) };
  };
  return walk(markdown().parse(text) as NoteNode) as NoteBody;
}
