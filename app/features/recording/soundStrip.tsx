import { isCleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { Recording } from '@immeld/core/contract/recordings';
import type { Speaker } from '@immeld/core/contract/speakers';
import { clockTime } from '@immeld/core/formats/times';
import { paragraphsOf } from '@immeld/core/transcript/manuscript';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useSettings } from '../../settings/settings';
import { useMarkKinds } from '../../ui/mark';
import { Press } from '../../ui/press';
import { Strip, type StripMark, type StripTurn } from '../../ui/strip';
import { Type } from '../../ui/type';
import { titleOf } from '../tray/recordingRow';
import { CleaningPanel } from './cleaningPanel';
import { SlidePegs } from './slidePegs';
import { type SoundPlayer, usePlayer } from './soundPlayer';
import { useSpeakers } from './speakers';
import { type Window, WHOLE, inWindow, windowAround } from './stripWindow';
import { useClosable } from '../../ui/useClosable';

const MAX_ZOOM = 32;

/** The strip of a recording with who speaks, marks and parts; closer at will, and the sound made cleaner. */
export function SoundStrip({
  recording,
  player,
  height,
}: {
  recording: Recording;
  player: SoundPlayer;
  height: number;
}) {
  const total = recording.durationMs ?? 0;
  const played = usePlayer(player, (s) => (total ? Math.round((s.timeMs / total) * 2000) / 2000 : 0));
  const { speakers } = useSpeakers();
  const kinds = useMarkKinds();
  const [zoom, setZoom] = useState(1);
  const [shown, setShown] = useState<Window>(WHOLE);
  const turns = useMemo(() => turnsOf(recording, speakers), [recording, speakers]);
  const marks = useMemo(
    () =>
      recording.slips
        .filter((s) => s.mark !== null)
        .map(({ startMs, mark }): StripMark => ({ at: startMs / (total || 1), ...kinds.of(mark!) })),
    [recording.slips, total, kinds],
  );
  const parts = useMemo(
    () => recording.slips.filter((s) => s.kind === 'heading').map((s) => s.startMs / (total || 1)),
    [recording.slips, total],
  );
  const { cleaning } = useSettings();
  const [isCleaningOpen, setCleaningOpen] = useClosable(false);
  // The window stays where it is while the sound is in it, so that one can aim.
  const window = windowAround(shown, played, zoom);
  if (window !== shown) setShown(window);
  const seen = inWindow(window, { peaks: recording.peaks, turns, marks, parts, played });
  const length = window.to - window.from;
  const time = (share: number) => clockTime(share * total);
  const closer = (next: number, label: string, sign: string, isOff: boolean) => (
    <Press
      label={label}
      disabled={isOff}
      onPress={() => setZoom(next)}
      style={{ marginVertical: -8, alignItems: 'center' }}
    >
      <Type size="small">{sign}</Type>
    </Press>
  );
  return (
    <View>
      <Strip
        {...seen}
        height={height}
        label="Position in the recording"
        valueText={`${time(played)} of ${clockTime(total)}`}
        onSeek={(share) => player.seek((window.from + share * length) * total)}
      />
      <SlidePegs recording={recording} player={player} window={window} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'space-between', alignItems: 'center' }}>
        <Type size="tiny" tone="faint" style={{ minWidth: 64 }}>
          {zoom === 1 ? time(played) : `${time(window.from)} to ${time(window.to)}`}
        </Type>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', flexShrink: 1 }}>
          {recording.hasSound && (
            <Press
              label={isCleaning(cleaning) ? 'Clean up audio, on' : 'Clean up audio'}
              aria-expanded={isCleaningOpen}
              onPress={() => setCleaningOpen(!isCleaningOpen)}
              style={{ marginVertical: -8, paddingHorizontal: 8 }}
            >
              <Type size="tiny" isBold={isCleaning(cleaning)} style={{ textDecorationLine: 'underline' }}>
                {isCleaning(cleaning) ? 'Clean up audio, on' : 'Clean up audio'}
              </Type>
            </Press>
          )}
          {closer(zoom / 2, 'Zoom out', '−', zoom === 1)}
          {closer(zoom * 2, 'Zoom in', '+', zoom === MAX_ZOOM)}
        </View>
        <Type size="tiny" tone="faint" style={{ minWidth: 64, textAlign: 'right' }}>
          {time(1 - played)} left
        </Type>
      </View>
      {isCleaningOpen && <CleaningPanel recordingId={recording.id} title={titleOf(recording)} />}
    </View>
  );
}

/** Who speaks from where to where, as shares of the sound. */
function turnsOf({ passages, durationMs }: Recording, speakers: readonly Speaker[]): StripTurn[] {
  const total = durationMs || 1;
  const numbers = new Map(speakers.map((s, i) => [s.name, i]));
  return paragraphsOf(passages.map((p) => ({ ...p, startsParagraph: false }))).flatMap((group) => {
    const speaker = numbers.get(group[0]!.speaker ?? '');
    if (speaker === undefined) return [];
    return [{ speaker, from: group[0]!.startMs / total, to: group.at(-1)!.endMs / total }];
  });
}
