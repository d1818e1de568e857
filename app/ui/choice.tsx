import { View } from 'react-native';
import { Press } from './press';
import { useColours } from './theme';
import { Type } from './type';

type ChoiceProps = { label: string; hint?: string; isOn: boolean; onPress: () => void; role?: 'radio' | 'switch' };

/** One of several, or on and off: a row with a mark that fills. */
export function Choice({ label, hint, isOn, onPress, role = 'radio' }: ChoiceProps) {
  const colours = useColours();
  return (
    <Press
      label={label}
      role={role}
      aria-checked={isOn}
      onPress={onPress}
      style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'flex-start', gap: 12, paddingVertical: 4 }}
    >
      <View
        style={{
          ...{ width: 20, height: 20, borderRadius: role === 'radio' ? 10 : 4, borderWidth: 1.5 },
          ...{ borderColor: colours.ink, alignItems: 'center', justifyContent: 'center' },
        }}
      >
        {isOn && (
          <View
            style={{ width: 10, height: 10, borderRadius: role === 'radio' ? 5 : 1, backgroundColor: colours.petrol }}
          />
        )}
      </View>
      <View style={{ flex: 1 }}>
        <Type>{label}</Type>
        {hint && (
          <Type size="tiny" tone="faint">
            {hint}
          </Type>
        )}
      </View>
    </Press>
  );
}
