import type { TopicMap } from '@immeld/core/contract/templates';
import { hierarchy, tree } from 'd3-hierarchy';

export type TopicKind = 'centre' | 'part' | 'point';
/** A topic of the map; `key` is its place in the tree: "", "2", "2.0". */
export type Topic = { key: string; kind: TopicKind; text: string; startMs: number | null; topics: Topic[] };
/** A topic as it is drawn, in px of the picture: the left end of its line and the lines of its text above that. */
export type DrawnTopic = Omit<Topic, 'topics'> & {
  x: number;
  y: number;
  width: number;
  lines: string[];
  size: number;
  lineHeight: number;
  /** How many topics are folded away behind it; null where it has none. */
  folded: number | null;
  parent: string | null;
};
/** The twig from one topic to the next, as the path of an SVG. */
export type Twig = { key: string; path: string };
export type MapLayout = { topics: DrawnTopic[]; twigs: Twig[]; width: number; height: number };

type Setting = Record<TopicKind, { width: number; size: number; lineHeight: number; mostLines: number }>;
/** How each kind of topic is set: widths and heights in px. */
const WIDE: Setting = {
  centre: { width: 148, size: 17, lineHeight: 22, mostLines: 5 },
  part: { width: 184, size: 15, lineHeight: 20, mostLines: 3 },
  point: { width: 268, size: 13, lineHeight: 18, mostLines: 4 },
};
/** On a phone a part and its points stand beside each other. */
const NARROW: Setting = {
  centre: { width: 128, size: 17, lineHeight: 22, mostLines: 6 },
  part: { width: 138, size: 14, lineHeight: 18, mostLines: 4 },
  point: { width: 176, size: 13, lineHeight: 18, mostLines: 6 },
};
const NARROW_BELOW = 520;
/** How topics are set in a room of so many px. */
export const settingFor = (room: number): Setting => (room < NARROW_BELOW ? NARROW : WIDE);

const GAP_X = 26;
/** Words end before the sign that folds. */
const HANDLE_ROOM = 14;
const GAP_Y = 20;
const EDGE = 24;
/** Room below the line of a topic, for its time. */
export const FOOT = 20;

/** The map as one tree; a part without a title gives its points to the centre. */
export function treeOf({ title, parts }: TopicMap): Topic {
  const pointsOf = (points: TopicMap['parts'][number]['points'], before: string): Topic[] =>
    points.map((p, i) => ({ ...p, key: `${before}${i}`, kind: 'point', topics: [] }));
  const topics = parts.flatMap((part, i): Topic[] =>
    part.title === null
      ? pointsOf(part.points, '')
      : [
          {
            ...{ key: `${i}`, kind: 'part', text: part.title, startMs: part.startMs },
            topics: pointsOf(part.points, `${i}.`),
          },
        ],
  );
  return { key: '', kind: 'centre', text: title, startMs: null, topics };
}

/** Width of a text in px, in a size of type. */
type Measure = (text: string, kind: TopicKind, size: number) => number;

/** Cuts a text into lines of a width; what does not fit ends in an ellipsis after a whole word. */
export function linesOf(text: string, kind: TopicKind, setting: Setting, measureIn: Measure): string[] {
  const { width: whole, size, mostLines } = setting[kind];
  const width = kind === 'point' ? whole : whole - HANDLE_ROOM;
  const measure = (words: string) => measureIn(words, kind, size);
  const lines: string[] = [];
  for (const word of text.split(/\s+/)) {
    const last = lines.at(-1);
    if (last !== undefined && measure(`${last} ${word}`) <= width) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  if (lines.length <= mostLines) return lines;
  const kept = lines.slice(0, mostLines);
  const words = kept.at(-1)!.split(' ');
  while (words.length > 1 && measure(`${words.join(' ')}…`) > width) words.pop();
  kept[mostLines - 1] = `${words.join(' ').replace(/[.,;:]$/, '')}…`;
  return kept;
}

/**
 * Lays a map out from left to right: centre, parts, points.
 * Method: the tidy tree of d3-hierarchy (Reingold and Tilford 1981, as Buchheim, Jünger and Leipert 2002 made it linear);
 * neighbours keep the distance that their lines of text need.
 * @param folded keys of the topics whose own topics are not shown
 */
export function layoutOf(root: Topic, folded: ReadonlySet<string>, setting: Setting, measure: Measure): MapLayout {
  const lines = new Map<string, string[]>();
  const heightOf = ({ key, kind, text }: Topic): number => {
    const set = lines.get(key) ?? linesOf(text, kind, setting, measure);
    lines.set(key, set);
    return set.length * setting[kind].lineHeight + FOOT;
  };
  const laid = tree<Topic>()
    .nodeSize([1, 1])
    .separation((a, b) => (heightOf(a.data) + heightOf(b.data)) / 2 + (a.parent === b.parent ? GAP_Y : GAP_Y * 1.6))(
    hierarchy(root, (t) => (folded.has(t.key) ? [] : t.topics)),
  );
  const nodes = laid.descendants();
  const left = { centre: 0, part: setting.centre.width + GAP_X, point: setting.centre.width + GAP_X };
  if (root.topics.some((t) => t.kind === 'part')) left.point += setting.part.width + GAP_X;
  // The line of a topic lies below its text; its middle is what the tree places.
  const top = Math.min(...nodes.map((n) => n.x - heightOf(n.data) / 2));
  const topics = nodes.map((node): DrawnTopic => {
    const { key, kind, text, startMs } = node.data;
    const height = heightOf(node.data);
    return {
      ...{
        key,
        kind,
        text,
        startMs,
        lines: lines.get(key)!,
        ...{ size: setting[kind].size, lineHeight: setting[kind].lineHeight },
        width: setting[kind].width,
        parent: node.parent?.data.key ?? null,
      },
      x: EDGE + left[kind],
      y: EDGE + node.x - height / 2 - top + height - FOOT,
      folded: node.data.topics.length === 0 ? null : folded.has(key) ? node.data.topics.length : 0,
    };
  });
  const byKey = new Map(topics.map((t) => [t.key, t]));
  const twigs = topics.flatMap((to): Twig[] => {
    if (to.parent === null) return [];
    const from = byKey.get(to.parent)!;
    const [x1, x2, middle] = [from.x + from.width, to.x, from.x + from.width + GAP_X / 2];
    return [{ key: to.key, path: `M${x1} ${from.y}C${middle} ${from.y} ${middle} ${to.y} ${x2} ${to.y}` }];
  });
  return {
    ...{ topics, twigs },
    width: Math.max(...topics.map((t) => t.x + t.width)) + EDGE,
    height: Math.max(...topics.map((t) => t.y)) + FOOT + EDGE,
  };
}

/** Where a key of the keyboard leads from a topic, among those that are shown. */
export function neighbour(layout: MapLayout, from: string, key: string): string | null {
  const at = layout.topics.find((t) => t.key === from);
  if (!at) return null;
  if (key === 'ArrowLeft') return at.parent;
  if (key === 'ArrowRight') return layout.topics.find((t) => t.parent === from)?.key ?? null;
  const same = layout.topics.filter((t) => t.x === at.x).sort((a, b) => a.y - b.y);
  const step = key === 'ArrowDown' ? 1 : key === 'ArrowUp' ? -1 : 0;
  if (key === 'Home') return '';
  return step === 0 ? null : (same[same.indexOf(at) + step]?.key ?? null);
}
