import type { Quality } from '@immeld/core/speech/packs';
import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import { View } from 'react-native';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

/** How a recording is to be transcribed anew. */
export type Again = { cleaning: Partial<Cleaning>; quality: Quality | null };

/** Again with the names of now; with a low cut where the sound rumbles, which is the one step that can help. */
export function TranscribeAgain({ onAgain }: { onAgain: (again: Again) => void }) {
  const [isOpen, setOpen] = useClosable(false);
  if (!isOpen) return <WordButton label="Transcribe again" onPress={() => setOpen(true)} />;
  const again = (cleaning: Partial<Cleaning>, quality: Quality | null = null) => {
    setOpen(false);
    onAgain({ cleaning, quality });
  };
  return (
    <View role="group" aria-label="Transcribe again" style={{ width: '100%' }}>
      <Type isBold>Transcribe again</Type>
      <WordButton label="With your current names and terms" isBold onPress={() => again({})} />
      <WordButton label="With fewer mistakes (takes longer)" onPress={() => again({}, 'usual')} />
      <WordButton label="Quickly (more mistakes)" onPress={() => again({}, 'quick')} />
      <WordButton label="With rumble removed" onPress={() => again({ lowCut: 1 })} />
      <WordButton label="With noise reduced" onPress={() => again({ noise: 0.4 })} />
      <WordButton label="With the volume evened out" onPress={() => again({ loudness: 1 })} />
      <Type size="tiny" tone="faint">
        Text you corrected stays. The new transcription is saved as a version.
      </Type>
      <WordButton label="Cancel" onPress={() => setOpen(false)} />
    </View>
  );
}
