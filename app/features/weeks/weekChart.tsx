import { scaleBand, scaleLinear } from 'd3-scale';
import { View } from 'react-native';
import Svg, { G, Line, Rect, Text as SvgText } from 'react-native-svg';
import { FONTS, SIZES, useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';

export type Series = { name: string; values: readonly number[]; tone: 'petrol' | 'ochre' | 'lichen' | 'faint' };
type WeekChartProps = {
  title: string;
  /** What one column stands for, in words below the title. */
  summary: string;
  labels: readonly string[];
  /** Stacked, the first at the bottom. */
  series: readonly Series[];
  width: number;
  formatTick: (value: number) => string;
};

const HEIGHT = 150;
const LEFT = 44;
const BOTTOM = 22;
const TICKS = 3;

/** Columns for each week, drawn in our hand. Read aloud it is its summary: the table below says every number. */
export function WeekChart({ title, summary, labels, series, width, formatTick }: WeekChartProps) {
  const colours = useColours();
  const totals = labels.map((_, i) => series.reduce((sum, s) => sum + s.values[i]!, 0));
  const x = scaleBand<number>()
    .domain(labels.map((_, i) => i))
    .range([LEFT, width])
    .padding(0.3);
  const y = scaleLinear()
    .domain([0, Math.max(1, ...totals)])
    .nice(TICKS)
    .range([HEIGHT - BOTTOM, 8]);
  const everySecond = labels.length > 8 && width < 600;
  return (
    <View style={{ paddingTop: 18 }}>
      <Title level={2}>{title}</Title>
      <Type size="tiny" tone="faint">
        {summary}
      </Type>
      {series.length > 1 && (
        <View style={{ flexDirection: 'row', gap: 16, paddingTop: 4 }}>
          {series.map((s) => (
            <View key={s.name} style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
              <View style={{ width: 12, height: 12, backgroundColor: colours[s.tone] }} />
              <Type size="tiny">{s.name}</Type>
            </View>
          ))}
        </View>
      )}
      <Svg width={width} height={HEIGHT} role="img" aria-label={`${title}: ${summary}`}>
        {y.ticks(TICKS).map((tick) => (
          <G key={tick}>
            <Line x1={LEFT} x2={width} y1={y(tick)} y2={y(tick)} stroke={colours.rule} strokeWidth={1} />
            <SvgText
              x={LEFT - 8}
              y={y(tick) + 4}
              textAnchor="end"
              fontFamily={FONTS.face}
              fontSize={SIZES.tiny}
              fill={colours.faint}
            >
              {formatTick(tick)}
            </SvgText>
          </G>
        ))}
        {labels.map((label, i) => {
          let from = 0;
          return (
            <G key={label}>
              {series.map((s) => {
                const value = s.values[i]!;
                const top = y(from + value);
                const bottom = y(from);
                from += value;
                return value > 0 ? (
                  <Rect
                    key={s.name}
                    x={x(i)}
                    y={top}
                    width={x.bandwidth()}
                    height={Math.max(1, bottom - top)}
                    fill={colours[s.tone]}
                  />
                ) : null;
              })}
              {(!everySecond || (labels.length - 1 - i) % 2 === 0) && (
                <SvgText
                  x={x(i)! + x.bandwidth() / 2}
                  y={HEIGHT - 5}
                  textAnchor="middle"
                  fontFamily={FONTS.face}
                  fontSize={SIZES.tiny}
                  fill={colours.faint}
                >
                  {label}
                </SvgText>
              )}
            </G>
          );
        })}
      </Svg>
    </View>
  );
}
