import type { Day } from '@immeld/core/contract/find';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';

/** So many lines are shown on the day itself. */
const SHOWN_LINES = 5;

/** The note of the day: quick words are put into it with their time, and it opens as a note. */
export function DayNote({ date, note }: { date: string; note: Day['note'] }) {
  const router = useRouter();
  const { quickWords } = useChanges();
  const [typed, setTyped] = useState('');
  const keep = () =>
    quickWords.mutate({ date, text: typed.trim() }, { onSuccess: () => setTyped((now) => (now === typed ? '' : now)) });
  const lines = note?.lines ?? [];
  return (
    <View role="region" aria-label="Note for this day" style={{ paddingTop: 12 }}>
      {lines.slice(-SHOWN_LINES).map((line, i) => (
        <Type key={i} face="text">
          {line}
        </Type>
      ))}
      <LineEntry
        label="Quick note for this day"
        action="Add"
        value={typed}
        onChange={setTyped}
        onSubmit={keep}
        maxLength={2000}
      />
      {quickWords.error && <Failure error={quickWords.error} />}
      {note && (
        <WordButton
          label="Open the note for this day"
          onPress={() => router.push({ pathname: '/notes/[id]', params: { id: note.id } })}
        />
      )}
    </View>
  );
}
