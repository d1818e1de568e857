import { ScrollView } from 'react-native';
import { Press } from './press';
import { useColours } from './theme';
import { Type } from './type';

type TabsProps<K extends string> = {
  tabs: readonly { key: K; label: string }[];
  chosen: K;
  onChoose: (key: K) => void;
  label: string;
};

/** A row of words of which one is chosen. */
export function Tabs<K extends string>({ tabs, chosen, onChoose, label }: TabsProps<K>) {
  const colours = useColours();
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      role="tablist"
      aria-label={label}
      style={{ flexGrow: 0, borderBottomWidth: 1, borderBottomColor: colours.rule }}
      contentContainerStyle={{ gap: 22 }}
    >
      {tabs.map((tab) => {
        const isOn = tab.key === chosen;
        return (
          <Press
            key={tab.key}
            role="tab"
            aria-selected={isOn}
            label={tab.label}
            onPress={() => onChoose(tab.key)}
            style={{ borderBottomWidth: 3, borderBottomColor: isOn ? colours.ink : 'transparent' }}
          >
            <Type tone={isOn ? 'ink' : 'faint'}>{tab.label}</Type>
          </Press>
        );
      })}
    </ScrollView>
  );
}
