import type { NoteCard } from '@immeld/core/contract/notes';
import { format, parseISO } from 'date-fns';

/** What a note is called; the note of a day by its day. */
export const noteTitle = ({ title, day }: Pick<NoteCard, 'title' | 'day'>): string =>
  day ? `Note for ${format(parseISO(day), 'EEEE d MMMM')}` : title || 'Untitled note';
