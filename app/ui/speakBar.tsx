import { usePathname, useRouter } from 'expo-router';
import { useRef } from 'react';
import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { clockTime } from '@immeld/core/formats/times';
import { LEVEL_HINTS, isLevelBad } from '../capture/levels';
import { isCapturing, useCapture, useCaptureNow, useElsewhere, useOutbox } from '../offline/deviceContext';
import { usePackForRecording } from '../offline/usePack';
import { ElsewhereBar } from './elsewhereBar';
import { FrameButton, Press, WordButton } from './press';
import { StoppedBar } from './stoppedBar';
import { Strip } from './strip';
import { useColours } from './theme';
import { Type } from './type';
import { useUndoBar } from './undoBar';
import { useSpeak } from './useSpeak';
import { useListening } from './useListening';

export const SOUND_TYPES = 'audio/*,video/*,.m4a,.mp3,.wav,.ogg,.opus,.flac,.webm,.mp4,.mov,.amr,.aac,.aiff,.wma,.3gp';

/** Opens the file picker and sends what is chosen. */
export function useImport(details: Record<string, string> = {}): () => void {
  const { send } = useOutbox();
  const input = useRef<HTMLInputElement | null>(null);
  return () => {
    if (!input.current) {
      input.current = document.createElement('input');
      Object.assign(input.current, { type: 'file', multiple: true, accept: SOUND_TYPES, id: 'bring-in', hidden: true });
      document.body.append(input.current);
    }
    const field = input.current;
    field.onchange = () => {
      void send([...(field.files ?? [])], details);
      field.value = '';
    };
    field.click();
  };
}

