import { clockTime } from '@immeld/core/formats/times';
import { useEffect } from 'react';
import { View } from 'react-native';
import { type Capture, MAY_GO_ON_MS } from '../offline/captureStore';
import { useOutbox } from '../offline/deviceContext';
import { FrameButton } from './press';
import { useSpeak } from './useSpeak';
import { useColours } from './theme';
import { Type } from './type';

/** What the server is told of a recording that goes on with this one: where it is added, and how much is there already. */
export const detailsToGoOn = ({ id, details, durationMs }: Capture): Record<string, string> => ({
  ...details,
  continues: details['continues'] ?? id,
  offsetMs: String((Number(details['offsetMs']) || 0) + (durationMs ?? 0)),
});

/** A recording that was cut off a short while ago: it goes on, or is finished; left alone it is finished by itself. */
export function StoppedBar({ capture }: { capture: Capture }) {
  const colours = useColours();
  const { retry } = useOutbox();
  const goOn = useSpeak(undefined, detailsToGoOn(capture));
  useEffect(() => {
    const endsAt = +new Date(capture.startedAt) + (capture.durationMs ?? 0) + MAY_GO_ON_MS;
    const timer = setTimeout(() => void retry(capture.id), Math.max(0, endsAt - Date.now()));
    return () => clearTimeout(timer);
  }, [capture.id, capture.startedAt, capture.durationMs, retry]);
  return (
    <View
      role="region"
      aria-label="Recording that stopped"
      style={{
        ...{ borderWidth: 1, borderColor: colours.rowan, borderRadius: 4, backgroundColor: colours.sheet },
        ...{ padding: 12, gap: 8 },
      }}
    >
      <Type role="status">Your recording stopped at {clockTime(capture.durationMs ?? 0)} and is saved.</Type>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <FrameButton
          label="Continue"
          isMain
          onPress={() => {
            goOn();
            void retry(capture.id);
          }}
          style={{ flex: 1 }}
        />
        <FrameButton label="Finish" onPress={() => void retry(capture.id)} style={{ flex: 1 }} />
      </View>
    </View>
  );
}
