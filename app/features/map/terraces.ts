import type { TopicMap } from '@immeld/core/contract/templates';

export type TopicKind = 'part' | 'point';
/** A part, or a key point that stands on it; `key` is its place: "2", "2.0". */
export type Topic = { key: string; kind: TopicKind; text: string; startMs: number };
/** A part of a recording as a terrace: so long, with its points on it. */
export type Terrace = Topic & { kind: 'part'; endMs: number; points: readonly Topic[] };
/** A topic as it is drawn: its left upper corner and size, and the lines of its text, in px of the picture. */
export type DrawnTopic = Topic & {
  x: number;
  y: number;
  width: number;
  height: number;
  lines: readonly string[];
  /** How many points are folded away; null for a point, and for a part that has none. */
  folded: number | null;
};
/** A term that comes back: its name, the line along which it runs, and a knot for each time it is said. */
export type DrawnThread = {
  text: string;
  saidMs: readonly number[];
  path: string;
  knots: readonly { x: number; y: number }[];
  name: { x: number; y: number; anchor: 'start' | 'end'; box: { x: number; y: number; width: number; height: number } };
};
export type TerraceLayout = {
  topics: readonly DrawnTopic[];
  threads: readonly DrawnThread[];
  /** The ground that the points stand on: its edge, and the earth below, as paths of an SVG. */
  edge: string;
  earth: string;
  /** Where the strip of the sound runs; null on a narrow screen. */
  strip: {
    y: number;
    height: number;
    spans: readonly { x: number; width: number; fromMs: number; toMs: number }[];
  } | null;
  width: number;
  height: number;
};

type Type = { size: number; lineHeight: number; maxLines: number };
export const TYPE: Record<TopicKind, Type> = {
  part: { size: 15, lineHeight: 20, maxLines: 4 },
  point: { size: 13, lineHeight: 18, maxLines: 6 },
};
/** The second of a point stands above its words. */
export const TIME_HEIGHT = 17;
/** Room left of a title for the sign that folds, and left of a point for its post. */
export const SIGN_WIDTH = 20;
export const POST_WIDTH = 10;
/** Room at the top for the title of the map. */
export const HEAD = 40;
const NARROW_BELOW = 600;
const EDGE = 20;
const GAP = 12;

const NAMES_WIDTH = 148;
const MIN_WIDTH = 172;
const MIN_FOLDED_WIDTH = 112;
const STRIP_HEIGHT = 30;
const MAX_STEP = 14;
const MAX_FALL = 90;
const THREAD_ROW = 32;

/** On a phone, threads run down the left side, so many px apart; their names stand above. */
const THREAD_COLUMN = 14;
const NAME_ROW = 48;
const MAX_NARROW_THREADS = 4;
const MIN_GROUND = 28;

export const isNarrowRoom = (width: number): boolean => width < NARROW_BELOW;

/** The parts of a map with their ends; one without a title has that of the recording. */
export function terracesOf({ title, parts, durationMs }: TopicMap): Terrace[] {
  return parts.map((part, i) => {
    const startMs = i === 0 ? 0 : part.startMs;
    const lastMs = part.points.at(-1)?.startMs ?? startMs;
    return {
      ...{ key: `${i}`, kind: 'part', text: part.title ?? title, startMs: part.startMs },
      endMs: Math.max(parts[i + 1]?.startMs ?? durationMs, lastMs + 1),
      points: [...part.points]
        .sort((a, b) => a.startMs - b.startMs)
        .map((point, at) => ({ ...point, key: `${i}.${at}`, kind: 'point' })),
    };
  });
}

/** Width of a text in px. */
export type Measure = (text: string, kind: TopicKind) => number;

