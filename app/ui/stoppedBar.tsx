import { clockTime } from '@immeld/core/formats/times';
import { useEffect } from 'react';
import { type Capture, MAY_GO_ON_MS } from '../offline/captureStore';
import { useOutbox } from '../offline/deviceContext';
import { NoticeBar } from './noticeBar';
import { FrameButton } from './press';
import { useSpeak } from './useSpeak';

/** What the server is told of a recording that goes on with this one: where it is added, and how much is there already. */
export const detailsToGoOn = ({ id, details, durationMs }: Capture): Record<string, string> => ({
  ...details,
  continues: details['continues'] ?? id,
  offsetMs: String((Number(details['offsetMs']) || 0) + (durationMs ?? 0)),
});

/** A recording that was cut off a short while ago: it goes on, or is finished; left alone it is finished by itself. */
export function StoppedBar({ capture }: { capture: Capture }) {
  const { retry } = useOutbox();
  const goOn = useSpeak(undefined, detailsToGoOn(capture));
  useEffect(() => {
    const endsAt = +new Date(capture.startedAt) + (capture.durationMs ?? 0) + MAY_GO_ON_MS;
    const timer = setTimeout(() => void retry(capture.id), Math.max(0, endsAt - Date.now()));
    return () => clearTimeout(timer);
  }, [capture.id, capture.startedAt, capture.durationMs, retry]);
  return (
    <NoticeBar
      label="Recording that stopped"
      tone="rowan"
      text={`Your recording stopped at ${clockTime(capture.durationMs ?? 0)} and is saved.`}
    >
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
    </NoticeBar>
  );
}
