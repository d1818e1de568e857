import { select } from 'd3-selection';
import { type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity } from 'd3-zoom';
import { useCallback, useLayoutEffect, useRef } from 'react';

const MIN_SCALE = 0.3;
const MAX_SCALE = 3;

/** Where a sheet lies in its box, moved by fingers, mouse and wheel (d3-zoom), or by hand. */
export function useMoving() {
  const box = useRef<HTMLElement>(null);
  const transform = useRef<ZoomTransform>(zoomIdentity);
  const behaviour = useRef<ZoomBehavior<HTMLElement, unknown> | null>(null);
  useLayoutEffect(() => {
    const element = box.current!;
    const moving = zoom<HTMLElement, unknown>()
      .scaleExtent([MIN_SCALE, MAX_SCALE])
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
  return { box, transform, moveTo, zoomBy, minScale: MIN_SCALE };
}
