import { View } from 'react-native';
import { clockTime } from '@immeld/core/formats/times';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { RATES, type SoundPlayer, usePlayer } from './soundPlayer';

const SKIP_MS = 10_000;

/** Play, skip and speed: at the foot of the phone, in one row under the strip on wide screens. */
export function PlayerBar({ player, isWide, hasSound }: { player: SoundPlayer; isWide: boolean; hasSound: boolean }) {
  const colours = useColours();
  const isPlaying = usePlayer(player, (s) => s.isPlaying);
  const rate = usePlayer(player, (s) => s.rate);
  const second = usePlayer(player, (s) => Math.floor(s.timeMs / 1000));
  const problem = usePlayer(player, (s) => s.problem);
  const nextRate = RATES[(RATES.indexOf(rate) + 1) % RATES.length]!;
  const round = isWide ? 48 : 64;
  if (!hasSound) {
    return (
      <View style={{ padding: 14 }} role="alert">
        <Type tone="rowan">The sound file is missing on the disk. The text and the to-dos are still here.</Type>
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
      {skip(-SKIP_MS, 'Back 10 seconds', '−10')}
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
      {skip(SKIP_MS, 'Forward 10 seconds', '+10')}
      {isWide ? (
        <Press
          label={`Speed ${rate}, change to ${nextRate}`}
          onPress={() => player.setRate(nextRate)}
          style={{ alignItems: 'center' }}
        >
          <Type>{rate}×</Type>
        </Press>
      ) : (
        <View style={{ flex: 1, alignItems: 'center' }}>
          <Type size="tiny" tone="faint">
            {clockTime(second * 1000)}
          </Type>
        </View>
      )}
      {problem && (
        <Type size="tiny" tone="rowan" role="alert">
          {problem}
        </Type>
      )}
    </View>
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
