import { clockTime } from '@immeld/core/formats/times';
import type { Elsewhere } from '../capture/recordingChannel';
import { useDevice } from '../offline/deviceContext';
import { NoticeBar } from './noticeBar';
import { FrameButton } from './press';

/** What another tab records, with what can be done about it from here. */
export function ElsewhereBar({ now: { stage, elapsedMs } }: { now: Elsewhere }) {
  const { channel } = useDevice();
  const isPaused = stage === 'paused';
  return (
    <NoticeBar
      label="Recording in another tab"
      tone="ink"
      text={`${isPaused ? 'Paused' : 'Recording'} in another tab · ${clockTime(elapsedMs)}`}
    >
      <FrameButton
        label={isPaused ? 'Resume' : 'Pause'}
        onPress={() => channel.ask(isPaused ? 'resume' : 'pause')}
        style={{ flex: 1 }}
      />
      <FrameButton label="Finish" isMain onPress={() => channel.ask('finish')} style={{ flex: 2 }} />
    </NoticeBar>
  );
}
