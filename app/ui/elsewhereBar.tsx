import { clockTime } from '@immeld/core/formats/times';
import { View } from 'react-native';
import type { Elsewhere } from '../capture/recordingChannel';
import { useDevice } from '../offline/deviceContext';
import { FrameButton } from './press';
import { useColours } from './theme';
import { Type } from './type';

/** What another tab records, with what can be done about it from here. */
export function ElsewhereBar({ now: { stage, elapsedMs } }: { now: Elsewhere }) {
  const colours = useColours();
  const { channel } = useDevice();
  const isPaused = stage === 'paused';
  return (
    <View
      role="region"
      aria-label="Recording in another tab"
      style={{
        ...{ borderWidth: 1, borderColor: colours.ink, borderRadius: 4, backgroundColor: colours.sheet },
        ...{ padding: 12, gap: 8 },
      }}
    >
      <Type role="status">
        {isPaused ? 'Paused in another tab' : 'Recording in another tab'} · {clockTime(elapsedMs)}
      </Type>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <FrameButton
          label={isPaused ? 'Resume' : 'Pause'}
          onPress={() => channel.ask(isPaused ? 'resume' : 'pause')}
          style={{ flex: 1 }}
        />
        <FrameButton label="Finish" isMain onPress={() => channel.ask('finish')} style={{ flex: 2 }} />
      </View>
    </View>
  );
}
