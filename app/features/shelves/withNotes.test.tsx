import type { NoteCard } from '@immeld/core/contract/notes';
import type { RecordingSort } from '@immeld/core/contract/recordingLists';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import { type ReactElement, isValidElement } from 'react';
import { View } from 'react-native';
import { localTime } from '../../ui/dates';
import type { Grouping } from './grouping';
import { withNotes } from './withNotes';

const recording = (title: string, startedAt: string, more: Partial<RecordingCard> = {}) =>
  ({
    ...{ id: title, title, startedAt, fileName: 'said.wav', suggestion: { title: null } },
    ...{ project: null, people: [], ...more },
  }) as unknown as RecordingCard;
/** A note that was changed at a local time. */
const note = (title: string, at: string) =>
  ({ id: title, title, day: null, changedAt: new Date(`${at}:00`).toISOString() }) as unknown as NoteCard;

const nameOf = (row: RecordingCard | ReactElement) =>
  isValidElement(row) ? String(row.key) : (row as RecordingCard).id;
const names = (
  recordings: RecordingCard[],
  notes: NoteCard[],
  {
    sort = 'newest',
    grouping = 'none',
    isComplete = true,
  }: Partial<{
    sort: RecordingSort;
    grouping: Grouping;
    isComplete: boolean;
  }> = {},
) => withNotes(recordings, isComplete, notes, { sort, grouping }, (n) => <View key={n.title} />).map(nameOf);

const noon = recording('Noon', '2026-03-09T12:00:00');
const morning = recording('Early', '2026-03-09T07:40:00');
const evening = note('Zebra', '2026-03-09T19:00');
const between = note('apple', '2026-03-09T10:00');
const before = note('Middle', '2026-03-09T06:00');

it('notes stand at their time among the recordings, newest or oldest first', () => {
  expect(localTime(new Date(between.changedAt)).slice(0, 16)).toBe('2026-03-09T10:00');
  const notes = [evening, between, before];
  expect(names([noon, morning], notes)).toEqual(['Zebra', 'Noon', 'apple', 'Early', 'Middle']);
  expect(names([morning, noon], notes, { sort: 'oldest' })).toEqual(['Middle', 'Early', 'apple', 'Noon', 'Zebra']);
});

it('several notes between the same two recordings keep the order that is asked for', () => {
  const later = note('later', '2026-03-09T11:00');
  expect(names([morning, noon], [later, between], { sort: 'oldest' })).toEqual(['Early', 'apple', 'later', 'Noon']);
});

it('by title, letters count without their case, and a recording goes by the title that is shown', () => {
  const proposed = recording('', '2026-03-09T12:00:00', {
    ...{ id: 'proposed', title: null, suggestion: { title: 'Bees' } as RecordingCard['suggestion'] },
  });
  expect(names([proposed, noon], [evening, before, between], { sort: 'title' })).toEqual([
    ...['apple', 'proposed', 'Middle', 'Noon', 'Zebra'],
  ]);
});

it('by length, and below the last recording, notes come when all recordings are there', () => {
  expect(names([noon, morning], [evening], { sort: 'longest' })).toEqual(['Noon', 'Early', 'Zebra']);
  expect(names([noon], [between, before], { isComplete: false })).toEqual(['Noon']);
  expect(names([], [between])).toEqual(['apple']);
});

it('groups have their name before their first, each once', () => {
  const february = recording('February', '2026-02-01T09:00:00', { project: 'House' });
  expect(names([noon, february], [between], { grouping: 'month' })).toEqual([
    ...['group March 2026', 'Noon', 'apple', 'group February 2026', 'February'],
  ]);
  expect(names([noon, february], [between], { grouping: 'project' })).toEqual([
    ...['group No project', 'Noon', 'group Notes', 'apple', 'group House', 'February'],
  ]);
});
