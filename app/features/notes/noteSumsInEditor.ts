import type { CurrencyTable } from '@immeld/core/compute/currencies';
import type { NoteLine } from '@immeld/core/compute/noteLines';
import type { LineAnswer } from '@immeld/core/compute/noteSums';
import type { Plot } from '@immeld/core/compute/plot';
import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet, type EditorView } from '@tiptap/pm/view';
import { localDay } from '../../ui/dates';
import { SumClient } from './sumClient';

/** Somebody who types is answered when they pause for so long. */
const PAUSE_MS = 120;

type PlacedLine = { line: NoteLine; at: number };
const key = new PluginKey<DecorationSet>('noteSums');

/** The lines of a document with the places behind them. */
export function linesOf(doc: Node): PlacedLine[] {
  const placed: PlacedLine[] = [];
  doc.descendants((node, position) => {
    if (node.type.name === 'horizontalRule') placed.push({ line: { isRule: true }, at: position + node.nodeSize });
    if (node.type.name === 'codeBlock') return false;
    if (!node.isTextblock) return true;
    const text = node.textBetween(0, node.content.size, '\n', (leaf) =>
      leaf.type.name === 'hardBreak' ? '\n' : '\uFFFC',
    );
    let at = position + 1;
    for (const line of text.split('\n')) {
      at += line.length;
      placed.push({ line: { text: line }, at });
      at++;
    }
    return false;
  });
  return placed;
}

/** A curve, and the element of the page in which it is drawn. */
export type PlacedPlot = { plot: Plot; place: HTMLElement };

export type SumHost = {
  currencies: () => CurrencyTable | null;
  /** Told which curves stand in the note. */
  onPlots: (plots: readonly PlacedPlot[]) => void;
};

/** Works out a note while it is written: answers in pencil behind their lines, which are no part of its text. */
export const noteSumsInEditor = ({ currencies, onPlots }: SumHost) =>
  Extension.create({
    name: 'noteSums',
    addProseMirrorPlugins: () => [
      new Plugin<DecorationSet>({
        key,
        state: {
          init: () => DecorationSet.empty,
          apply: (transaction, before) =>
            (transaction.getMeta(key) as DecorationSet | undefined) ?? before.map(transaction.mapping, transaction.doc),
        },
        props: { decorations: (state) => key.getState(state) },
        view: (view) => new SumsView(view, currencies, onPlots),
      }),
    ],
  });

class SumsView {
  private readonly client = new SumClient();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private hadAnswers = false;
  /** The elements in which curves are drawn. */
  private places = new Map<string, HTMLElement>();

  constructor(
    private readonly view: EditorView,
    private readonly currencies: SumHost['currencies'],
    private readonly onPlots: SumHost['onPlots'],
  ) {
    this.later();
  }

  update(view: EditorView, before: { doc: Node }): void {
    if (!view.state.doc.eq(before.doc)) this.later();
  }

  destroy(): void {
    clearTimeout(this.timer);
    this.client.close();
  }

  private later(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.workOut(), PAUSE_MS);
  }

  private workOut(): void {
    if (typeof Worker === 'undefined') return;
    const { doc } = this.view.state;
    const placed = linesOf(doc);
    const lines = placed.map(({ line }) => line);
    const hasSums = lines.some((line) => 'isRule' in line || line.text.includes('='));
    if (!hasSums && !this.hadAnswers) return;
    this.client.ask(lines, { day: localDay(new Date()), currencies: this.currencies() }, (answers) => {
      // Something was typed meanwhile: it is asked again.
      if (this.view.isDestroyed || this.view.state.doc !== doc) return;
      this.show(placed, answers);
    });
  }

  private show(placed: readonly PlacedLine[], answers: readonly (LineAnswer | null)[]): void {
    const plots: PlacedPlot[] = [];
    const before = this.places;
    this.places = new Map();
    const decorations = placed.flatMap(({ at }, i) => {
      const answer = answers[i];
      if (!answer) return [];
      if (answer.kind !== 'plot') return [widget(at, elementOf(answer), `${answer.kind} ${answer.text}`)];
      // A curve that stands there already is drawn where it is.
      const key = `plot ${plots.length} ${answer.plot.label}`;
      const place = before.get(key) ?? plotPlace();
      this.places.set(key, place);
      plots.push({ plot: answer.plot, place });
      return [widget(this.view.state.doc.resolve(at).after(), place, key)];
    });
    this.hadAnswers = decorations.length > 0;
    const set = DecorationSet.create(this.view.state.doc, decorations);
    this.view.dispatch(this.view.state.tr.setMeta(key, set).setMeta('addToHistory', false));
    this.onPlots(plots);
  }
}

/** What has the same key stays in the page as it is. */
const widget = (at: number, element: HTMLElement, name: string): Decoration =>
  Decoration.widget(at, element, { side: 1, ignoreSelection: true, key: name });

function plotPlace(): HTMLElement {
  const place = document.createElement('div');
  place.className = 'sum plot';
  place.contentEditable = 'false';
  return place;
}

function elementOf(answer: Exclude<LineAnswer, { kind: 'plot' }>): HTMLElement {
  const element = document.createElement(answer.kind === 'total' ? 'div' : 'span');
  element.className = `sum ${answer.kind}`;
  element.contentEditable = 'false';
  element.setAttribute('role', 'note');
  element.setAttribute('aria-label', `${answer.kind === 'total' ? 'Total' : 'Result'}: ${answer.text}`);
  element.textContent = answer.text;
  return element;
}
