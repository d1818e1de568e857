import type { TopicMap } from '@immeld/core/contract/templates';
import { clockTime } from '@immeld/core/formats/times';
import { select } from 'd3-selection';
import { type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity } from 'd3-zoom';
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { type LayoutChangeEvent, ScrollView, View } from 'react-native';
import Svg, { G } from 'react-native-svg';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { saveMapAsPng, saveMapAsSvg } from './mapFiles';
import { type DrawnTopic, type TopicKind, layoutOf, neighbour, settingFor, treeOf } from './mapLayout';
import { FACE, MapPicture, topicId } from './mapPicture';

type MapViewProps = { map: TopicMap; onPlay: (ms: number) => void };

const SMALLEST = 0.3;
const LARGEST = 3;
/** Below this words cannot be read. */
const READABLE = 0.85;
const STEP = 1.3;
const EDGE = 8;

const context = typeof document === 'undefined' ? null : document.createElement('canvas').getContext('2d');
const measure = (text: string, kind: TopicKind, size: number): number => {
  if (!context) return text.length * size * 0.5;
  context.font = `${size}px ${FACE[kind].fontFamily}`;
  return context.measureText(text).width;
};

/** A map to be moved with fingers, wheel, keys or buttons; a topic plays from where it was said. */
export function MapView({ map, onPlay }: MapViewProps) {
  const [room, setRoom] = useState<{ width: number; height: number } | null>(null);
  const measured = ({ nativeEvent: { layout } }: LayoutChangeEvent) =>
    setRoom((was) => was ?? { width: layout.width, height: layout.height });
  return (
    <View style={{ flex: 1 }} onLayout={measured}>
      {room && <Sheet map={map} onPlay={onPlay} room={room} />}
    </View>
  );
}

