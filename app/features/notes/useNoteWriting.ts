import type { Note, NoteBody } from '@immeld/core/contract/notes';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ApiProblem } from '../../api/call';
import { type NoteDraft, dropDraft, holdNote, keepDraft, readDraft, sendDraft } from '../../offline/noteDrafts';

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
  const unsaved = useRef<NoteDraft | null>(draft);
  const seenAt = useRef(draft ? draft.seenAt : note.textChangedAt);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const isSending = useRef(false);

  const send = async () => {
    const sent = unsaved.current;
    if (!sent || isSending.current) return;
    isSending.current = true;
    try {
      const saved = await sendDraft(note.id, { ...sent, seenAt: seenAt.current });
      // With a title alone, a text that came from elsewhere has still not been seen here.
      if (sent.body || seenAt.current === null) seenAt.current = saved.textChangedAt;
      client.setQueryData(['notes', 'one', note.id], saved);
      for (const queryKey of sent.title === undefined
        ? [['notes', 'list']]
        : [['notes', 'list'], ['find'], ['history']]) {
        void client.invalidateQueries({ queryKey });
      }
      if (unsaved.current === sent) {
        unsaved.current = null;
        dropDraft(note.id);
        setState('kept');
      } else {
        put({});
        plan(SAVE_AFTER_MS);
      }
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
  const put = (part: Pick<NoteDraft, 'title' | 'body'>) => {
    unsaved.current = { ...unsaved.current, ...part, seenAt: seenAt.current };
    keepDraft(note.id, unsaved.current);
  };
  const write = (part: Pick<NoteDraft, 'title' | 'body'>) => {
    put(part);
    setState((now) => (now === 'conflict' ? now : 'writing'));
    plan(SAVE_AFTER_MS);
  };

  useEffect(() => {
    const held = holdNote(note.id);
    if (unsaved.current) plan(0);
    return () => {
      clearTimeout(timer.current);
      // The page is left: what is unsaved goes at once, and stays on the device if that fails.
      void latest.current().finally(() => held.then((release) => release()));
    };
    // The page is made anew for another note.
  }, [note.id]);

  return {
    state,
    /** What the page begins with. */
    title: draft?.title ?? note.title,
    body: draft?.body ?? note.body,
    write: (body: NoteBody) => write({ body }),
    rename: (title: string) => write({ title }),
    /** What was written here, for a note of its own where both texts are to be kept. */
    ownBody: () => unsaved.current?.body ?? null,
    forget: () => {
      unsaved.current = null;
      dropDraft(note.id);
    },
  };
}
