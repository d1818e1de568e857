import { clockTime } from '@immeld/core/formats/times';
import { useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { LEVEL_HINTS, isLevelBad } from '../capture/levels';
import { isCapturing, useCapture, useCaptureNow, useLiveText, useOutbox } from '../offline/deviceContext';
import { usePackForRecording } from '../offline/usePack';
import { settings } from '../settings/settings';
import { MarkShape, useMarkKinds } from '../ui/mark';
import { FrameButton, Press, WordButton } from '../ui/press';
import { useThrowAway } from '../ui/speakBar';
import { detailsFor } from '../ui/useSpeak';
import { Strip } from '../ui/strip';
import { useColours } from '../ui/theme';
import { Type, UnseenTitle } from '../ui/type';

/** A window lower than this in pixels is a card. */
const CARD_HEIGHT = 330;
/** So many marks have room beside each other. */
const QUICK_MARKS = 4;

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
  const isCard = useWindowDimensions().height < CARD_HEIGHT;
  if (isOn) {
    return (
      <View
        role="region"
        aria-label="Recording"
        {...({ dataSet: { elapsed: Math.round(elapsedMs) } } as object)}
        style={{ flex: 1, padding: 12, gap: 6, justifyContent: 'space-between', maxWidth: 560, width: '100%' }}
      >
        <UnseenTitle>Recording</UnseenTitle>
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
          <Type size="title">{clockTime(elapsedMs)}</Type>
          <Type size="tiny" tone={isLevelBad(level) ? 'rowan' : 'faint'} style={{ flex: 1 }} role="status">
            {isPaused ? 'Paused' : LEVEL_HINTS[level]}
          </Type>
          <WordButton
            label="Throw away"
            tone="rowan"
            onPress={throwAway}
            style={{ marginVertical: -10, marginRight: 0 }}
          />
        </View>
        <Strip peaks={peaks} height={isCard ? 20 : 48} label="Recording level" />
        <LatestWords lines={isCard ? 1 : 2} />
        <Marks />
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <FrameButton
            label={isPaused ? 'Resume' : 'Pause'}
            onPress={() => (isPaused ? engine.resume() : engine.pause())}
            style={{ flex: 1 }}
          />
          <FrameButton label="Finish" isMain onPress={() => engine.finish()} style={{ flex: 2 }} />
        </View>
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

/** More have no room on two lines. */
const SHOWN_WORDS = 18;

function LatestWords({ lines }: { lines: number }) {
  const { fixed, tentative } = useLiveText();
  const newest = tentative.slice(-SHOWN_WORDS);
  const room = SHOWN_WORDS - newest.length;
  const before = room > 0 ? fixed.slice(-room) : [];
  if (newest.length + before.length === 0) return null;
  const textOf = (words: readonly { text: string }[]) => words.map((w) => w.text).join(' ');
  return (
    <Type face="text" numberOfLines={lines} role="log" aria-label="Words so far">
      {textOf(before)}{' '}
      <Type face="text" tone="faint">
        {textOf(newest)}
      </Type>
    </Type>
  );
}

/** The marks that are offered first, one press each; more are on the page of the recording. */
function Marks() {
  const engine = useCapture();
  const colours = useColours();
  const { offered } = useMarkKinds();
  const slips = useCaptureNow((now) => now.slips);
  const last = slips.filter((s) => s.kind === 'mark').at(-1);
  return (
    <View role="group" aria-label="Marks" style={{ flexDirection: 'row', gap: 6 }}>
      {offered.slice(0, QUICK_MARKS).map(({ id, label }) => (
        <Press
          key={id}
          label={`Mark: ${label}`}
          onPress={() => engine.addSlip({ kind: 'mark', text: '', mark: id })}
          style={{ flex: 1, alignItems: 'center', gap: 3, borderWidth: 1, borderColor: colours.rule, borderRadius: 4 }}
        >
          <MarkShape kind={id} size={16} />
          <Type size="tiny" numberOfLines={1}>
            {last?.mark === id ? clockTime(last.startMs) : label}
          </Type>
        </Press>
      ))}
    </View>
  );
}
