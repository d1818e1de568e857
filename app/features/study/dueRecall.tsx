import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { useDueRecall } from '../../api/study';
import { countName } from '../../ui/counts';
import { WordButton } from '../../ui/press';

const SHOWN = 3;

/** The recordings whose questions are due today; nothing where there are none. */
export function DueRecall() {
  const router = useRouter();
  const { data } = useDueRecall();
  if (!data?.items.length) return null;
  return (
    <View role="group" aria-label="Questions that are due" style={{ paddingTop: 6 }}>
      {data.items.slice(0, SHOWN).map(({ recordingId, title, count }) => (
        <WordButton
          key={recordingId}
          label={`${countName(count, 'question')} due: ${title}`}
          onPress={() => router.push({ pathname: '/study/[id]', params: { id: recordingId } })}
        />
      ))}
    </View>
  );
}
