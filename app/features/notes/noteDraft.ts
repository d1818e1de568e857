import type { NoteBody } from '@immeld/core/contract/notes';

/** What was written of a note and not taken by the server yet, kept on this device. */
export type NoteDraft = { body: NoteBody; seenAt: string };

const keyOf = (id: string): string => `immeld-note-draft ${id}`;

export function readDraft(id: string): NoteDraft | null {
  try {
    const kept = localStorage.getItem(keyOf(id));
    return kept ? (JSON.parse(kept) as NoteDraft) : null;
  } catch {
    return null;
  }
}

/** False where this device cannot keep anything: a private window, or no space. */
export function keepDraft(id: string, draft: NoteDraft): boolean {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(draft));
    return true;
  } catch {
    return false;
  }
}

export function dropDraft(id: string): void {
  try {
    localStorage.removeItem(keyOf(id));
  } catch {
    // Nothing was kept there.
  }
}
