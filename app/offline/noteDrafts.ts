import type { Note, NoteBody, NoteCard } from '@immeld/core/contract/notes';
import { ApiProblem, call } from '../api/call';
import { LocalStorageMap } from './localStorageMap';

/** What was written of a note and not taken by the server yet, kept on this device. */
export type NoteDraft = {
  title?: string;
  body?: NoteBody;
  /** `textChangedAt` of what it was written on; null as long as the server does not have the note at all. */
  seenAt: string | null;
  /** Of a new note: where it is filed, and when it was begun (ISO 8601). */
  folderId?: string | null;
  begunAt?: string;
};

const box = new LocalStorageMap<NoteDraft>('immeld-note-draft ');
/** Held by every page that has the note open: it sends by itself. */
const lockOf = (id: string): string => `immeld-note ${id}`;

export const readDraft = (id: string): NoteDraft | null => box.read(id);
/** False where this device cannot keep anything. */
export const keepDraft = (id: string, draft: NoteDraft): boolean => box.put(id, draft);
/** How many notes wait here to be sent. */
export const unsentNotes = (): number => box.ids().length;
export const dropDraft = (id: string): void => box.drop(id);

/** A note that only this device has so far; null when the server has it, or nobody. */
export function noteOnlyHere(id: string): Note | null {
  const draft = readDraft(id);
  if (draft?.seenAt !== null) return null;
  const at = draft.begunAt ?? new Date().toISOString();
  return {
    ...{ id, title: draft.title ?? '', firstWords: '', day: null, folderId: draft.folderId ?? null, tags: [] },
    ...{ isFavourite: false, isArchived: false, isBinned: false, madeAt: at, changedAt: at, textChangedAt: at },
    ...{ body: draft.body ?? null, links: [], linkedFrom: [] },
  };
}

/** A list of notes with those before it that only this device has; of a folder, those that were begun in it. */
export function withNotesOnlyHere(notes: readonly NoteCard[], folderId?: string | null): NoteCard[] {
  const known = new Set(notes.map((n) => n.id));
  const own = box.ids().flatMap((id) => (known.has(id) ? [] : (noteOnlyHere(id) ?? [])));
  return [...own.filter((n) => !folderId || n.folderId === folderId), ...notes];
}

/**
 * Sends what was written. A note that the server does not have is begun there under the id it has here, so that a second
 * try makes no second note. Throws ApiProblem: status 409 where it was changed elsewhere meanwhile.
 */
export async function sendDraft(id: string, { title, body, seenAt, folderId = null }: NoteDraft): Promise<Note> {
  const begun = seenAt === null ? await call('addNote', { body: { id, title: title ?? '', folderId } }) : null;
  if (begun && title === undefined && !body) return begun;
  const written = { ...(title === undefined ? {} : { title }), ...(body ? { body } : {}) };
  return call('changeNote', { params: { id }, body: { ...written, seenAt: begun?.textChangedAt ?? seenAt ?? '' } });
}

/** While it is held, `sendDrafts` leaves this note alone. */
export async function holdNote(id: string): Promise<() => void> {
  if (!('locks' in navigator)) return () => undefined;
  return new Promise((ready) => {
    const hold = () => new Promise<void>((release) => ready(release));
    void navigator.locks.request(lockOf(id), { mode: 'shared' }, hold);
  });
}

/**
 * Sends what was written into notes that no page has open. What is refused stays, and is told when its note is opened.
 * @returns how many were taken
 */
export async function sendDrafts(): Promise<number> {
  if (!('locks' in navigator)) return 0;
  let count = 0;
  for (const id of box.ids()) {
    await navigator.locks.request(lockOf(id), { ifAvailable: true }, async (lock) => {
      const draft = lock && readDraft(id);
      if (!draft) return;
      try {
        await sendDraft(id, draft);
        dropDraft(id);
        count++;
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error;
      }
    });
  }
  return count;
}
