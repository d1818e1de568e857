import { barsOf } from '@immeld/core/audio/peaks';
import { clockTime } from '@immeld/core/formats/times';
import { memo } from 'react';
import { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { type Colours, FONTS, useColours } from '../../ui/theme';
import {
  type DrawnThread,
  type DrawnTopic,
  POST_WIDTH,
  SIGN_WIDTH,
  TIME_HEIGHT,
  TYPE,
  type TerraceLayout,
  type TopicKind,
} from './terraces';

export const FACE: Record<TopicKind, { fontFamily: string; tone: keyof Colours }> = {
  part: { fontFamily: FONTS.faceBold, tone: 'petrol' },
  point: { fontFamily: FONTS.face, tone: 'ink' },
};
const LEVEL: Record<TopicKind, number> = { part: 1, point: 2 };
const SMALL = 13;
const TITLE_SIZE = 17;
const TITLE_LINE = 24;
/** Width of a bar of the strip with the room beside it. */
const PITCH = 4;
/** Half of what may be touched to fold. */
const SIGN_TOUCH = 24;
/** What is not lit while a thread is. */
const DIMMED = 0.45;

type MapPictureProps = {
  title: string;
  peaks: readonly number[];
  layout: TerraceLayout;
  /** Key of the topic that the keyboard is at. */
  at: string;
  /** The term whose thread is lit alone. */
  lit: string | null;
  onOpen: (topic: DrawnTopic) => void;
  onFold: (topic: DrawnTopic) => void;
  onLight: (term: string) => void;
  /** Props of the tree: its name, its keys. */
  tree: object;
};

/** Props of what can be pressed: react-native-svg puts its own in the place of `onClick` unless `onPress` is null. */
const pressed = (act: () => void) => ({ onPress: null, onClick: act, style: { cursor: 'pointer' } }) as object;

export const topicId = (key: string): string => `topic-${key}`;

/** Terraces over time, the points that stand on them, and the threads that run through the earth below. */
export const MapPicture = memo(function MapPicture(props: MapPictureProps) {
  const { title, layout, at, lit, onOpen, onFold, onLight, tree } = props;
  const colours = useColours();
  const litMs = lit === null ? null : new Set(layout.threads.find((t) => t.text === lit)?.saidMs);
  return (
    <>
      <G {...({ 'data-printed': true, style: { display: 'none' } } as object)}>
        <SvgText x={20} y={TITLE_LINE} fontFamily={FONTS.textBold} fontSize={TITLE_SIZE} fill={colours.ink}>
          {title}
        </SvgText>
      </G>
      <Ground {...props} />
      <G {...tree}>
        {layout.topics.map((topic) => (
          <TopicOf
            key={topic.key}
            topic={topic}
            isAt={topic.key === at}
            isDimmed={litMs !== null && topic.kind === 'point' && !litMs.has(topic.startMs)}
            onOpen={onOpen}
            onFold={onFold}
          />
        ))}
      </G>
      {layout.threads.length > 0 && (
        <G {...({ role: 'group', 'aria-label': 'Terms that come back' } as object)}>
          {layout.threads.map((thread) => (
            <ThreadOf
              key={thread.text}
              thread={thread}
              isLit={thread.text === lit}
              isDimmed={lit !== null && thread.text !== lit}
              onLight={onLight}
            />
          ))}
        </G>
      )}
    </>
  );
});

/** The strip of the sound above, and the ground under the points. */
function Ground({ layout: { strip, edge, earth }, peaks }: MapPictureProps) {
  const colours = useColours();
  const wholeMs = strip?.spans.at(-1)?.toMs ?? 1;
  return (
    <G aria-hidden>
      {earth !== '' && <Path d={earth} fill={colours.sheet} />}
      <Path d={edge} fill="none" stroke={colours.petrol} strokeWidth={2.5} strokeLinejoin="round" />
      {strip?.spans.map(({ x, width, fromMs, toMs }) => {
        const own = peaks.slice(
          Math.floor((fromMs / wholeMs) * peaks.length),
          Math.ceil((toMs / wholeMs) * peaks.length),
        );
        const bars = barsOf(own, Math.max(1, Math.floor((width - 6) / PITCH)));
        const middle = strip.y + strip.height / 2;
        const half = (bar: number) => Math.max(1, (Math.min(100, bar) / 100) * (strip.height / 2 - 2));
        return (
          <G key={x}>
            <Path
              d={bars.map((bar, i) => `M${x + 4 + i * PITCH} ${middle - half(bar)}v${half(bar) * 2}`).join('')}
              stroke={colours.faint}
              strokeWidth={2}
            />
            <Line x1={x} x2={x} y1={strip.y} y2={strip.y + strip.height} stroke={colours.petrol} strokeWidth={1.5} />
          </G>
        );
      })}
    </G>
  );
}

type TopicProps = Pick<MapPictureProps, 'onOpen' | 'onFold'> & { topic: DrawnTopic; isAt: boolean; isDimmed: boolean };

function TopicOf({ topic, isAt, isDimmed, onOpen, onFold }: TopicProps) {
  const colours = useColours();
  const { key, kind, text, startMs, x, y, width, height, lines, folded } = topic;
  const { size, lineHeight } = TYPE[kind];
  const time = clockTime(startMs);
  const indent = kind === 'point' ? POST_WIDTH : folded === null ? 0 : SIGN_WIDTH;
  const count = folded ? ` · ${folded} point${folded === 1 ? '' : 's'}` : '';
  // What react-native-svg does not know it hands on to the browser.
  const spoken = {
    ...{ id: topicId(key), role: 'treeitem', 'aria-level': LEVEL[kind], 'aria-selected': isAt },
    'aria-label': `${text} Play ${time}`,
    ...(folded === null ? {} : { 'aria-expanded': folded === 0 }),
  } as object;
  return (
    <G {...spoken} opacity={isDimmed ? DIMMED : 1}>
      {isAt && (
        <Rect
          {...({ 'data-at': true } as object)}
          {...{ x: x - 5, y: y - 4, width: width + 10, height: height + 7, rx: 4, fill: colours.lit }}
        />
      )}
      <G {...pressed(() => onOpen(topic))}>
        <Rect x={x} y={y} width={width} height={height} fill="transparent" />
        {kind === 'point' && (
          <Line x1={x + 1} x2={x + 1} y1={y + 2} y2={y + height + 2} stroke={colours.petrol} strokeWidth={1} />
        )}
        <SvgText x={x + indent} y={y + SMALL - 1} fontFamily={FONTS.face} fontSize={SMALL} fill={colours.faint}>
          {`${time}${count}`}
        </SvgText>
        {lines.map((line, i) => (
          <SvgText
            key={i}
            x={x + indent}
            y={y + TIME_HEIGHT + i * lineHeight + lineHeight * 0.72}
            fontFamily={FACE[kind].fontFamily}
            fontSize={size}
            fill={colours[FACE[kind].tone]}
          >
            {line}
          </SvgText>
        ))}
      </G>
      {folded !== null && (
        <G {...({ 'data-handle': key, ...pressed(() => onFold(topic)) } as object)}>
          <Rect
            {...{ x: x + 6 - SIGN_TOUCH, y: y + TIME_HEIGHT + 8 - SIGN_TOUCH }}
            {...{ width: SIGN_TOUCH * 2, height: SIGN_TOUCH * 2, fill: 'transparent' }}
          />
          <Path
            d={folded ? 'M0 -6L9 0L0 6Z' : 'M-1 -4L11 -4L5 5Z'}
            transform={`translate(${x + 1} ${y + TIME_HEIGHT + 9})`}
            fill={folded ? colours.petrol : 'none'}
            stroke={colours.petrol}
            strokeWidth={1.5}
            strokeLinejoin="round"
          />
        </G>
      )}
    </G>
  );
}

type ThreadProps = Pick<MapPictureProps, 'onLight'> & { thread: DrawnThread; isLit: boolean; isDimmed: boolean };

function ThreadOf({ thread: { text, saidMs, path, knots, name }, isLit, isDimmed, onLight }: ThreadProps) {
  const colours = useColours();
  const tone = isLit ? colours.heather : colours.faint;
  const light = () => onLight(text);
  // The role of a button would become an element of HTML, which an SVG does not draw.
  const box = {
    ...{ role: 'checkbox', tabIndex: 0, 'aria-checked': isLit },
    'aria-label': `${text}, said ${saidMs.length} times`,
    onKeyDown: (event: React.KeyboardEvent) => {
      if (event.key !== 'Enter' && event.key !== ' ') return;
      event.preventDefault();
      event.stopPropagation();
      light();
    },
  };
  return (
    <G opacity={isDimmed ? DIMMED : 1}>
      <Path d={path} fill="none" stroke={tone} strokeWidth={isLit ? 2 : 1} />
      {knots.map(({ x, y }, i) => (
        <Circle key={i} cx={x} cy={y} r={isLit ? 4.5 : 3.5} fill={tone} />
      ))}
      <G {...({ ...box, ...pressed(light) } as object)}>
        <Rect {...name.box} fill="transparent" />
        <SvgText
          {...{ x: name.x, y: name.y, textAnchor: name.anchor, fontFamily: isLit ? FONTS.faceBold : FONTS.face }}
          fontSize={SMALL}
          fill={isLit ? colours.heather : colours.ink}
        >
          {text}
        </SvgText>
      </G>
    </G>
  );
}
