import type { RecordingCard } from '@immeld/core/contract/recordings';
import { format, parseISO } from 'date-fns';

export const GROUPINGS = ['none', 'month', 'project', 'person'] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** The name of the group to which a recording, or a note (null), belongs. */
export function groupName(grouping: Grouping, recording: RecordingCard | null, at: string): string {
  switch (grouping) {
    case 'none':
      return '';
    case 'month':
      return format(parseISO(at), 'MMMM yyyy');
    case 'project':
      return recording ? (recording.project ?? 'No project') : 'Notes';
    case 'person':
      return recording ? (recording.people[0] ?? 'No person') : 'Notes';
  }
}
