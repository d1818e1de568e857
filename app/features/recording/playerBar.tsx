import { View } from 'react-native';
import { clockTime } from '@immeld/core/formats/times';
import { type Pause, timeSavedBySkipping } from '@immeld/core/transcript/pauses';
import { changeSettings, useSettings } from '../../settings/settings';
import { Press } from '../../ui/press';
import { CompactSpeak } from '../../ui/speakBar';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { RATES, type SoundPlayer, usePlayer } from './soundPlayer';

type BarProps = { player: SoundPlayer; pauses: readonly Pause[]; isWide: boolean; hasSound: boolean };

/** Play, skip, speed and pauses: at the foot of the phone, in one row under the strip on wide screens. */
export function PlayerBar({ player, pauses, isWide, hasSound }: BarProps) {
  const colours = useColours();
  const { skipBackMs, skipForwardMs } = useSettings();
  const isPlaying = usePlayer(player, (s) => s.isPlaying);
  const rate = usePlayer(player, (s) => s.rate);
  const isRepeating = usePlayer(player, (s) => s.isRepeating);
  const problem = usePlayer(player, (s) => s.problem);
  const nextRate = RATES[(RATES.indexOf(rate) + 1) % RATES.length]!;
  const round = isWide ? 48 : 64;
  if (!hasSound) {
    return (
      <View style={{ padding: 14, flexDirection: 'row', gap: 12 }}>
        <Type tone="rowan" role="alert" style={{ flex: 4 }}>
          The audio file is missing from the server’s disk. The text and the to-dos are still here.
        </Type>
        {!isWide && <CompactSpeak />}
      </View>
    );
  }
  const skip = (by: number, label: string, sign: string) => (
    <Press label={label} onPress={() => player.skip(by)} style={{ flex: isWide ? 0 : 1, alignItems: 'center' }}>
      <Type>{sign}</Type>
    </Press>
  );
  return (
    <View
      role="group"
      aria-label="Player"
      style={
        isWide
          ? { flexDirection: 'row', alignItems: 'center', gap: 14, paddingVertical: 6 }
          : {
              flexDirection: 'row',
              flexWrap: 'wrap',
              alignItems: 'center',
              padding: 12,
              borderTopWidth: 1,
              borderTopColor: colours.ink,
              backgroundColor: colours.sheet,
            }
      }
    >
      {!isWide && (
        <Press
          label={`Speed ${rate}, change to ${nextRate}`}
          onPress={() => player.setRate(nextRate)}
          style={{ flex: 1, alignItems: 'center' }}
        >
          <Type>{rate}×</Type>
        </Press>
      )}
      {skip(-skipBackMs, `Back ${skipBackMs / 1000} seconds`, `−${skipBackMs / 1000}`)}
      <Press
        label={isPlaying ? 'Pause' : 'Play'}
        onPress={() => player.toggle()}
        style={{
          width: round,
          height: round,
          borderRadius: round / 2,
          backgroundColor: colours.ink,
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        <PlaySign isPlaying={isPlaying} colour={colours.sheet} size={round * 0.36} />
      </Press>
      {skip(skipForwardMs, `Forward ${skipForwardMs / 1000} seconds`, `+${skipForwardMs / 1000}`)}
      {isWide && (
        <Press
          label={`Speed ${rate}, change to ${nextRate}`}
          onPress={() => player.setRate(nextRate)}
          style={{ alignItems: 'center' }}
        >
          <Type>{rate}×</Type>
        </Press>
      )}
      {isRepeating ? (
        <Press
          label="Stop repeating"
          onPress={() => player.repeat(null)}
          style={{ ...(isWide ? {} : { flex: 1 }), alignItems: 'center' }}
        >
          <Type size="tiny" isBold style={{ textAlign: 'center' }}>
            Stop repeating
          </Type>
        </Press>
      ) : (
        <PausesButton pauses={pauses} isWide={isWide} />
      )}
      {!isWide && <CompactSpeak />}
      {problem && (
        <Type size="tiny" tone="rowan" role="alert">
          {problem}
        </Type>
      )}
    </View>
  );
}

/** Leaves pauses out while playing, and says what that saves. */
function PausesButton({ pauses, isWide }: { pauses: readonly Pause[]; isWide: boolean }) {
  const { skipsPauses } = useSettings();
  const colours = useColours();
  const saved = timeSavedBySkipping(pauses);
  if (saved < 1000) return <View style={{ flex: isWide ? 0 : 1 }} />;
  return (
    <Press
      role="switch"
      aria-checked={skipsPauses}
      label={`Skip pauses and save ${clockTime(saved)}`}
      onPress={() => changeSettings({ skipsPauses: !skipsPauses })}
      style={{ alignItems: 'center', ...(isWide ? { flexShrink: 0, paddingHorizontal: 8 } : { flex: 1 }) }}
    >
      <Type
        size="tiny"
        isBold={skipsPauses}
        style={{
          textAlign: 'center',
          ...(skipsPauses ? { borderBottomWidth: 2, borderBottomColor: colours.petrol } : {}),
        }}
      >
        Skip pauses
      </Type>
      <Type size="tiny" tone="faint" style={{ textAlign: 'center' }}>
        saves {clockTime(saved)}
      </Type>
    </Press>
  );
}

function PlaySign({ isPlaying, colour, size }: { isPlaying: boolean; colour: string; size: number }) {
  const bar = { width: size * 0.3, height: size, backgroundColor: colour };
  return isPlaying ? (
    <View style={{ flexDirection: 'row', gap: size * 0.24 }}>
      <View style={bar} />
      <View style={bar} />
    </View>
  ) : (
    <View
      style={{
        marginLeft: size * 0.2,
        borderLeftWidth: size * 0.85,
        borderLeftColor: colour,
        borderTopWidth: size * 0.55,
        borderBottomWidth: size * 0.55,
        borderTopColor: 'transparent',
        borderBottomColor: 'transparent',
      }}
    />
  );
}
