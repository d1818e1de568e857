import type { Recording } from '@immeld/core/contract/recordings';
import type { MarkKind, NewSlip } from '@immeld/core/contract/slips';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { v4 as newId } from 'uuid';
import { answerTo, call } from '../../api/call';
import { useMarkKinds } from '../../ui/mark';
import { PICTURE_TYPES, pickFile } from '../../ui/pickFile';
import { SLIP_NAMES } from '../../ui/slipNames';
import { useUndoBar } from '../../ui/undoBar';
import { DECK_ENDINGS } from './useSlides';

type NewMargin = Pick<NewSlip, 'kind' | 'text'> & { mark?: MarkKind; address?: string; bytes?: File };

/** Beside words that were said, or with the whole recording. */
type Place = { startMs: number; endMs: number } | 'whole';
const placeOf = (place: Place): Pick<NewSlip, 'startMs' | 'endMs' | 'isWhole'> =>
  place === 'whole'
    ? { startMs: 0, endMs: null, isWhole: true }
    : { startMs: Math.round(place.startMs), endMs: Math.round(place.endMs) };

/** A link to what was typed; an address without a scheme is one of the web. */
export const newLink = (typed: string): NewMargin => {
  const address = typed.trim();
  return { kind: 'link', text: '', address: /^(https?:|mailto:)/i.test(address) ? address : `https://${address}` };
};

/** Puts something into the margin of a recording. */
export function useMargin({ id }: Recording) {
  const client = useQueryClient();
  const show = useUndoBar();
  const kinds = useMarkKinds();
  const [error, setError] = useState<Error | null>(null);
  const refresh = useCallback(
    () => Promise.all([['recordings'], ['todos']].map((queryKey) => client.invalidateQueries({ queryKey }))),
    [client],
  );
  const put = useCallback(
    async ({ kind, mark, text, address, bytes }: NewMargin, place: Place): Promise<string | null> => {
      const slip: NewSlip = {
        ...{ id: newId(), kind, mark: mark ?? null, text, ...placeOf(place) },
        ...(address ? { address } : {}),
      };
      try {
        await call('addSlips', { params: { id }, body: { slips: [slip] } });
        if (bytes) {
          const params = { id: slip.id };
          const sent =
            kind === 'picture'
              ? answerTo('putPicture', { params, file: bytes })
              : answerTo('putSlipFile', { params, query: { name: bytes.name }, file: bytes });
          await sent.catch(async (problem: unknown) => {
            await call('changeSlip', { params, body: { isBinned: true } });
            throw problem;
          });
        }
        setError(null);
        await refresh();
        const undo = () =>
          void call('changeSlip', { params: { id: slip.id }, body: { isBinned: true } }).then(refresh, setError);
        show(`${mark ? kinds.of(mark).label : SLIP_NAMES[kind]} added to the margin.`, undo);
        return slip.id;
      } catch (problem) {
        setError(problem as Error);
        return null;
      }
    },
    [id, refresh, show, kinds],
  );
  const lift = useCallback(
    async (text: string, startMs: number) => {
      try {
        const todo = await call('addTodo', { body: { text: asAction(text).slice(0, 500), recordingId: id, startMs } });
        setError(null);
        await refresh();
        const undo = () =>
          void call('changeTodo', { params: { id: todo.id }, body: { isBinned: true } }).then(refresh, setError);
        show('Added to your to-dos.', undo);
      } catch (problem) {
        setError(problem as Error);
      }
    },
    [id, refresh, show],
  );
  /** Adds a file to the whole recording. @returns the id of its slip; null where none was chosen or it did not arrive */
  const putDeck = async (): Promise<string | null> => {
    const file = await pickFile(DECK_ENDINGS);
    return file && put({ kind: 'file', text: file.name, bytes: file }, 'whole');
  };
  /** A picture is shown as one, everything else is kept as a file. @returns whether one was chosen */
  const putFile = async (place: Place): Promise<boolean> => {
    const file = await pickFile();
    if (!file) return false;
    const kind = PICTURE_TYPES.split(',').includes(file.type) ? 'picture' : 'file';
    void put({ kind, text: file.name, bytes: file }, place);
    return true;
  };
  return { put, putFile, putDeck, lift, error };
}

/** Lifted words as a line of a list: "call Bram." is "Call Bram". */
const asAction = (words: string): string => {
  const bare = words.trim().replace(/(?<![.,;:])[.,;:]+$/, '');
  return bare.charAt(0).toUpperCase() + bare.slice(1);
};
