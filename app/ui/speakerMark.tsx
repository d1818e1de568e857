import { type ReactNode, useId } from 'react';
import Svg, { Circle, Defs, Path, Pattern, Rect } from 'react-native-svg';
import { type Colours, useColours } from './theme';

const TINTS: readonly (keyof Colours)[] = ['petrol', 'ochre', 'heather', 'lichen', 'rowan', 'ink'];
const SIZE = 6;

/** One tile of each pattern: told apart without colour, in print and by eyes that see few colours. */
const TILES: readonly ((colour: string) => ReactNode)[] = [
  (c) => <Rect width={SIZE} height={SIZE} fill={c} />,
  (c) => (
    <Path
      d={`M-1 ${SIZE + 1}L${SIZE + 1} -1M-1 1L1 -1M${SIZE - 1} ${SIZE + 1}L${SIZE + 1} ${SIZE - 1}`}
      stroke={c}
      strokeWidth={2}
    />
  ),
  (c) => <Circle cx={3} cy={3} r={1.7} fill={c} />,
  (c) => <Path d={`M0 1.5H${SIZE}M0 4.5H${SIZE}`} stroke={c} strokeWidth={1.4} />,
  (c) => <Path d={`M1.5 0V${SIZE}M4.5 0V${SIZE}`} stroke={c} strokeWidth={1.4} />,
  (c) => <Path d={`M0 3H${SIZE}M3 0V${SIZE}`} stroke={c} strokeWidth={1} />,
];

/** The definition of a speaker's pattern and the paint that uses it, for one drawing. */
export function useSpeakerPaint() {
  const colours = useColours();
  const own = useId().replace(/[^\w-]/g, '');
  const place = (index: number) => index % TILES.length;
  return {
    paint: (index: number) => `url(#${own}-${place(index)})`,
    defs: (count: number) => (
      <Defs>
        {TILES.slice(0, count).map((tile, i) => (
          <Pattern key={i} id={`${own}-${i}`} width={SIZE} height={SIZE} patternUnits="userSpaceOnUse">
            {tile(colours[TINTS[i]!])}
          </Pattern>
        ))}
      </Defs>
    ),
    edge: (index: number) => colours[TINTS[place(index)]!],
  };
}

/** A speaker's pattern as a small square beside the name. */
export function SpeakerMark({ index, size = 14 }: { index: number; size?: number }) {
  const { paint, defs, edge } = useSpeakerPaint();
  return (
    <Svg width={size} height={size} aria-hidden>
      {defs(index + 1)}
      <Rect x={0.5} y={0.5} width={size - 1} height={size - 1} fill={paint(index)} stroke={edge(index)} />
    </Svg>
  );
}
