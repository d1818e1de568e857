import type { MarkKindSetting } from '../contract/markKinds';
import type { NoteBody, NoteNode } from '../contract/notes';
import type { Block, Item, Run, ExportDocument } from './exportDocument';

type NoteToExport = { title: string; body: NoteBody | null; facts: readonly string[] };

/** Addresses of pictures that were put into a note, `/api/note-pictures/<id>`. */
const PICTURE = /([0-9a-f]{8}-[0-9a-f-]{27})(?:[/?#]|$)/i;

/** A note as a document; links that lead to recordings and notes are their names. */
export function noteAsDocument(
  { title, body, facts }: NoteToExport,
  { hasHeader, kinds }: { hasHeader: boolean; kinds: readonly MarkKindSetting[] },
): ExportDocument {
  const blocks = (body?.content ?? []).flatMap((node) => blocksOf(node, kinds));
  return { title, facts, hasHeader, hasTitlePage: false, language: 'en', blocks, footnotes: [] };
}

function blocksOf(node: NoteNode, kinds: readonly MarkKindSetting[]): Block[] {
  const children = node.content ?? [];
  switch (node.type) {
    case 'heading': {
      const level = Math.min(3, Math.max(1, Number(node.attrs?.['level'] ?? 2))) as 1 | 2 | 3;
      return [
        {
          kind: 'heading',
          level,
          text: runsOf(children, kinds)
            .map((r) => r.text)
            .join(''),
        },
      ];
    }
    case 'bulletList':
    case 'orderedList':
    case 'taskList':
      return [{ kind: 'list', isNumbered: node.type === 'orderedList', items: itemsOf(node, kinds, 0) }];
    case 'table':
      return [
        {
          kind: 'table',
          hasHeader: children[0]?.content?.some((c) => c.type === 'tableHeader') ?? false,
          rows: children.map((row) => (row.content ?? []).map((cell) => inline(cell, kinds))),
        },
      ];
    case 'blockquote':
      return children.map((child): Block => ({ kind: 'quote', runs: inline(child, kinds) }));
    case 'image': {
      const id = PICTURE.exec(String(node.attrs?.['src'] ?? ''))?.[1];
      return id ? [{ kind: 'picture', pictureId: id, alt: String(node.attrs?.['alt'] ?? '') }] : [];
    }
    case 'horizontalRule':
      return [];
    default: {
      const runs = runsOf(children, kinds);
      return runs.length ? [{ kind: 'paragraph', lead: '', runs, notes: [] }] : [];
    }
  }
}

function itemsOf(list: NoteNode, kinds: readonly MarkKindSetting[], depth: number): Item[] {
  return (list.content ?? []).flatMap((item): Item[] => {
    const inner = item.content ?? [];
    const lists = inner.filter((c) => /List$/.test(c.type));
    const words = inner.filter((c) => !lists.includes(c));
    return [
      {
        runs: words.flatMap((c, i) => [...(i ? [{ text: ' ' }] : []), ...inline(c, kinds)]),
        box: item.type === 'taskItem' ? item.attrs?.['checked'] === true : null,
        depth,
      },
      ...lists.flatMap((l) => itemsOf(l, kinds, depth + 1)),
    ];
  });
}

/** All words below a node. */
function inline(node: NoteNode, kinds: readonly MarkKindSetting[]): Run[] {
  const children = node.content ?? [];
  if (children.some((c) => c.content)) {
    return children.flatMap((c, i) => [...(i ? [{ text: ' ' }] : []), ...inline(c, kinds)]);
  }
  return runsOf(children, kinds);
}

const runsOf = (nodes: readonly NoteNode[], kinds: readonly MarkKindSetting[]): Run[] =>
  nodes.flatMap((node): Run[] => {
    if (node.type === 'hardBreak') return [{ text: '\n' }];
    if (node.type === 'mention') return [{ text: String(node.attrs?.['label'] ?? '') }];
    if (node.type !== 'text' || !node.text) return [];
    const mark = (type: string) => node.marks?.find((m) => m.type === type);
    const tone = kinds.find((k) => k.id === mark('meaning')?.attrs?.['kind'])?.tone;
    const address = mark('link')?.attrs?.['href'];
    return [
      {
        text: node.text,
        ...(mark('bold') ? { isBold: true } : {}),
        ...(mark('italic') ? { isItalic: true } : {}),
        ...(tone ? { tone } : {}),
        ...(typeof address === 'string' && /^(https?:|mailto:)/i.test(address) ? { address } : {}),
      },
    ];
  });
