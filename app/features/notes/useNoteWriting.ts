import type { Note, NoteBody } from '@immeld/core/contract/notes';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ApiProblem, call } from '../../api/call';
import { dropDraft, keepDraft, readDraft } from './noteDraft';

const SAVE_AFTER_MS = 700;
const TRY_AGAIN_MS = 5000;

export type WritingState = 'kept' | 'writing' | 'waiting' | 'conflict';

/**
 * Saves a note while it is written. What the server has not taken yet is kept on this device and sent later; where the
 * note was changed elsewhere meanwhile, nothing is written over.
 */
export function useNoteWriting(note: Note) {
  const client = useQueryClient();
  const [draft] = useState(() => readDraft(note.id));
  const [state, setState] = useState<WritingState>(draft ? 'waiting' : 'kept');
  const unsaved = useRef<NoteBody | null>(draft?.body ?? null);
  const seenAt = useRef(draft?.seenAt ?? note.changedAt);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const isSending = useRef(false);

  const send = async () => {
    const body = unsaved.current;
    if (!body || isSending.current) return;
    isSending.current = true;
    try {
      const saved = await call('changeNote', { params: { id: note.id }, body: { body, seenAt: seenAt.current } });
      seenAt.current = saved.changedAt;
      client.setQueryData(['notes', 'one', note.id], saved);
      void client.invalidateQueries({ queryKey: ['notes', 'list'] });
      if (unsaved.current === body) {
        unsaved.current = null;
        dropDraft(note.id);
        setState('kept');
      } else plan(SAVE_AFTER_MS);
    } catch (error) {
      const isConflict = error instanceof ApiProblem && error.status === 409;
      setState(isConflict ? 'conflict' : 'waiting');
      if (!isConflict) plan(TRY_AGAIN_MS);
    } finally {
      isSending.current = false;
    }
  };
  const plan = (ms: number) => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void latest.current(), ms);
  };
  const latest = useRef(send);
  latest.current = send;

  useEffect(() => {
    if (unsaved.current) plan(0);
    return () => {
      clearTimeout(timer.current);
      // The page is left: what is unsaved goes at once, and stays on the device if that fails.
      void latest.current();
    };
    // Once for each note that is opened; the page is made anew for another one.
  }, []);

  return {
    state,
    /** What the editor begins with. */
    body: draft?.body ?? note.body,
    write: (body: NoteBody) => {
      unsaved.current = body;
      keepDraft(note.id, { body, seenAt: seenAt.current });
      setState((now) => (now === 'conflict' ? now : 'writing'));
      plan(SAVE_AFTER_MS);
    },
    /** What was written here, for a note of its own where both texts are to be kept. */
    ownBody: () => unsaved.current,
    forget: () => {
      unsaved.current = null;
      dropDraft(note.id);
    },
  };
}