/** Cuts a text into lines of a width; what does not fit ends in an ellipsis after a whole word. */
export function linesOf(text: string, kind: TopicKind, width: number, measure: Measure): string[] {
  const { maxLines } = TYPE[kind];
  const lines: string[] = [];
  for (const word of text.split(/\s+/)) {
    const last = lines.at(-1);
    if (last !== undefined && measure(`${last} ${word}`, kind) <= width) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  if (lines.length <= maxLines) return lines;
  const kept = lines.slice(0, maxLines);
  const words = kept.at(-1)!.split(' ');
  while (words.length > 1 && measure(`${words.join(' ')}…`, kind) > width) words.pop();
  kept[maxLines - 1] = `${words.join(' ').replace(/[.,;:]$/, '')}…`;
  return kept;
}

type Setting = { map: TopicMap; folded: ReadonlySet<string>; roomWidth: number; measure: Measure };

/**
 * Lays out a map: time runs to the right, each part is a terrace as wide as it is long, one step below the one before,
 * and terms that come back run through the earth below. On a narrow screen time runs down, and the ground of each part is
 * as wide as the part is long.
 * @param setting `folded` has the keys of the parts whose points are not shown; `roomWidth` is in px
 */
export function layoutOf(setting: Setting): TerraceLayout {
  return isNarrowRoom(setting.roomWidth) ? rowsOf(setting) : columnsOf(setting);
}

/** The topics of one terrace, one below the other from `y` on, and where they end. */
function stacked(
  terrace: Terrace,
  { folded, measure }: Setting,
  x: number,
  y: number,
  width: number,
): { topics: DrawnTopic[]; endY: number } {
  const isFolded = folded.has(terrace.key);
  let at = y;
  const draw = (topic: Topic, indent: number, above: number, foldedCount: number | null): DrawnTopic => {
    const lines = linesOf(topic.text, topic.kind, width - indent, measure);
    const height = above + lines.length * TYPE[topic.kind].lineHeight;
    const { key, kind, text, startMs } = topic;
    const drawn = { key, kind, text, startMs, x, y: at, width, height, lines, folded: foldedCount };
    at += height + GAP;
    return drawn;
  };
  const { points } = terrace;
  const foldedCount = points.length === 0 ? null : isFolded ? points.length : 0;
  const topics = [draw(terrace, points.length ? SIGN_WIDTH : 0, TIME_HEIGHT, foldedCount)];
  if (!isFolded) for (const point of points) topics.push(draw(point, POST_WIDTH, TIME_HEIGHT, null));
  return { topics, endY: at - GAP };
}

function columnsOf(setting: Setting): TerraceLayout {
  const { map, folded, roomWidth } = setting;
  const terraces = terracesOf(map);
  const left = map.terms.length ? NAMES_WIDTH : EDGE;
  const least = terraces.map(({ key }) => (folded.has(key) ? MIN_FOLDED_WIDTH : MIN_WIDTH));
  const leastSum = least.reduce((a, b) => a + b, 0);
  const lengths = terraces.map(({ startMs, endMs }) => endMs - startMs);
  const wholeMs = Math.max(
    1,
    lengths.reduce((a, b) => a + b, 0),
  );
  // What is left after each has room for its words is shared out by length.
  const free = Math.max(roomWidth - left - EDGE - leastSum, leastSum / 2);
  const widths = least.map((width, i) => width + (free * lengths[i]!) / wholeMs);
  const xs = widths.map((_, i) => left + widths.slice(0, i).reduce((a, b) => a + b, 0));
  const right = left + widths.reduce((a, b) => a + b, 0);

  const top = HEAD + STRIP_HEIGHT + GAP;
  const step = Math.min(MAX_STEP, MAX_FALL / Math.max(1, terraces.length));
  const columns = terraces.map((terrace, i) => stacked(terrace, setting, xs[i]! + 8, 0, widths[i]! - 20));
  const firstGround = Math.max(...columns.map(({ endY }, i) => top + endY + GAP - i * step));
  const groundOf = (i: number) => firstGround + i * step;
  const topics = columns.flatMap(({ topics: own, endY }, i) =>
    own.map((topic) => ({ ...topic, y: topic.y + groundOf(i) - GAP / 2 - endY })),
  );
  const edge = terraces.map((_, i) => `${i ? 'L' : 'M'}${xs[i]} ${groundOf(i)}H${xs[i]! + widths[i]!}`).join('');
  const lastGround = groundOf(terraces.length - 1);
  const foot = lastGround + GAP + map.terms.length * THREAD_ROW + 6;

  const xOf = (ms: number): number => {
    const i = Math.max(
      0,
      terraces.findLastIndex((t) => ms >= t.startMs),
    );
    const share = (ms - terraces[i]!.startMs) / Math.max(1, lengths[i]!);
    return xs[i]! + widths[i]! * Math.min(0.98, Math.max(0.02, share));
  };
  const threads = map.terms.map(({ text, saidMs }, k): DrawnThread => {
    const y = lastGround + GAP + (k + 0.5) * THREAD_ROW;
    return {
      ...{ text, saidMs, path: `M${left} ${y}H${right}`, knots: saidMs.map((ms) => ({ x: xOf(ms), y })) },
      name: {
        ...{ x: left - 12, y: y + 4.5, anchor: 'end' },
        box: { x: 0, y: y - THREAD_ROW / 2, width: left, height: THREAD_ROW },
      },
    };
  });
  const spans = terraces.map((t, i) => ({
    ...{ x: xs[i]!, width: widths[i]!, fromMs: i === 0 ? 0 : t.startMs, toMs: t.endMs },
  }));
  return {
    ...{ topics, threads, edge, earth: `${edge}V${foot}H${left}Z` },
    strip: map.peaks.length ? { y: HEAD, height: STRIP_HEIGHT, spans } : null,
    width: right + EDGE,
    height: foot + EDGE,
  };
}

function rowsOf(setting: Setting): TerraceLayout {
  const { map, roomWidth } = setting;
  const terraces = terracesOf(map);
  const terms = map.terms.slice(0, MAX_NARROW_THREADS);
  const left = EDGE + terms.length * THREAD_COLUMN + (terms.length ? 10 : 0);
  const width = roomWidth - left - EDGE;
  const longest = Math.max(1, ...terraces.map((t) => t.endMs - t.startMs));
  const nameRow = (k: number) => HEAD + (k + 0.5) * NAME_ROW;
  const topics: DrawnTopic[] = [];
  const grounds: { y: number; top: number; right: number }[] = [];
  let y = HEAD + terms.length * NAME_ROW + GAP;
  for (const terrace of terraces) {
    const row = stacked(terrace, setting, left, y, width);
    topics.push(...row.topics);
    const share = (terrace.endMs - terrace.startMs) / longest;
    grounds.push({ top: y, y: row.endY + 8, right: left + Math.max(MIN_GROUND, width * share) });
    y = row.endY + 8 + GAP * 1.5;
  }
  const foot = grounds.at(-1)?.y ?? y;
  const yOf = (ms: number): number => {
    const i = Math.max(
      0,
      terraces.findLastIndex((t) => ms >= t.startMs),
    );
    const { startMs, endMs } = terraces[i]!;
    const share = Math.min(1, Math.max(0, (ms - startMs) / Math.max(1, endMs - startMs)));
    return grounds[i]!.top + 6 + share * (grounds[i]!.y - grounds[i]!.top - 12);
  };
  const threads = terms.map(({ text, saidMs }, k): DrawnThread => {
    const [x, nameY] = [EDGE + k * THREAD_COLUMN, nameRow(k)];
    const nameX = EDGE + terms.length * THREAD_COLUMN + 2;
    return {
      ...{ text, saidMs, path: `M${nameX - 4} ${nameY}H${x}V${foot}`, knots: saidMs.map((ms) => ({ x, y: yOf(ms) })) },
      name: {
        ...{ x: nameX, y: nameY + 4.5, anchor: 'start' },
        box: { x: nameX - 4, y: nameY - NAME_ROW / 2, width: roomWidth - nameX, height: NAME_ROW },
      },
    };
  });
  return {
    ...{ topics, threads, earth: '', strip: null },
    edge: grounds.map(({ y: at, right }) => `M${left} ${at}H${right}`).join(''),
    width: roomWidth,
    height: foot + EDGE,
  };
}

/**
 * Where a key of the keyboard leads from a topic, among those that are shown.
 * Method: the keys of a tree view (WAI-ARIA Authoring Practices, "Tree View").
 * @returns null where the key leads nowhere
 */
export function neighbour({ topics }: Pick<TerraceLayout, 'topics'>, from: string, key: string): string | null {
  const at = topics.findIndex((t) => t.key === from);
  const topic = topics[at];
  if (!topic) return null;
  switch (key) {
    case 'ArrowDown':
      return topics[at + 1]?.key ?? null;
    case 'ArrowUp':
      return topics[at - 1]?.key ?? null;
    case 'ArrowRight':
      return topic.kind === 'part' && topics[at + 1]?.kind === 'point' ? topics[at + 1]!.key : null;
    case 'ArrowLeft':
      return topic.kind === 'point' ? topic.key.split('.')[0]! : null;
    case 'Home':
      return topics[0]!.key;
    case 'End':
      return topics.at(-1)!.key;
    default:
      return null;
  }
}
