import { memo, useRef, useState } from 'react';
import { type GestureResponderEvent, View } from 'react-native';
import Svg, { Line, Path, Rect } from 'react-native-svg';
import { barsOf } from '@immeld/core/audio/peaks';
import type { MarkShapeName } from '@immeld/core/contract/markKinds';
import { Shape } from './mark';
import { useSpeakerPaint } from './speakerMark';
import { type Colours, useColours } from './theme';

/** A speaker's turn, from and to as shares of the sound. */
export type StripTurn = { speaker: number; from: number; to: number };

/** A mark at a share of the sound. */
export type StripMark = { at: number; shape: MarkShapeName; tone: keyof Colours };

type StripProps = {
  /** Peak values from 0 to 100. */
  peaks: readonly number[];
  height: number;
  /** Share of the sound that is played, 0 to 1. */
  played?: number;
  /** Who speaks when: a band of patterns along the foot. */
  turns?: readonly StripTurn[];
  /** Marks above the sound, each with its shape; parts as notches. */
  marks?: readonly StripMark[];
  parts?: readonly number[];
  /** Called with a share of the sound when the strip is pressed or dragged. */
  onSeek?: (share: number) => void;
  label: string;
  valueText?: string;
};

const PITCH = 4;
/** Height of the band of speakers. */
const BAND = 9;
const NO_TURNS: readonly StripTurn[] = [];
const NO_MARKS: readonly StripMark[] = [];
const NO_PARTS: readonly number[] = [];
const MARK_SIZE = 9;

/** The sound seen from above: symmetric about its middle, played part in ink. It scrolls the manuscript when dragged. */
export const Strip = memo(function Strip({
  peaks,
  height: whole,
  played,
  turns = NO_TURNS,
  marks = NO_MARKS,
  parts = NO_PARTS,
  onSeek,
  label,
  valueText,
}: StripProps) {
  const colours = useColours();
  const { paint, defs, edge } = useSpeakerPaint();
  const height = turns.length ? whole - BAND - 4 : whole;
  const [width, setWidth] = useState(0);
  const frame = useRef<View>(null);
  const bars = width ? barsOf(peaks, Math.max(1, Math.floor(width / PITCH))) : [];
  const highest = Math.max(20, ...bars);
  const cut = played === undefined ? bars.length : Math.round(played * bars.length);
  const path = (from: number, to: number) =>
    bars
      .slice(from, to)
      .map((bar, i) => {
        const half = Math.max(1, (bar / highest) * (height / 2 - 2));
        const x = (from + i) * PITCH + 1;
        return `M${x} ${(height / 2 - half).toFixed(1)}V${(height / 2 + half).toFixed(1)}`;
      })
      .join('');
  const seek = (event: GestureResponderEvent) => {
    const box = (frame.current as unknown as HTMLElement | null)?.getBoundingClientRect();
    if (box && onSeek)
      onSeek(Math.min(1, Math.max(0, (event.nativeEvent.pageX - box.left - window.scrollX) / box.width)));
  };
  const step = (by: number) => onSeek?.(Math.min(1, Math.max(0, (played ?? 0) + by)));
  return (
    <View
      ref={frame}
      onLayout={(e) => setWidth(e.nativeEvent.layout.width)}
      style={[{ height: whole, width: '100%' }, onSeek ? ({ cursor: 'pointer', touchAction: 'none' } as object) : null]}
      {...(onSeek
        ? {
            role: 'slider' as const,
            tabIndex: 0 as const,
            'aria-label': label,
            'aria-valuemin': 0,
            'aria-valuemax': 100,
            'aria-valuenow': Math.round((played ?? 0) * 100),
            'aria-valuetext': valueText,
            onStartShouldSetResponder: () => true,
            onMoveShouldSetResponder: () => true,
            onResponderGrant: seek,
            onResponderMove: seek,
            onKeyDown: (e: { key: string; preventDefault: () => void; stopPropagation: () => void }) => {
              const by = { ArrowLeft: -0.01, ArrowRight: 0.01, PageDown: -0.1, PageUp: 0.1 }[e.key];
              if (by === undefined) return;
              e.preventDefault();
              e.stopPropagation();
              step(by);
            },
          }
        : label
          ? { role: 'img' as const, 'aria-label': label }
          : { 'aria-hidden': true })}
    >
      {width > 0 && (
        <Svg width={width} height={whole} aria-hidden>
          {turns.length > 0 && defs(Math.max(...turns.map((t) => t.speaker)) + 1)}
          {turns.map(({ speaker, from, to }, i) => (
            <Rect
              key={i}
              x={from * width}
              y={whole - BAND}
              width={Math.max(1, (to - from) * width)}
              height={BAND}
              fill={paint(speaker)}
              stroke={edge(speaker)}
              strokeWidth={0.5}
            />
          ))}
          <Path d={`M0 ${height / 2}H${width}`} stroke={colours.rule} strokeWidth={1} />
          <Path d={path(cut, bars.length)} stroke={colours.faint} strokeOpacity={0.55} strokeWidth={2} />
          <Path d={path(0, cut)} stroke={colours.ink} strokeWidth={2} />
          {parts.map((at) => (
            <Path key={at} d={`M${at * width - 5} 0H${at * width + 5}L${at * width} 7Z`} fill={colours.ink} />
          ))}
          {played !== undefined && (
            <Line x1={played * width} x2={played * width} y1={0} y2={whole} stroke={colours.rowan} strokeWidth={2} />
          )}
        </Svg>
      )}
      {width > 0 &&
        marks.map(({ at, shape, tone }, i) => (
          <View
            key={i}
            aria-hidden
            style={{ position: 'absolute', left: at * width - MARK_SIZE / 2, top: -2, pointerEvents: 'none' }}
          >
            <Shape shape={shape} fill={colours[tone]} size={MARK_SIZE} />
          </View>
        ))}
    </View>
  );
});
