import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { passageText } from '@immeld/core/transcript/manuscript';
import { WordButton } from '../../ui/press';
import { useSettings } from '../../settings/settings';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { isDoubtful, useCorrecting, useDesk } from './correcting';

/** Above the words: what is doubtful, what can be taken back, what is not sent yet, and what was changed twice. */
export function CorrectingBar({ recordingId }: { recordingId: string }) {
  const router = useRouter();
  const colours = useColours();
  const { desk, openDoubtful } = useCorrecting();
  useSettings();
  const { passages, unsent, conflicts, canUndo, canRedo } = useDesk(desk);
  const [conflict] = conflicts;
  const doubtful = passages.reduce((sum, p) => sum + p.words.filter(isDoubtful).length, 0);
  return (
    <View style={{ paddingBottom: 4 }}>
      {conflict && (
        <View
          role="alert"
          style={{ borderWidth: 1, borderColor: colours.rowan, borderRadius: 4, padding: 12, marginBottom: 8, gap: 6 }}
        >
          <Type>{conflict.sentence}</Type>
          <Type>You wrote: {conflict.mine.map(passageText).join(' ')}</Type>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton label="Use my text" isBold onPress={() => desk.settle(true)} />
            <WordButton label="Use the other text" onPress={() => desk.settle(false)} />
          </View>
        </View>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
        {doubtful > 0 && (
          <WordButton
            label={`${doubtful} doubtful ${doubtful === 1 ? 'word' : 'words'}, go to the next`}
            onPress={() => openDoubtful()}
          />
        )}
        {passages.length > 0 && (
          <WordButton
            label="Replace words"
            onPress={() => router.push({ pathname: '/replace', params: { recording: recordingId } })}
          />
        )}
        {canUndo && <WordButton label="Undo" onPress={() => desk.undo()} />}
        {canRedo && <WordButton label="Redo" onPress={() => desk.redo()} />}
      </View>
      {unsent > 0 && (
        <Type size="tiny" tone="faint" role="status">
          Saved on this device. Sending to the server.
        </Type>
      )}
    </View>
  );
}
