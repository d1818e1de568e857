import type { LinkTarget } from '@immeld/core/contract/notes';
import Mention from '@tiptap/extension-mention';
import type { SuggestionProps } from '@tiptap/suggestion';
import { inFocus } from './inFocus';

export type LinkMenu = {
  targets: readonly LinkTarget[];
  chosen: number;
  /** Where the menu belongs, in pixels of the window. */
  at: { x: number; y: number };
  choose: (target: LinkTarget) => void;
};

type Found = SuggestionProps<LinkTarget, { kind: string; id: string; label: string }>;

/**
 * Links to recordings and notes: `[[` and some words of the title offer what may be meant.
 * @param find recordings and notes by words of their titles
 * @param show draws the menu, or takes it away
 */
export function linkNodes(find: (q: string) => Promise<LinkTarget[]>, show: (menu: LinkMenu | null) => void) {
  return Mention.extend({
    addAttributes() {
      return {
        ...{ kind: { default: 'recording' }, id: { default: null }, label: { default: '' } },
        /** The second of a recording that a line rests on. */
        startMs: { default: null },
      };
    },
    parseHTML: () => [{ tag: 'a[data-link]' }],
    renderHTML: ({ node }) => [
      'a',
      {
        'data-link': `${node.attrs['kind'] === 'note' ? 'notes' : 'recordings'}/${node.attrs['id'] as string}`,
        href: `/${node.attrs['kind'] === 'note' ? 'notes' : 'recordings'}/${node.attrs['id'] as string}`,
      },
      node.attrs['label'] as string,
    ],
    renderText: ({ node }) => node.attrs['label'] as string,
    renderMarkdown: ({ attrs }) => {
      const { kind, id, label, startMs } = attrs as { kind: string; id: string; label: string; startMs: number | null };
      const at = startMs === null || startMs === undefined ? '' : `?at=${startMs}`;
      return `[${label}](/${kind === 'note' ? 'notes' : 'recordings'}/${id}${at})`;
    },
  }).configure({
    suggestion: {
      char: '[[',
      allowSpaces: true,
      allowedPrefixes: null,
      items: ({ query }) => find(query),
      command: ({ editor, range, props }) => {
        const { kind, id, label } = props as unknown as { kind: string; id: string; label: string };
        inFocus(editor)
          .insertContentAt(range, [
            { type: 'mention', attrs: { kind, id, label } },
            { type: 'text', text: ' ' },
          ])
          .run();
      },
      render: () => {
        let now: { props: Found; chosen: number } | null = null;
        const choose = (target: LinkTarget) =>
          now?.props.command({ kind: target.kind, id: target.id, label: target.title });
        const draw = () => {
          if (!now) return show(null);
          const box = now.props.clientRect?.();
          const targets = now.props.items;
          show({ targets, chosen: now.chosen, at: { x: box?.left ?? 0, y: box?.bottom ?? 0 }, choose });
        };
        const update = (props: Found) => {
          now = { props, chosen: Math.min(now?.chosen ?? 0, Math.max(0, props.items.length - 1)) };
          draw();
        };
        return {
          onStart: (props) => update(props as unknown as Found),
          onUpdate: (props) => update(props as unknown as Found),
          onExit: () => {
            now = null;
            draw();
          },
          onKeyDown: ({ event }) => {
            if (!now || now.props.items.length === 0) return false;
            const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
            if (step) {
              now.chosen = (now.chosen + step + now.props.items.length) % now.props.items.length;
              draw();
              return true;
            }
            if (event.key !== 'Enter' && event.key !== 'Tab') return false;
            choose(now.props.items[now.chosen]!);
            return true;
          },
        };
      },
    },
  });
}