function Sheet({ map, onPlay, room }: MapViewProps & { room: { width: number; height: number } }) {
  const colours = useColours();
  const root = useMemo(() => treeOf(map), [map]);
  const setting = settingFor(room.width);
  const foldable = useMemo(() => root.topics.filter((t) => t.topics.length).map((t) => t.key), [root]);
  const [folded, setFolded] = useState<ReadonlySet<string>>(() => {
    const unfolded = layoutOf(root, new Set(), setting, measure);
    const fits = unfolded.width * READABLE <= room.width && unfolded.height * READABLE <= room.height;
    return new Set(fits ? [] : foldable);
  });
  const layout = useMemo(() => layoutOf(root, folded, setting, measure), [root, folded, setting]);
  const [at, setAt] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const { box, transform, moveTo, zoomBy } = useMoving();
  const whole = useCallback(
    (smallest = SMALLEST) => {
      const fits = Math.min((room.width - EDGE * 2) / layout.width, (room.height - EDGE * 2) / layout.height, 1.2);
      const k = Math.max(fits, smallest);
      const x = layout.width * k < room.width ? (room.width - layout.width * k) / 2 : EDGE;
      const centre = layout.topics[0]!.y * k;
      const y = layout.height * k < room.height ? (room.height - layout.height * k) / 2 : room.height / 2 - centre;
      moveTo(zoomIdentity.translate(x, y).scale(k));
    },
    [layout, room, moveTo],
  );
  const first = useRef(true);
  useLayoutEffect(() => {
    if (first.current) whole(READABLE);
    first.current = false;
  }, [whole]);

  /** Folds or unfolds; the topic stays where it is, and what comes out is moved into sight. */
  const fold = useCallback(
    (topic: DrawnTopic) => {
      if (topic.folded === null) return;
      const next = new Set(folded);
      if (!next.delete(topic.key)) next.add(topic.key);
      const after = layoutOf(root, next, setting, measure);
      const moved = after.topics.find((t) => t.key === topic.key)!;
      const { x, y, k } = transform.current;
      const right = Math.max(...after.topics.filter((t) => t.parent === topic.key).map((t) => t.x + t.width), 0);
      const seen = right ? Math.max(Math.min(x, room.width - EDGE - right * k), EDGE - moved.x * k) : x;
      setFolded(next);
      setAt(topic.key);
      moveTo(zoomIdentity.translate(seen, y + (topic.y - moved.y) * k).scale(k));
    },
    [folded, root, room, setting, moveTo, transform],
  );
  const open = useCallback(
    (topic: DrawnTopic) => {
      setAt(topic.key);
      onPlay(topic.startMs ?? 0);
    },
    [onPlay],
  );
  /** Brings a topic into sight that the keyboard went to. */
  const goTo = (key: string) => {
    setAt(key);
    const topic = layout.topics.find((t) => t.key === key)!;
    const { x, y, k } = transform.current;
    const into = (from: number, to: number, size: number) =>
      from < EDGE ? EDGE - from : to > size - EDGE ? size - EDGE - to : 0;
    const top = (topic.y - topic.lines.length * topic.lineHeight) * k + y;
    const dx = into(topic.x * k + x, (topic.x + topic.width) * k + x, room.width);
    const dy = into(top, (topic.y + 24) * k + y, room.height);
    if (dx || dy) moveTo(zoomIdentity.translate(x + dx, y + dy).scale(k));
  };
  const press = (event: React.KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const topic = layout.topics.find((t) => t.key === at) ?? layout.topics[0]!;
    const next = neighbour(layout, topic.key, event.key);
    if (event.key === 'Enter') open(topic);
    else if (event.key === ' ') fold(topic);
    else if (event.key === 'ArrowRight' && topic.folded) fold(topic);
    else if (next !== null) goTo(next);
    else if (event.key === '+' || event.key === '=') zoomBy(STEP);
    else if (event.key === '-') zoomBy(1 / STEP);
    else if (event.key === '0') whole();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const isAllOpen = foldable.every((key) => !folded.has(key));
  const save = (write: typeof saveMapAsSvg) => {
    const svg = box.current!.querySelector('svg')!;
    const { width, height } = layout;
    write({ svg, width, height, background: colours.paper }, map.title).catch((error: unknown) =>
      setProblem(error instanceof Error ? error.message : String(error)),
    );
  };
  const tree = {
    ...{ role: 'tree', tabIndex: 0, 'aria-label': `Map of ${map.title}`, 'aria-activedescendant': topicId(at) },
    ...{ onKeyDown: press, style: { display: 'block', touchAction: 'none', outlineColor: colours.petrol } },
  } as object;
  return (
    <View style={{ flex: 1 }}>
      <View
        ref={box as never}
        style={{ flex: 1, overflow: 'hidden', borderTopWidth: 1, borderBottomWidth: 1, borderColor: colours.rule }}
      >
        <Svg width="100%" height="100%" {...tree}>
          <G {...({ 'data-moved': true } as object)}>
            <MapPicture layout={layout} at={at} onOpen={open} onFold={fold} />
          </G>
        </Svg>
      </View>
      {problem && (
        <Type role="alert" tone="rowan">
          {problem}
        </Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
        <Press label="Zoom in" onPress={() => zoomBy(STEP)} style={{ alignItems: 'center' }}>
          <Type size="large">+</Type>
        </Press>
        <Press label="Zoom out" onPress={() => zoomBy(1 / STEP)} style={{ alignItems: 'center', marginRight: 12 }}>
          <Type size="large">−</Type>
        </Press>
        <WordButton label="Fit to screen" onPress={() => whole()} />
        {foldable.length > 0 && (
          <WordButton
            label={isAllOpen ? 'Collapse all' : 'Expand all'}
            onPress={() => setFolded(new Set(isAllOpen ? foldable : []))}
          />
        )}
        <WordButton label="Save as SVG" onPress={() => save(saveMapAsSvg)} />
        <WordButton label="Save as PNG" onPress={() => save(saveMapAsPng)} />
      </View>
    </View>
  );
}

/** Where the sheet lies, moved by fingers, mouse and wheel (d3-zoom), or by hand. */
function useMoving() {
  const box = useRef<HTMLElement>(null);
  const transform = useRef<ZoomTransform>(zoomIdentity);
  const behaviour = useRef<ZoomBehavior<HTMLElement, unknown> | null>(null);
  useLayoutEffect(() => {
    const element = box.current!;
    const moving = zoom<HTMLElement, unknown>()
      .scaleExtent([SMALLEST, LARGEST])
      .on('zoom', ({ transform: now }: { transform: ZoomTransform }) => {
        transform.current = now;
        element.querySelector('[data-moved]')?.setAttribute('transform', now.toString());
      });
    behaviour.current = moving;
    // Two taps play twice; they do not zoom.
    select(element).call(moving).on('dblclick.zoom', null);
    return () => void select(element).on('.zoom', null);
  }, []);
  const moveTo = useCallback((to: ZoomTransform) => {
    const { current } = behaviour;
    if (current) select(box.current!).call(current.transform, to);
  }, []);
  const zoomBy = (factor: number) => select(box.current!).call(behaviour.current!.scaleBy, factor);
  return { box, transform, moveTo, zoomBy };
}

/** The same topics one under the other. */
export function MapList({ map, onPlay }: MapViewProps) {
  return (
    <ScrollView contentContainerStyle={{ paddingBottom: 32 }}>
      <View role="list" aria-label={`Topics of ${map.title}`}>
        {map.parts.map((part, i) => (
          <View role="listitem" key={i} style={{ paddingTop: 10 }}>
            {part.title !== null && <ListedTopic text={part.title} startMs={part.startMs} isPart onPlay={onPlay} />}
            <View role="list" aria-label={part.title ?? 'Points'} style={{ paddingLeft: part.title === null ? 0 : 22 }}>
              {part.points.map((point) => (
                <View role="listitem" key={point.startMs}>
                  <ListedTopic {...point} onPlay={onPlay} />
                </View>
              ))}
            </View>
          </View>
        ))}
      </View>
    </ScrollView>
  );
}

type ListedProps = { text: string; startMs: number; isPart?: boolean; onPlay: (ms: number) => void };

function ListedTopic({ text, startMs, isPart = false, onPlay }: ListedProps) {
  return (
    <Press label={`${text} Play ${clockTime(startMs)}`} onPress={() => onPlay(startMs)} style={{ paddingVertical: 4 }}>
      <Type size="body" face={isPart ? 'face' : 'text'} isBold={isPart}>
        {text}
        <Type size="tiny" tone="petrol">
          {'  '}
          {clockTime(startMs)}
        </Type>
      </Type>
    </Press>
  );
}
