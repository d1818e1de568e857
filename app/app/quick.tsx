import { clockTime } from '@immeld/core/formats/times';
import { useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { LEVEL_HINTS, isLevelBad } from '../capture/levels';
import { isCapturing, useCapture, useCaptureNow, useOutbox } from '../offline/deviceContext';
import { usePackForRecording } from '../offline/usePack';
import { settings } from '../settings/settings';
import { FrameButton, WordButton } from '../ui/press';
import { useThrowAway } from '../ui/speakBar';
import { detailsFor } from '../ui/useSpeak';
import { Strip } from '../ui/strip';
import { Type, UnseenTitle } from '../ui/type';

/** A page as small as a card that records as soon as it opens, and files to the tray. */
export default function QuickScreen() {
  const engine = useCapture();
  const router = useRouter();
  const isOn = useCaptureNow(isCapturing);
  const stage = useCaptureNow((now) => now.stage);
  const problem = useCaptureNow((now) => now.problem);
  const elapsedMs = useCaptureNow((now) => now.elapsedMs);
  const peaks = useCaptureNow((now) => now.peaks);
  const level = useCaptureNow((now) => now.level);
  const { items } = useOutbox();
  const hasStarted = useRef(false);
  usePackForRecording();

  const throwAway = useThrowAway();
  const start = () => void engine.start({ sources: settings().source, details: detailsFor() });
  useEffect(() => {
    if (hasStarted.current) return;
    hasStarted.current = true;
    void engine.start({ sources: settings().source, details: detailsFor() });
  }, [engine]);

  const captureId = useCaptureNow((now) => now.captureId);
  const [last, setLast] = useState<string | null>(null);
  useEffect(() => {
    if (captureId) setLast(captureId);
  }, [captureId]);
  const hasArrived = items.some((i) => i.id === last && i.state === 'sent');
  const isPaused = stage === 'paused';
  if (isOn) {
    return (
      <View
        role="region"
        aria-label="Recording"
        {...({ dataSet: { elapsed: Math.round(elapsedMs) } } as object)}
        style={{ flex: 1, padding: 12, gap: 8, justifyContent: 'space-between', maxWidth: 560, width: '100%' }}
      >
        <UnseenTitle>Recording</UnseenTitle>
        <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 12 }}>
          <Type size="title">{clockTime(elapsedMs)}</Type>
          <Type size="tiny" tone={isLevelBad(level) ? 'rowan' : 'faint'} style={{ flex: 1 }} role="status">
            {isPaused ? 'Paused' : LEVEL_HINTS[level]}
          </Type>
        </View>
        <Strip peaks={peaks} height={48} label="Recording level" />
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <FrameButton
            label={isPaused ? 'Resume' : 'Pause'}
            onPress={() => (isPaused ? engine.resume() : engine.pause())}
            style={{ flex: 1 }}
          />
          <FrameButton label="Finish" isMain onPress={() => engine.finish()} style={{ flex: 2 }} />
        </View>
        <WordButton label="Throw away" tone="rowan" onPress={throwAway} />
      </View>
    );
  }
  return (
    <View style={{ flex: 1, padding: 12, gap: 8, justifyContent: 'space-between', maxWidth: 560, width: '100%' }}>
      <UnseenTitle>Quick recording</UnseenTitle>
      {problem ? (
        <Type role="alert">{problem}</Type>
      ) : (
        <Type role="status">
          {stage === 'starting'
            ? 'Starting the microphone'
            : hasArrived
              ? 'Saved to the tray.'
              : 'Saved on this device. It moves to the tray automatically.'}
        </Type>
      )}
      <FrameButton label="Speak again" isMain disabled={stage === 'starting'} onPress={start} />
      <WordButton label="Open Immeld" onPress={() => router.replace('/tray')} />
    </View>
  );
}
