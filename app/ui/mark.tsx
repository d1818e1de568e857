import type { MarkKind } from '@immeld/core/contract/slips';
import Svg, { Circle, Path, Rect } from 'react-native-svg';
import { type Colours, useColours } from './theme';

/** The marks that ship: each has a shape, a colour, a word and a key, so that colour alone says nothing. */
export const MARKS: Record<MarkKind, { label: string; tone: keyof Colours; key: string }> = {
  'key-point': { label: 'Key point', tone: 'rowan', key: '1' },
  question: { label: 'Question', tone: 'heather', key: '2' },
  'check-later': { label: 'Check later', tone: 'ochre', key: '3' },
  'to-do': { label: 'To-do', tone: 'petrol', key: '4' },
};

export function MarkShape({ kind, size = 16 }: { kind: MarkKind; size?: number }) {
  const fill = useColours()[MARKS[kind].tone];
  return (
    <Svg width={size} height={size} viewBox="0 0 16 16" aria-hidden>
      {kind === 'key-point' && <Circle cx={8} cy={8} r={6.5} fill={fill} />}
      {kind === 'question' && <Path d="M8 0.5L15.5 8L8 15.5L0.5 8Z" fill={fill} />}
      {kind === 'check-later' && <Path d="M8 1L15.5 14.5H0.5Z" fill={fill} />}
      {kind === 'to-do' && <Rect x={1.5} y={1.5} width={13} height={13} fill={fill} />}
    </Svg>
  );
}
