import { clockTime } from '@immeld/core/formats/times';
import { useRouter } from 'expo-router';
import { useCallback, useEffect } from 'react';
import { hasMicrophone } from '../capture/sources';
import { type Capture, goesOnUntil } from '../offline/captures';
import { isCapturing, useCapture, useCaptureNow, useOutbox } from '../offline/deviceContext';
import { settings } from '../settings/settings';
import { NoticeBar } from './noticeBar';
import { FrameButton } from './press';

/** What the server is told of a recording that goes on with this one: where it is added, and how much is there already. */
export const detailsToGoOn = ({ id, details, durationMs }: Capture): Record<string, string> => ({
  ...details,
  continues: details['continues'] ?? id,
  offsetMs: String((Number(details['offsetMs']) || 0) + (durationMs ?? 0)),
});

/** The system needs a moment to notice which microphones are left. */
const SETTLING_MS = 1000;
/** A microphone that gives less than this before it goes again is not waited for: it would begin again and again. */
const MIN_SOUND_MS = 1000;

/** Goes on in the same recording as soon as there is a microphone again, wherever one is in the app. */
function useGoOnWhenPluggedIn(capture: Capture, goOn: () => Promise<void>): boolean {
  const isUnplugged = useCaptureNow((now) => now.unplugged === capture.id);
  const isWaiting = isUnplugged && (capture.durationMs ?? 0) > MIN_SOUND_MS;
  useEffect(() => {
    if (!isWaiting) return;
    let timer: ReturnType<typeof setTimeout>;
    const look = () => {
      clearTimeout(timer);
      timer = setTimeout(async () => {
        if (await hasMicrophone()) await goOn();
      }, SETTLING_MS);
    };
    look();
    navigator.mediaDevices.addEventListener('devicechange', look);
    return () => {
      clearTimeout(timer);
      navigator.mediaDevices.removeEventListener('devicechange', look);
    };
  }, [isWaiting, goOn]);
  return isUnplugged;
}

/** A recording that was cut off a short while ago: it goes on, or is finished; left alone it is finished by itself. */
export function StoppedBar({ capture }: { capture: Capture }) {
  const { retry } = useOutbox();
  const engine = useCapture();
  const router = useRouter();
  const goOn = useCallback(async () => {
    await engine.start({ sources: settings().source, details: detailsToGoOn(capture) });
    // Where no microphone opens, it can be tried again.
    if (isCapturing(engine.state)) void retry(capture.id);
  }, [engine, capture, retry]);
  const isUnplugged = useGoOnWhenPluggedIn(capture, goOn);
  const until = goesOnUntil(capture);
  useEffect(() => {
    const timer = setTimeout(() => void retry(capture.id), Math.max(0, until - Date.now()));
    return () => clearTimeout(timer);
  }, [capture.id, until, retry]);
  const at = clockTime(capture.durationMs ?? 0);
  return (
    <NoticeBar
      label="Recording that stopped"
      tone="rowan"
      text={
        isUnplugged
          ? `The microphone was disconnected at ${at}. Everything up to that moment is saved. The recording continues when you connect a microphone.`
          : `Your recording stopped at ${at} and is saved.`
      }
    >
      <FrameButton
        label="Continue"
        isMain
        onPress={() => void goOn().then(() => isCapturing(engine.state) && router.navigate('/now'))}
        style={{ flex: 1 }}
      />
      <FrameButton label="Finish" onPress={() => void retry(capture.id)} style={{ flex: 1 }} />
    </NoticeBar>
  );
}
