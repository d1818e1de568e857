import { View } from 'react-native';
import { changeSettings, useSettings } from '../../settings/settings';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';

const SKIPS_MS = [5000, 10_000, 15_000, 30_000];
const PAUSES_MS = [500, 1000, 2000, 4000];
const SCALES = [1, 1.15, 1.3, 1.5, 2];
const DOUBTS = [0.3, 0.5, 0.7, 0.85];
const seconds = (ms: number): string => `${ms / 1000} s`;
const percent = (share: number): string => `${Math.round(share * 100)}%`;

/** How one listens on this device. */
export function ListeningSettings() {
  const { skipBackMs, skipForwardMs, pauseMs, textScale, doubtfulBelow } = useSettings();
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Playback and reading on this device</Title>
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
        label="Count silence as a pause after"
        all={PAUSES_MS}
        chosen={pauseMs}
        onChoose={(ms) => changeSettings({ pauseMs: ms })}
      />
      <Lengths
        label="Text size"
        all={SCALES}
        chosen={textScale}
        name={percent}
        onChoose={(scale) => changeSettings({ textScale: scale })}
      />
      <Lengths
        label="Mark words as doubtful below"
        all={DOUBTS}
        chosen={doubtfulBelow}
        name={percent}
        onChoose={(share) => changeSettings({ doubtfulBelow: share })}
      />
    </View>
  );
}

type LengthsProps = {
  label: string;
  all: readonly number[];
  chosen: number;
  onChoose: (value: number) => void;
  /** How a value is called; milliseconds as seconds unless said otherwise. */
  name?: (value: number) => string;
};

/** One of some lengths. */
export function Lengths({ label, all, chosen, onChoose, name = seconds }: LengthsProps) {
  const colours = useColours();
  return (
    <View
      role="radiogroup"
      aria-label={label}
      style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 4 }}
    >
      <Type style={{ minWidth: 170 }}>{label}</Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', maxWidth: '100%', gap: 4 }}>
        {all.map((ms) => (
          <Press
            key={ms}
            role="radio"
            aria-checked={ms === chosen}
            label={`${label} ${name(ms)}`}
            onPress={() => onChoose(ms)}
            style={{
              alignItems: 'center',
              borderBottomWidth: 2,
              borderBottomColor: ms === chosen ? colours.petrol : 'transparent',
            }}
          >
            <Type isBold={ms === chosen}>{name(ms)}</Type>
          </Press>
        ))}
      </View>
    </View>
  );
}
