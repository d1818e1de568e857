import { type RefObject, useEffect, useState } from 'react';
import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { useColours } from '../../ui/theme';

type Thread = { key: string; along: string; across: string };

/** How far under the line of a word its thread runs, and where it turns towards its slip. */
const UNDER_LINE = 1;
const TURN = 26;

/**
 * Threads from words to what stands beside them: along under the line of the word to the edge of the text, then to
 * the slip. Drawn again when the row changes its size.
 */
export function Threads({ row, count }: { row: RefObject<View | null>; count: number }) {
  const colours = useColours();
  const [threads, setThreads] = useState<readonly Thread[]>([]);
  useEffect(() => {
    const place = row.current as unknown as HTMLElement | null;
    if (!place || count === 0) return setThreads([]);
    const draw = () => setThreads(threadsIn(place));
    const observer = new ResizeObserver(draw);
    observer.observe(place);
    for (const child of place.querySelectorAll('[data-beside]')) observer.observe(child);
    return () => observer.disconnect();
  }, [row, count]);
  if (threads.length === 0) return null;
  const line = { fill: 'none', stroke: colours.petrol, strokeWidth: 1, strokeOpacity: 0.7 };
  return (
    <View aria-hidden style={{ position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, pointerEvents: 'none' }}>
      <Svg width="100%" height="100%" style={{ overflow: 'visible' } as object}>
        {threads.flatMap(({ key, along, across }) => [
          <Path key={`${key}-along`} {...line} strokeDasharray="1 4" d={along} />,
          <Path key={key} {...line} d={across} />,
        ])}
      </Svg>
    </View>
  );
}

/** The threads of a row, measured where its words and slips stand now. */
function threadsIn(row: HTMLElement): Thread[] {
  const origin = row.getBoundingClientRect();
  const words = [...row.querySelectorAll<HTMLElement>('[data-from]')];
  return [...row.querySelectorAll<HTMLElement>('[data-beside]')].flatMap((slip) => {
    const ms = Number(slip.dataset['beside']);
    const word = words.findLast((w) => Number(w.dataset['from']) <= ms) ?? words[0];
    if (!word) return [];
    // A word may be broken over two lines: its last part is nearest.
    const [from, to] = [[...word.getClientRects()].at(-1)!, slip.getBoundingClientRect()];
    if (!from) return [];
    const text = word.closest('[data-text]')?.getBoundingClientRect() ?? from;
    const [x0, y0] = [from.left - origin.left, from.bottom - origin.top + UNDER_LINE];
    const [edge, x1, y1] = [text.right - origin.left + 6, to.left - origin.left, to.top - origin.top + 14];
    const turn = Math.max(edge, x1 - TURN);
    const along = `M${x0} ${y0}H${edge}`;
    return [{ key: slip.dataset['key']!, along, across: `M${edge} ${y0}L${turn} ${y1}H${x1}` }];
  });
}
