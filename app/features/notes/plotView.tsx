import { plotInWords } from '@immeld/core/compute/plotInWords';
import type { Plot } from '@immeld/core/compute/plot';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { View } from 'react-native';
import Svg, { Circle, ClipPath, Defs, G, Line, Path, Rect, Text } from 'react-native-svg';
import { FONTS, useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

const WIDTH = 320;
const HEIGHT = 200;
const TICKS = 5;
const LETTERS = 11;
const DOT = 4;

/** A curve of a note on squared paper, with its roots and turning points as dots, and both in words underneath. */
export function PlotView({ plot }: { plot: Plot }) {
  const colours = useColours();
  const x = scaleLinear().domain(plot.x).range([0, WIDTH]);
  const y = scaleLinear().domain(plot.y).range([HEIGHT, 0]);
  const draw = line<[number, number]>(
    ([px]) => x(px),
    ([, py]) => y(py),
  );
  const words = plotInWords(plot);
  const clip = `plot-${plot.label.replace(/[^a-z0-9]/gi, '')}`;
  const number = { fontFamily: FONTS.face, fontSize: LETTERS, fill: colours.faint };
  return (
    <View style={{ maxWidth: WIDTH, paddingVertical: 8, gap: 4 }}>
      <Svg
        width="100%"
        height={HEIGHT}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Curve of ${plot.label}: ${words}`}
      >
        <Defs>
          <ClipPath id={clip}>
            <Rect x={0} y={0} width={WIDTH} height={HEIGHT} />
          </ClipPath>
        </Defs>
        <Rect x={0.5} y={0.5} width={WIDTH - 1} height={HEIGHT - 1} fill={colours.sheet} stroke={colours.rule} />
        {x.ticks(TICKS).map((tick) => (
          <G key={`x${tick}`}>
            <Line x1={x(tick)} x2={x(tick)} y1={0} y2={HEIGHT} stroke={tick === 0 ? colours.faint : colours.rule} />
            <Text {...number} x={x(tick) + 3} y={Math.min(HEIGHT - 3, Math.max(LETTERS, y(0) - 3))}>
              {x.tickFormat(TICKS)(tick)}
            </Text>
          </G>
        ))}
        {y
          .ticks(TICKS)
          .filter((tick) => tick !== 0)
          .map((tick) => (
            <G key={`y${tick}`}>
              <Line x1={0} x2={WIDTH} y1={y(tick)} y2={y(tick)} stroke={colours.rule} />
              <Text {...number} x={Math.min(WIDTH - 30, Math.max(3, x(0) + 3))} y={y(tick) - 3}>
                {y.tickFormat(TICKS)(tick)}
              </Text>
            </G>
          ))}
        <Line x1={0} x2={WIDTH} y1={y(0)} y2={y(0)} stroke={colours.faint} />
        <G clipPath={`url(#${clip})`}>
          {plot.curves.map((curve, i) => (
            <Path key={i} d={draw(curve) ?? ''} stroke={colours.petrol} strokeWidth={2.5} fill="none" />
          ))}
          {plot.roots.map((root) => (
            <Circle
              key={`r${root}`}
              cx={x(root)}
              cy={y(0)}
              r={DOT}
              fill={colours.sheet}
              stroke={colours.rowan}
              strokeWidth={2}
            />
          ))}
          {plot.extremes.map((e) => (
            <Circle key={`e${e.x}`} cx={x(e.x)} cy={y(e.y)} r={DOT} fill={colours.rowan} />
          ))}
        </G>
      </Svg>
      <Type size="small" tone="faint">
        {words}
      </Type>
    </View>
  );
}
