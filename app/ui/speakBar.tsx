import { useRef } from 'react';
import { View } from 'react-native';
import { clockTime } from '@immeld/core/formats/times';
import { useCapture } from '../capture/recorder';
import { useUploads } from '../capture/uploads';
import { FrameButton, Press, WordButton } from './press';
import { Strip } from './strip';
import { useColours } from './theme';
import { Type } from './type';

export const SOUND_TYPES = 'audio/*,video/*,.m4a,.mp3,.wav,.ogg,.opus,.flac,.webm,.mp4,.mov,.amr,.aac,.aiff,.wma,.3gp';

/** Opens the file picker and sends what is chosen. */
export function useBringIn(): () => void {
  const { send } = useUploads();
  const input = useRef<HTMLInputElement | null>(null);
  return () => {
    if (!input.current) {
      input.current = document.createElement('input');
      Object.assign(input.current, { type: 'file', multiple: true, accept: SOUND_TYPES, id: 'bring-in', hidden: true });
      document.body.append(input.current);
    }
    const field = input.current;
    field.onchange = () => {
      for (const file of field.files ?? []) send(file, file.name, { source: 'import' });
      field.value = '';
    };
    field.click();
  };
}

/** Press to record, from everywhere. While it records it is the live strip, with pause and finish under the thumb. */
export function SpeakBar({ isNarrow = false }: { isNarrow?: boolean }) {
  const colours = useColours();
  const capture = useCapture();
  const bringIn = useBringIn();
  if (capture.state === 'recording' || capture.state === 'paused') return <LiveBar isNarrow={isNarrow} />;
  const isStarting = capture.state === 'starting';
  return (
    <View style={{ gap: 8 }}>
      {capture.problem && (
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
          <Type>{capture.problem}</Type>
          <WordButton label="Close" onPress={capture.closeProblem} />
        </View>
      )}
      <View style={{ flexDirection: isNarrow ? 'column' : 'row', gap: 8 }}>
        <Press
          label="Speak"
          disabled={isStarting}
          onPress={() => void capture.start()}
          style={[
            bar(colours),
            {
              flex: isNarrow ? 0 : 1,
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
          <Type size="body">{isStarting ? 'Opening the microphone' : 'Speak'}</Type>
        </Press>
        <Press
          label="Bring in sound files"
          onPress={bringIn}
          style={[bar(colours), { alignItems: 'center', paddingHorizontal: 14 }]}
        >
          <Type>Bring in</Type>
        </Press>
      </View>
    </View>
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

function LiveBar({ isNarrow }: { isNarrow: boolean }) {
  const colours = useColours();
  const { state, elapsedMs, peaks, level, pause, resume, finish, throwAway } = useCapture();
  const isPaused = state === 'paused';
  const hint = isPaused
    ? 'paused'
    : level === 'good'
      ? 'good level'
      : level === 'clipping'
        ? 'too loud: move back a little'
        : 'too quiet: come closer';
  return (
    <View role="region" aria-label="Recording now" style={[bar(colours), { paddingVertical: 10, gap: 6 }]}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, flexWrap: 'wrap' }}>
        <View style={{ width: 12, height: 12, borderRadius: isPaused ? 0 : 6, backgroundColor: colours.rowan }} />
        <Type size="large">{clockTime(elapsedMs)}</Type>
        <Type size="tiny" tone={level === 'good' ? 'faint' : 'rowan'} role="status">
          {hint}
        </Type>
      </View>
      <Strip peaks={peaks} height={40} label="Loudness of what you say" />
      <View style={{ flexDirection: isNarrow ? 'column' : 'row', gap: 8, paddingTop: 2 }}>
        <FrameButton
          label={isPaused ? 'Go on' : 'Pause'}
          onPress={isPaused ? resume : pause}
          style={{ flex: isNarrow ? 0 : 1 }}
        />
        <FrameButton label="Finish" isMain onPress={finish} style={{ flex: isNarrow ? 0 : 2 }} />
      </View>
      {isPaused && <WordButton label="Throw this recording away" tone="rowan" onPress={throwAway} />}
    </View>
  );
}
