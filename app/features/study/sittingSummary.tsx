import { ScrollView, View } from 'react-native';
import { countName } from '../../ui/counts';
import { WordButton } from '../../ui/press';
import { READING_WIDTH } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { type Sitting, summaryOf } from './sittingState';

const MINUTE_MS = 60_000;

/** What was gone through in a sitting. */
export function SittingSummary({
  sitting,
  usedMs,
  onAgain,
  onGoOn,
}: {
  sitting: Sitting;
  usedMs: number;
  onAgain: () => void;
  /** Null where nothing is left. */
  onGoOn: (() => void) | null;
}) {
  const { passages, questions, known } = summaryOf(sitting);
  const minutes = Math.max(1, Math.round(usedMs / MINUTE_MS));
  return (
    <ScrollView style={{ flex: 1 }} contentContainerStyle={{ padding: 16, alignItems: 'center' }}>
      <View style={{ width: '100%', maxWidth: READING_WIDTH, gap: 12 }}>
        <Title>{onGoOn ? 'Stopped' : 'You are through'}</Title>
        <Type role="status">
          {`You went through ${countName(passages, 'passage')} in ${countName(minutes, 'minute')}.`}
        </Type>
        {questions > 0 && (
          <Type>
            {`You answered ${countName(questions, 'question')} and knew ${known}. Each comes back on the day on which you would begin to forget it.`}
          </Type>
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          {onGoOn && <WordButton label="Go on" isBold onPress={onGoOn} />}
          <WordButton label="Choose again" isBold={!onGoOn} onPress={onAgain} />
        </View>
      </View>
    </ScrollView>
  );
}
