import { type MarkKindSetting, type MarkShapeName, USUAL_MARK_KINDS } from '@immeld/core/contract/markKinds';
import type { MarkKind } from '@immeld/core/contract/slips';
import { useEffect, useMemo } from 'react';
import Svg, { Circle, Path, Rect } from 'react-native-svg';
import { useSharedSettings } from '../api/queries';
import { writeStored, readStored } from '../settings/stored';
import { useColours } from './theme';

/** Marks are made without a network, too. */
const KEY = 'immeld-mark-kinds';

/** A kind that is not known here, made on another device. */
const unknownKind = (id: string): MarkKindSetting => ({
  ...{ id, label: 'Mark', shape: 'ring', tone: 'petrol', isHidden: true },
});

type MarkKinds = {
  /** Those that are offered; the first nine by the keys 1 to 9. */
  offered: MarkKindSetting[];
  of: (kind: MarkKind) => MarkKindSetting;
};

/** The kinds of marks: each has a shape, a colour, a name and a key, so that colour alone says nothing. */
export function useMarkKinds(): MarkKinds {
  const kinds = useSharedSettings().data?.markKinds;
  useEffect(() => {
    if (kinds) writeStored(KEY, kinds);
  }, [kinds]);
  return useMemo(() => {
    const all = kinds ?? readStored<MarkKindSetting[]>(KEY) ?? USUAL_MARK_KINDS;
    return {
      offered: all.filter((k) => !k.isHidden),
      of: (kind) => all.find((k) => k.id === kind) ?? unknownKind(kind),
    };
  }, [kinds]);
}

export function MarkShape({ kind, size = 16 }: { kind: MarkKind; size?: number }) {
  const { shape, tone } = useMarkKinds().of(kind);
  return <Shape shape={shape} fill={useColours()[tone]} size={size} />;
}

export function Shape({ shape, fill, size = 16 }: { shape: MarkShapeName; fill: string; size?: number }) {
  return (
    <Svg width={size} height={size} viewBox="0 0 16 16" aria-hidden>
      {shape === 'circle' && <Circle cx={8} cy={8} r={6.5} fill={fill} />}
      {shape === 'diamond' && <Path d="M8 0.5L15.5 8L8 15.5L0.5 8Z" fill={fill} />}
      {shape === 'triangle' && <Path d="M8 1L15.5 14.5H0.5Z" fill={fill} />}
      {shape === 'square' && <Rect x={1.5} y={1.5} width={13} height={13} fill={fill} />}
      {shape === 'ring' && <Circle cx={8} cy={8} r={5.5} fill="none" stroke={fill} strokeWidth={3} />}
      {shape === 'bar' && <Rect x={5} y={0.5} width={6} height={15} fill={fill} />}
      {shape === 'cross' && <Path d="M2 2L14 14M14 2L2 14" stroke={fill} strokeWidth={3.5} />}
      {shape === 'chevron' && <Path d="M3 1.5L11 8L3 14.5" fill="none" stroke={fill} strokeWidth={3.5} />}
    </Svg>
  );
}
