import type { MarkKind, NewSlip } from '@immeld/core/contract/slips';
import type { TranscribedWord } from '@immeld/core/speech/transcriber';
import { retimeWords } from '@immeld/core/transcript/edit';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { passagesFrom } from '@immeld/core/transcript/passages';
import { useEffect, useMemo, useState } from 'react';
import { v4 as newId } from 'uuid';
import { useDevice } from '../../offline/deviceContext';

/** The words that this device heard of a recording, read anew whenever something of it changes. */
export function useCaptureWords(captureId: string): readonly TranscribedWord[] | null {
  const { store } = useDevice();
  const [words, setWords] = useState<readonly TranscribedWord[] | null>(null);
  useEffect(() => {
    let isGone = false;
    const read = () =>
      void store.textOf(captureId).then((text) => {
        if (!isGone) setWords(text);
      });
    read();
    const stop = store.subscribe(read);
    return () => {
      isGone = true;
      stop();
    };
  }, [store, captureId]);
  return words;
}

/** The text and the marks of a recording on this device, and what can be done with them. */
export function useCaptureText(captureId: string) {
  const { store } = useDevice();
  const words = useCaptureWords(captureId);
  const passages = useMemo(() => words && passagesFrom(words), [words]);
  const [slips, setSlips] = useState<readonly NewSlip[]>([]);
  useEffect(() => {
    let isGone = false;
    const read = () =>
      void store.slipsOf(captureId).then((kept) => {
        if (!isGone) setSlips(kept.map((k) => k.slip));
      });
    read();
    const stop = store.subscribe(read);
    return () => {
      isGone = true;
      stop();
    };
  }, [store, captureId]);
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
