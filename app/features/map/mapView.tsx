import type { TopicMap } from '@immeld/core/contract/templates';
import { zoomIdentity } from 'd3-zoom';
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { type LayoutChangeEvent, View } from 'react-native';
import Svg, { G } from 'react-native-svg';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { printMap, saveMapAsPng, saveMapAsSvg } from './mapFiles';
import { FACE, MapPicture, topicId } from './mapPicture';
import { MapTools } from './mapTools';
import { type DrawnTopic, HEAD, TYPE, type TopicKind, isNarrowRoom, layoutOf, neighbour } from './terraces';
import { useMoving } from './useMoving';

type MapViewProps = { map: TopicMap; onPlay: (ms: number) => void };

/** Below this words cannot be read. */
const READABLE = 0.85;
const STEP = 1.3;
const EDGE = 8;

const context = typeof document === 'undefined' ? null : document.createElement('canvas').getContext('2d');
const measure = (text: string, kind: TopicKind): number => {
  const { size } = TYPE[kind];
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

/** Which parts are folded; on a phone all of them are at first. */
function useFolding(map: TopicMap, roomWidth: number) {
  const foldable = useMemo(() => map.parts.flatMap((p, i) => (p.points.length ? [`${i}`] : [])), [map]);
  const [folded, setFolded] = useState<ReadonlySet<string>>(
    () => new Set(isNarrowRoom(roomWidth) && foldable.length > 1 ? foldable : []),
  );
  const layout = useMemo(() => layoutOf({ map, folded, roomWidth, measure }), [map, folded, roomWidth]);
  const fold = useCallback((key: string) => {
    setFolded((was) => {
      const next = new Set(was);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }, []);
  const isAllOpen = foldable.every((key) => !folded.has(key));
  const foldAll = () => setFolded(new Set(isAllOpen ? foldable : []));
  return { layout, fold, isAllOpen, foldAll: foldable.length > 1 ? foldAll : null };
}

function Sheet({ map, onPlay, room }: MapViewProps & { room: { width: number; height: number } }) {
  const colours = useColours();
  const { layout, fold, isAllOpen, foldAll } = useFolding(map, room.width);
  const [at, setAt] = useState('0');
  const [lit, setLit] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { box, transform, moveTo, zoomBy, minScale } = useMoving();
  const fit = useCallback(
    (smallest: number) => {
      const fits = Math.min((room.width - EDGE * 2) / layout.width, (room.height - EDGE * 2) / layout.height, 1);
      const k = Math.max(fits, smallest);
      const x = Math.max(0, (room.width - layout.width * k) / 2);
      moveTo(zoomIdentity.translate(x, (EDGE - HEAD) * k).scale(k));
    },
    [layout, room, moveTo],
  );
  const isFirst = useRef(true);
  useLayoutEffect(() => {
    if (isFirst.current) fit(isNarrowRoom(room.width) ? 1 : READABLE);
    isFirst.current = false;
  }, [fit, room]);

  const foldAt = useCallback(
    (topic: DrawnTopic) => {
      setAt(topic.key);
      if (topic.folded !== null) fold(topic.key);
    },
    [fold],
  );
  const open = useCallback(
    (topic: DrawnTopic) => {
      setAt(topic.key);
      onPlay(topic.startMs);
    },
    [onPlay],
  );
  const light = useCallback((term: string) => setLit((was) => (was === term ? null : term)), []);
  /** Brings a topic into sight that the keyboard went to. */
  const goTo = useCallback(
    (key: string) => {
      setAt(key);
      const { x: left, y: top, width, height } = layout.topics.find((t) => t.key === key)!;
      const { x, y, k } = transform.current;
      const into = (from: number, to: number, size: number) =>
        from < EDGE ? EDGE - from : to > size - EDGE ? size - EDGE - to : 0;
      const dx = into(left * k + x, (left + width) * k + x, room.width);
      const dy = into(top * k + y, (top + height) * k + y, room.height);
      if (dx || dy) moveTo(zoomIdentity.translate(x + dx, y + dy).scale(k));
    },
    [layout, moveTo, room, transform],
  );
  const press = (event: React.KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const topic = layout.topics.find((t) => t.key === at) ?? layout.topics[0]!;
    const next = neighbour(layout, topic.key, event.key);
    if (event.key === 'Enter') open(topic);
    else if (event.key === ' ' || (event.key === 'ArrowRight' && topic.folded)) foldAt(topic);
    else if (event.key === 'ArrowLeft' && topic.folded === 0) foldAt(topic);
    else if (next !== null) goTo(next);
    else if (event.key === '+' || event.key === '=') zoomBy(STEP);
    else if (event.key === '-') zoomBy(1 / STEP);
    else if (event.key === '0') fit(minScale);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const take = (write: (picture: Parameters<typeof saveMapAsSvg>[0], name: string) => Promise<void>) => {
    const svg = box.current!.querySelector('svg')!;
    const { width, height } = layout;
    write({ svg, width, height, background: colours.paper }, map.title).catch((error: unknown) =>
      setProblem(error instanceof Error ? error.message : String(error)),
    );
  };
  const tree = {
    ...{ role: 'tree', tabIndex: 0, 'aria-label': `Map of ${map.title}`, 'aria-activedescendant': topicId(at) },
    // The topic that the keyboard is at is marked instead of the whole.
    ...{ onKeyDown: press, style: { outline: 'none' } },
  };
  return (
    <View style={{ flex: 1 }}>
      <View
        ref={box as never}
        style={{ flex: 1, overflow: 'hidden', borderTopWidth: 1, borderBottomWidth: 1, borderColor: colours.rule }}
      >
        <Svg width="100%" height="100%" {...({ style: { display: 'block', touchAction: 'none' } } as object)}>
          <G {...({ 'data-moved': true } as object)}>
            <MapPicture
              {...{ title: map.title, peaks: map.peaks, layout, at, lit, tree }}
              onOpen={open}
              onFold={foldAt}
              onLight={light}
            />
          </G>
        </Svg>
      </View>
      {problem && (
        <Type role="alert" tone="rowan">
          {problem}
        </Type>
      )}
      <MapTools
        isNarrow={isNarrowRoom(room.width)}
        onZoom={(isIn) => zoomBy(isIn ? STEP : 1 / STEP)}
        onFit={() => fit(minScale)}
        onFoldAll={foldAll}
        isAllOpen={isAllOpen}
        onSaveSvg={() => take(saveMapAsSvg)}
        onSavePng={() => take(saveMapAsPng)}
        onPrint={(size) => take((picture) => printMap(picture, size))}
      />
    </View>
  );
}
