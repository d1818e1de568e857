import type { Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import { type PointerEvent, useMemo, useRef, useState } from 'react';
import { useChanges } from '../../api/changes';
import { useColours } from '../../ui/theme';
import { useUndoBar } from '../../ui/undoBar';
import { type SoundPlayer, usePlayer } from './soundPlayer';
import type { Window } from './stripWindow';
import { placedSlides, slideAt } from './useSlides';

const HEIGHT = 30;
const STEP_MS = 1000;
const LEAP_MS = 10_000;

type PegProps = { recording: Recording; player: SoundPlayer; window: Window };

/** Where the slides begin, under the strip. The one that is shown has a peg: dragged, or moved with the arrow keys. */
export function SlidePegs({ recording, player, window }: PegProps) {
  const colours = useColours();
  const total = recording.durationMs ?? 0;
  const slides = useMemo(() => placedSlides(recording), [recording]);
  const at = usePlayer(player, (s) => slideAt(slides, s.timeMs));
  const { slip: change } = useChanges();
  const show = useUndoBar();
  const frame = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState<number | null>(null);
  const slide = slides[at];
  if (!slide || total === 0) return null;
  const length = window.to - window.from;
  const left = (ms: number) => `${((ms / total - window.from) / length) * 100}%`;
  const isSeen = (ms: number) => ms / total >= window.from && ms / total <= window.to;
  // A slide stays between its neighbours: they were shown in their order.
  const between = (ms: number) =>
    Math.round(Math.min(slides[at + 1]?.startMs ?? total, Math.max(slides[at - 1]?.startMs ?? 0, ms)));
  const put = (to: number) => {
    const startMs = between(to);
    if (startMs === slide.startMs) return;
    const { id, startMs: before } = slide;
    change.mutate({ id, change: { startMs } });
    show(`“${slide.text}” begins at ${clockTime(startMs)} now.`, () =>
      change.mutate({ id, change: { startMs: before } }),
    );
  };
  const timeOf = (event: PointerEvent): number => {
    const box = frame.current!.getBoundingClientRect();
    return (window.from + ((event.clientX - box.left) / box.width) * length) * total;
  };
  const shownMs = dragged ?? slide.startMs;
  return (
    <div ref={frame} style={{ position: 'relative', height: HEIGHT }}>
      {slides
        .filter((s) => s !== slide && isSeen(s.startMs))
        .map((s) => (
          <div
            key={s.id}
            aria-hidden
            style={{
              ...{ position: 'absolute', left: left(s.startMs), top: 0, width: 2, height: 8 },
              background: s.slide?.isProposed ? colours.faint : colours.petrol,
            }}
          />
        ))}
      {isSeen(shownMs) && (
        <div
          role="slider"
          tabIndex={0}
          aria-label={`Beginning of slide ${at + 1}`}
          aria-valuemin={0}
          aria-valuemax={total}
          aria-valuenow={shownMs}
          aria-valuetext={`${clockTime(shownMs)}, ${slide.text}`}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            setDragged(slide.startMs);
          }}
          onPointerMove={(event) => dragged !== null && setDragged(between(timeOf(event)))}
          onPointerUp={() => {
            if (dragged !== null) put(dragged);
            setDragged(null);
          }}
          onPointerCancel={() => setDragged(null)}
          onKeyDown={(event) => {
            const by = { ArrowLeft: -STEP_MS, ArrowRight: STEP_MS, PageDown: -LEAP_MS, PageUp: LEAP_MS }[event.key];
            if (!by) return;
            event.preventDefault();
            event.stopPropagation();
            put(slide.startMs + by);
          }}
          style={{
            ...{ position: 'absolute', left: left(shownMs), top: 0, width: 48, height: HEIGHT, marginLeft: -24 },
            ...{ cursor: 'ew-resize', touchAction: 'none', display: 'grid', justifyItems: 'center' },
          }}
        >
          <svg width={22} height={HEIGHT - 4} viewBox="0 0 22 26" aria-hidden>
            <path d="M11 0V10" stroke={colours.petrol} strokeWidth={2} />
            <rect
              {...{ x: 2, y: 9, width: 18, height: 13 }}
              fill={colours.paper}
              stroke={colours.petrol}
              strokeWidth={2}
              strokeDasharray={slide.slide?.isProposed ? '3 2' : undefined}
            />
          </svg>
        </div>
      )}
    </div>
  );
}
