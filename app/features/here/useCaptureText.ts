import type { MarkKind } from '@immeld/core/contract/slips';
import type { TranscribedWord } from '@immeld/core/speech/transcriber';
import { retimeWords } from '@immeld/core/transcript/edit';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { passagesFrom } from '@immeld/core/transcript/passages';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { v4 as newId } from 'uuid';
import type { CaptureStore } from '../../offline/captureStore';
import { useDevice } from '../../offline/deviceContext';

/** Something that this device keeps, read anew whenever something of it changes; null until it has been read. */
function useKept<T>(read: (store: CaptureStore) => Promise<T>): T | null {
  const { store } = useDevice();
  const [kept, setKept] = useState<T | null>(null);
  useEffect(() => {
    let isGone = false;
    const look = () =>
      void read(store).then((found) => {
        if (!isGone) setKept(found);
      });
    look();
    const stop = store.subscribe(look);
    return () => {
      isGone = true;
      stop();
    };
  }, [store, read]);
  return kept;
}

/** The words that this device heard of a recording; null until they have been read. */
export const useCaptureWords = (captureId: string): readonly TranscribedWord[] | null =>
  useKept(useCallback((store: CaptureStore) => store.textOf(captureId), [captureId]));

/** The text and the marks of a recording on this device, and what can be done with them. */
export function useCaptureText(captureId: string) {
  const { store } = useDevice();
  const words = useCaptureWords(captureId);
  const passages = useMemo(() => words && passagesFrom(words), [words]);
  const kept = useKept(useCallback((own: CaptureStore) => own.slipsOf(captureId), [captureId]));
  const slips = useMemo(() => (kept ?? []).map((k) => k.slip), [kept]);
  /** Gives a passage another text; its words keep their times. */
  const rewrite = async (passage: Passage, text: string) => {
    const rewritten = retimeWords(passage.words, text, passage);
    const all = passages!.flatMap((p) => (p === passage ? rewritten : p.words));
    await store.keepText(captureId, all as TranscribedWord[]);
  };
  const mark = (passage: Passage, kind: MarkKind) => {
    const { startMs, endMs } = passage;
    return store.keepSlip(captureId, { id: newId(), kind: 'mark', mark: kind, startMs, endMs, text: '' });
  };
  const unmark = (slipId: string) => store.dropSlip(captureId, slipId);
  return { passages, slips, rewrite, mark, unmark };
}
