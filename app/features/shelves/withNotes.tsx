import type { NoteCard } from '@immeld/core/contract/notes';
import type { RecordingSort } from '@immeld/core/contract/recordingLists';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import type { ReactElement } from 'react';
import { View } from 'react-native';
import { localTime } from '../../ui/dates';
import { Title } from '../../ui/type';
import { noteTitle } from '../notes/noteTitle';
import { titleOf } from '../tray/recordingRow';
import { type Grouping, groupName } from './grouping';

type Row = { at: string; title: string; row: RecordingCard | ReactElement; group: string };

/** Negative where the first stands above the second; a note has no length, so that it stands below in that order. */
const ORDERS: Record<RecordingSort, (a: Row, b: Row) => number> = {
  newest: (a, b) => b.at.localeCompare(a.at),
  oldest: (a, b) => a.at.localeCompare(b.at),
  title: (a, b) => a.title.localeCompare(b.title, undefined, { sensitivity: 'base' }),
  longest: () => 0,
};

/**
 * Notes at their place among the recordings, which come in the order that is meant, and the names of groups before
 * their first.
 * @param isComplete whether no further recordings follow: what belongs below the last one waits until then
 */
export function withNotes(
  recordings: readonly RecordingCard[],
  isComplete: boolean,
  notes: readonly NoteCard[],
  { sort, grouping }: { sort: RecordingSort; grouping: Grouping },
  rowOf: (note: NoteCard) => ReactElement,
): (RecordingCard | ReactElement)[] {
  const order = ORDERS[sort];
  const waiting = notes
    .map((note): Row => {
      const at = localTime(new Date(note.changedAt));
      return { at, title: noteTitle(note), row: rowOf(note), group: groupName(grouping, null, at) };
    })
    .sort(order);
  const rows: Row[] = [];
  for (const recording of recordings) {
    const at = recording.startedAt;
    const item = { at, title: titleOf(recording), row: recording, group: groupName(grouping, recording, at) };
    while (waiting[0] && order(waiting[0], item) < 0) rows.push(waiting.shift()!);
    rows.push(item);
  }
  if (isComplete) rows.push(...waiting);
  if (grouping === 'none') return rows.map((r) => r.row);
  return [...new Set(rows.map((r) => r.group))].flatMap((group) => [
    <View key={`group ${group}`} style={{ paddingTop: 16 }}>
      <Title level={2}>{group}</Title>
    </View>,
    ...rows.filter((r) => r.group === group).map((r) => r.row),
  ]);
}
