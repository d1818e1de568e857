import { View } from 'react-native';
import { isCapturing, useCaptureNow } from '../../offline/deviceContext';
import { WordButton } from '../../ui/press';
import { useImport } from '../../ui/speakBar';
import { useSpeak } from '../../ui/useSpeak';
import { Type } from '../../ui/type';
import { OutboxList } from '../tray/outboxList';

/** Another sound can be added to the end of a recording, with its own date. */
export function AddToRecording({ recordingId, durationMs }: { recordingId: string; durationMs: number | null }) {
  const details = { appendTo: recordingId };
  // Marks that are set while one speaks stand after what is there.
  const speak = useSpeak(undefined, { ...details, ...(durationMs ? { offsetMs: String(durationMs) } : {}) });
  const bringIn = useImport(details);
  const isRecording = useCaptureNow(isCapturing);
  return (
    <View role="group" aria-label="Add to this recording">
      <Type tone="faint">Something to add? It goes at the end, with its own date.</Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Record more" disabled={isRecording} onPress={speak} />
        <WordButton label="Import a file" onPress={bringIn} />
      </View>
      <OutboxList addedTo={recordingId} />
    </View>
  );
}
