import { View } from 'react-native';
import { changeSettings, useSettings } from '../../settings/settings';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';

const SKIPS_MS = [5000, 10_000, 15_000, 30_000];
const PAUSES_MS = [500, 1000, 2000, 4000];
const seconds = (ms: number): string => `${ms / 1000} s`;

/** How one listens on this device. */
export function ListeningSettings() {
  const { skipBackMs, skipForwardMs, pauseMs } = useSettings();
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Listening</Title>
      <Lengths
        label="Skip back by"
        all={SKIPS_MS}
        chosen={skipBackMs}
        onChoose={(ms) => changeSettings({ skipBackMs: ms })}
      />
      <Lengths
        label="Skip forward by"
        all={SKIPS_MS}
        chosen={skipForwardMs}
        onChoose={(ms) => changeSettings({ skipForwardMs: ms })}
      />
      <Lengths
        label="A pause is longer than"
        all={PAUSES_MS}
        chosen={pauseMs}
        onChoose={(ms) => changeSettings({ pauseMs: ms })}
      />
    </View>
  );
}

type LengthsProps = { label: string; all: readonly number[]; chosen: number; onChoose: (ms: number) => void };

function Lengths({ label, all, chosen, onChoose }: LengthsProps) {
  const colours = useColours();
  return (
    <View
      role="radiogroup"
      aria-label={label}
      style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 4 }}
    >
      <Type style={{ minWidth: 170 }}>{label}</Type>
      {all.map((ms) => (
        <Press
          key={ms}
          role="radio"
          aria-checked={ms === chosen}
          label={`${label} ${seconds(ms)}`}
          onPress={() => onChoose(ms)}
          style={{
            alignItems: 'center',
            borderBottomWidth: 2,
            borderBottomColor: ms === chosen ? colours.petrol : 'transparent',
          }}
        >
          <Type isBold={ms === chosen}>{seconds(ms)}</Type>
        </Press>
      ))}
    </View>
  );
}