/** Press to record, from everywhere. While it records it is the live strip, with pause and finish under the thumb. */
export function SpeakBar({ isNarrow = false }: { isNarrow?: boolean }) {
  const colours = useColours();
  const engine = useCapture();
  const isOn = useCaptureNow(isCapturing);
  const isStarting = useCaptureNow(({ stage }) => stage === 'starting');
  const problem = useCaptureNow((now) => now.problem);
  const speak = useSpeak();
  const bringIn = useImport();
  usePackForRecording();
  const { stopped } = useOutbox();
  const elsewhere = useElsewhere();
  if (isOn) return <LiveBar isNarrow={isNarrow} />;
  if (elsewhere) return <ElsewhereBar now={elsewhere} />;
  return (
    <View style={{ gap: 8 }}>
      {stopped.map((capture) => (
        <StoppedBar key={capture.id} capture={capture} />
      ))}
      {problem && (
        <View
          role="alert"
          style={{
            backgroundColor: colours.sheet,
            borderLeftWidth: 3,
            borderLeftColor: colours.rowan,
            padding: 12,
            paddingBottom: 0,
          }}
        >
          <Type>{problem}</Type>
          <WordButton label="Close" onPress={() => engine.closeProblem()} />
        </View>
      )}
      <View style={isNarrow ? { gap: 8 } : { flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Press
          label="Speak"
          disabled={isStarting}
          onPress={speak}
          style={[
            bar(colours),
            {
              ...(isNarrow ? {} : { flexGrow: 1, flexBasis: 130 }),
              flexDirection: 'row',
              alignItems: 'center',
              justifyContent: 'flex-start',
              gap: 14,
            },
          ]}
        >
          <View
            style={{
              width: 24,
              height: 24,
              borderRadius: 12,
              borderWidth: 7,
              borderColor: colours.rowan,
              backgroundColor: colours.sheet,
            }}
          />
          <Type size="body">{isStarting ? 'Starting the microphone' : 'Speak'}</Type>
        </Press>
        <AskByVoice />
        <Press
          label="Import audio files"
          onPress={bringIn}
          style={[bar(colours), { alignItems: 'center', paddingHorizontal: 14 }]}
        >
          <Type>Import</Type>
        </Press>
      </View>
    </View>
  );
}

/** The way to record where the bar has no room: in the row of the player. Nothing while something is recorded. */
export function CompactSpeak() {
  const colours = useColours();
  const isBusy = useCaptureNow((now) => isCapturing(now) || now.stage === 'starting');
  const elsewhere = useElsewhere();
  const speak = useSpeak();
  if (isBusy || elsewhere) return null;
  return (
    <Press label="Speak" onPress={speak} style={{ flex: 1, alignItems: 'center', gap: 3 }}>
      <View style={{ width: 18, height: 18, borderRadius: 9, borderWidth: 6, borderColor: colours.rowan }} />
      <Type size="tiny">Speak</Type>
    </Press>
  );
}

/** A small microphone beside the large one: what is asked aloud goes into the find bar, and nothing is recorded. */
function AskByVoice() {
  const colours = useColours();
  const router = useRouter();
  const look = (q: string) => router.navigate({ pathname: '/find', params: { q } });
  const { isOn, toggle } = useListening(look);
  return (
    <Press
      label={isOn ? 'Stop listening' : 'Ask a question aloud'}
      aria-pressed={isOn}
      onPress={toggle}
      style={[
        bar(colours),
        { alignItems: 'center', paddingHorizontal: 12, borderColor: isOn ? colours.rowan : colours.ink },
      ]}
    >
      <MicrophoneSign isOn={isOn} />
      <Type size="tiny" tone={isOn ? 'rowan' : 'faint'}>
        {isOn ? 'Listening' : 'Ask'}
      </Type>
    </Press>
  );
}

/** A small microphone, for what is said and not recorded. */
export function MicrophoneSign({ isOn }: { isOn: boolean }) {
  const colours = useColours();
  return (
    <Svg width={22} height={24} viewBox="0 0 22 24" aria-hidden>
      <Path
        d="M11 3a3 3 0 0 1 3 3v6a3 3 0 0 1-6 0V6a3 3 0 0 1 3-3zM4.5 11.5a6.5 6.5 0 0 0 13 0M11 18v3"
        stroke={isOn ? colours.rowan : colours.ink}
        strokeWidth={1.6}
        fill="none"
        strokeLinecap="round"
      />
    </Svg>
  );
}

const bar = (colours: ReturnType<typeof useColours>) => ({
  minHeight: 60,
  paddingHorizontal: 16,
  borderWidth: 1,
  borderColor: colours.ink,
  borderRadius: 4,
  backgroundColor: colours.sheet,
});

/** Throws away what is being recorded, with a way back. */
export function useThrowAway(): () => void {
  const engine = useCapture();
  const { retry } = useOutbox();
  const show = useUndoBar();
  return () => {
    const { captureId } = engine.state;
    engine.throwAway();
    // Had back before the recorder has ended, it would be sent without its end.
    const undo = async (id: string) => {
      await engine.ended(id);
      await retry(id);
    };
    if (captureId) show('Recording thrown away. Nothing was sent.', () => void undo(captureId));
  };
}

function LiveBar({ isNarrow }: { isNarrow: boolean }) {
  const colours = useColours();
  const router = useRouter();
  const isOnPage = usePathname() === '/now';
  const engine = useCapture();
  const stage = useCaptureNow((now) => now.stage);
  const elapsedMs = useCaptureNow((now) => now.elapsedMs);
  const peaks = useCaptureNow((now) => now.peaks);
  const level = useCaptureNow((now) => now.level);
  const appointment = useCaptureNow((now) => now.appointment);
  const isPaused = stage === 'paused';
  const isEnding = stage === 'finishing';
  const throwAway = useThrowAway();
  const hint = isEnding ? 'Saving' : isPaused ? 'Paused' : LEVEL_HINTS[level];
  return (
    <View
      role="region"
      aria-label="Recording"
      {...({ dataSet: { elapsed: Math.round(elapsedMs) } } as object)}
      style={[bar(colours), { paddingVertical: 10, gap: 6 }]}
    >
      {appointment && (
        <Type size="small" isBold numberOfLines={1}>
          {appointment}
        </Type>
      )}
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, flexWrap: 'wrap' }}>
        <View style={{ width: 12, height: 12, borderRadius: isPaused ? 0 : 6, backgroundColor: colours.rowan }} />
        <Type size="large">{clockTime(elapsedMs)}</Type>
        <Type size="tiny" tone={isLevelBad(level) ? 'rowan' : 'faint'} role="status" style={{ flexShrink: 1 }}>
          {hint}
        </Type>
        <View style={{ flexDirection: 'row', marginLeft: 'auto', marginVertical: -10, columnGap: 12 }}>
          {!isOnPage && (
            <WordButton label="Words so far" onPress={() => router.navigate('/now')} style={{ marginRight: 0 }} />
          )}
          <WordButton
            label="Throw away"
            tone="rowan"
            disabled={isEnding}
            onPress={throwAway}
            style={{ marginRight: 0 }}
          />
        </View>
      </View>
      <Strip peaks={peaks} height={40} label="Recording level" />
      <View style={{ flexDirection: isNarrow ? 'column' : 'row', gap: 8, paddingTop: 2 }}>
        <FrameButton
          label={isPaused ? 'Resume' : 'Pause'}
          disabled={isEnding}
          onPress={() => (isPaused ? engine.resume() : engine.pause())}
          style={{ flex: isNarrow ? 0 : 1 }}
        />
        <FrameButton
          label="Finish"
          isMain
          disabled={isEnding}
          onPress={() => engine.finish()}
          style={{ flex: isNarrow ? 0 : 2 }}
        />
      </View>
    </View>
  );
}
