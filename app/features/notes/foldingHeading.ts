import Heading from '@tiptap/extension-heading';
import { type Node } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet, type EditorView } from '@tiptap/pm/view';

/** Headings behind which everything up to the next heading of the same rank can be folded away. It stays in the text. */
export const FoldingHeading = Heading.extend({
  addAttributes() {
    return {
      ...this.parent?.(),
      isFolded: { default: false, rendered: false },
    };
  },
  addProseMirrorPlugins() {
    return [
      ...(this.parent?.() ?? []),
      new Plugin({
        key: new PluginKey('foldingHeadings'),
        props: { decorations: ({ doc }) => DecorationSet.create(doc, decorationsOf(doc)) },
      }),
    ];
  },
});

function decorationsOf(doc: Node): Decoration[] {
  const decorations: Decoration[] = [];
  /** Rank of the heading behind which everything is folded away at the moment. */
  let foldedRank: number | null = null;
  doc.forEach((node, at) => {
    const rank = node.type.name === 'heading' ? (node.attrs['level'] as number) : null;
    if (rank !== null && foldedRank !== null && rank <= foldedRank) foldedRank = null;
    if (foldedRank !== null) {
      decorations.push(Decoration.node(at, at + node.nodeSize, { class: 'folded-away' }));
    } else if (rank !== null) {
      const isFolded = node.attrs['isFolded'] === true;
      if (isFolded) foldedRank = rank;
      const isLast = at + node.nodeSize >= doc.content.size;
      if (!isLast || isFolded) {
        decorations.push(
          Decoration.widget(at + 1, (view, position) => foldButton(view, position, isFolded, node.textContent), {
            side: -1,
            key: `${isFolded} ${node.textContent}`,
            ignoreSelection: true,
          }),
        );
      }
    }
  });
  return decorations;
}

function foldButton(view: EditorView, position: () => number | undefined, isFolded: boolean, title: string): Element {
  const button = document.createElement('button');
  button.type = 'button';
  button.className = 'fold';
  button.contentEditable = 'false';
  button.setAttribute('aria-expanded', String(!isFolded));
  button.setAttribute('aria-label', `${isFolded ? 'Expand' : 'Collapse'} ${title || 'this section'}`);
  button.textContent = isFolded ? '▸' : '▾';
  // The caret stays where it is.
  button.onmousedown = (event) => event.preventDefault();
  button.onclick = () => {
    const at = position();
    if (at === undefined) return;
    const heading = at - 1;
    const { attrs } = view.state.doc.nodeAt(heading)!;
    view.dispatch(view.state.tr.setNodeMarkup(heading, undefined, { ...attrs, isFolded: !isFolded }));
  };
  return button;
}
