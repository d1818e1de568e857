import { View } from 'react-native';
import { Press } from './press';
import { useColours } from './theme';
import { Type } from './type';

type OneOfProps<K extends string> = {
  label: string;
  options: readonly K[];
  nameOf: (option: K) => string;
  chosen: K;
  onChoose: (option: K) => void;
};

/** A few words in a row of which one is chosen. */
export function OneOf<K extends string>({ label, options, nameOf, chosen, onChoose }: OneOfProps<K>) {
  const colours = useColours();
  return (
    <View
      role="radiogroup"
      aria-label={label}
      style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 16 }}
    >
      <Type size="tiny" tone="faint">
        {label}
      </Type>
      {options.map((option) => {
        const isOn = option === chosen;
        return (
          <Press key={option} role="radio" aria-checked={isOn} label={nameOf(option)} onPress={() => onChoose(option)}>
            <View style={{ borderBottomWidth: 2, borderBottomColor: isOn ? colours.ink : 'transparent' }}>
              <Type isBold={isOn}>{nameOf(option)}</Type>
            </View>
          </Press>
        );
      })}
    </View>
  );
}
