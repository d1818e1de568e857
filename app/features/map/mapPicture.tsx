import { clockTime } from '@immeld/core/formats/times';
import { memo } from 'react';
import { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { type Colours, FONTS, useColours } from '../../ui/theme';
import { type DrawnTopic, FOOT, type MapLayout, type TopicKind } from './mapLayout';

export const FACE: Record<TopicKind, { fontFamily: string; tone: keyof Colours }> = {
  centre: { fontFamily: FONTS.textBold, tone: 'ink' },
  part: { fontFamily: FONTS.faceBold, tone: 'petrol' },
  point: { fontFamily: FONTS.face, tone: 'ink' },
};
const STROKE: Record<TopicKind, number> = { centre: 2.5, part: 1.75, point: 1 };
const LEVEL: Record<TopicKind, number> = { centre: 1, part: 2, point: 3 };
const TIME_SIZE = 13;
/** Radius of what folds, and of what may be touched around it. */
const HANDLE = 9;
const HANDLE_TOUCH = 22;

type MapPictureProps = {
  layout: MapLayout;
  /** Key of the topic that the keyboard is at. */
  at: string;
  onOpen: (topic: DrawnTopic) => void;
  onFold: (topic: DrawnTopic) => void;
};

/** Props of what can be pressed: react-native-svg puts its own in the place of `onClick` unless `onPress` is null. */
const pressed = (act: () => void) => ({ onPress: null, onClick: act, style: { cursor: 'pointer' } }) as object;

export const topicId = (key: string): string => `topic-${key || 'centre'}`;

/** Twigs with words along them. */
export const MapPicture = memo(function MapPicture({ layout, at, onOpen, onFold }: MapPictureProps) {
  const colours = useColours();
  return (
    <>
      <G fill="none" aria-hidden>
        {layout.twigs.map(({ key, path }) => (
          <Path
            key={key}
            d={path}
            stroke={colours.petrol}
            strokeWidth={key.includes('.') ? 1 : 1.75}
            strokeLinecap="round"
          />
        ))}
      </G>
      {layout.topics.map((topic) => (
        <TopicOf key={topic.key} topic={topic} isAt={topic.key === at} onOpen={onOpen} onFold={onFold} />
      ))}
    </>
  );
});

type TopicProps = Omit<MapPictureProps, 'layout' | 'at'> & { topic: DrawnTopic; isAt: boolean };

function TopicOf({ topic, isAt, onOpen, onFold }: TopicProps) {
  const colours = useColours();
  const { key, kind, text, startMs, x, y, width, lines, folded, size, lineHeight } = topic;
  const top = y - lines.length * lineHeight;
  const { fontFamily, tone } = FACE[kind];
  const time = startMs === null ? null : clockTime(startMs);
  // What react-native-svg does not know it hands on to the browser.
  const spoken = {
    ...{ id: topicId(key), role: 'treeitem', 'aria-level': LEVEL[kind], 'aria-selected': isAt },
    ...{ 'aria-label': time ? `${text} Play ${time}` : text },
    ...(folded === null ? {} : { 'aria-expanded': folded === 0 }),
  } as object;
  return (
    <G {...spoken}>
      {isAt && key !== '' && (
        <Rect
          {...({ 'data-lit': true } as object)}
          x={x - 6}
          y={top - 4}
          width={width + 12}
          height={y - top + FOOT + 4}
          rx={4}
          fill={colours.lit}
        />
      )}
      <G {...pressed(() => onOpen(topic))}>
        <Rect x={x} y={top} width={width} height={y - top + FOOT} fill="transparent" />
        {lines.map((line, i) => (
          <SvgText
            key={i}
            x={x}
            y={top + i * lineHeight + lineHeight * 0.72}
            fontFamily={fontFamily}
            fontSize={size}
            fill={colours[tone]}
          >
            {line}
          </SvgText>
        ))}
        <Line
          x1={x}
          x2={x + width}
          y1={y}
          y2={y}
          stroke={colours.petrol}
          strokeWidth={STROKE[kind]}
          strokeLinecap="round"
        />
        {time && (
          <SvgText x={x} y={y + TIME_SIZE + 2} fontFamily={FONTS.face} fontSize={TIME_SIZE} fill={colours.faint}>
            {time}
          </SvgText>
        )}
      </G>
      {folded !== null && (
        <G {...({ 'data-handle': key, ...pressed(() => onFold(topic)) } as object)}>
          <Circle cx={x + width} cy={y} r={HANDLE_TOUCH} fill="transparent" />
          <Circle
            cx={x + width}
            cy={y}
            r={HANDLE}
            fill={folded ? colours.petrol : colours.paper}
            stroke={colours.petrol}
            strokeWidth={1.5}
          />
          <SvgText
            x={x + width}
            y={y + 4.5}
            textAnchor="middle"
            fontFamily={FONTS.faceBold}
            fontSize={13}
            fill={folded ? colours.paper : colours.petrol}
          >
            {folded || '–'}
          </SvgText>
        </G>
      )}
    </G>
  );
}
