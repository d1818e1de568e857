import type { ReactNode } from 'react';
import { type StyleProp, View, type ViewStyle } from 'react-native';
import { useColours } from './theme';

/** What Immeld proposes: a dashed outline, until the person accepts it and it is set in ink. */
export function PencilBox({
  children,
  isInk = false,
  style,
}: {
  children: ReactNode;
  isInk?: boolean;
  style?: StyleProp<ViewStyle>;
}) {
  const colours = useColours();
  return (
    <View
      style={[
        {
          borderWidth: 1,
          borderStyle: isInk ? 'solid' : 'dashed',
          borderColor: isInk ? colours.rule : colours.faint,
          backgroundColor: colours.sheet,
          borderRadius: 4,
          padding: 14,
          paddingBottom: 6,
        },
        style,
      ]}
    >
      {children}
    </View>
  );
}

/** A square to tick: dashed in pencil, filled when ticked. */
export function Tick({ isOn, isPencil = false, size = 22 }: { isOn: boolean; isPencil?: boolean; size?: number }) {
  const colours = useColours();
  return (
    <View
      style={{
        width: size,
        height: size,
        borderWidth: 1.5,
        borderStyle: isPencil && !isOn ? 'dashed' : 'solid',
        borderColor: colours.petrol,
        backgroundColor: isOn ? colours.petrol : 'transparent',
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      {isOn && (
        <View
          style={{
            width: size * 0.55,
            height: size * 0.3,
            borderLeftWidth: 2,
            borderBottomWidth: 2,
            borderColor: colours.sheet,
            transform: [{ rotate: '-45deg' }, { translateY: -1 }],
          }}
        />
      )}
    </View>
  );
}
