import type { Recording } from '@immeld/core/contract/recordings';
import type { Slip } from '@immeld/core/contract/slips';
import type { Done } from '@immeld/core/contract/shelves';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { createContext } from 'react';
import { call } from '../../api/call';
import { useShowDone } from '../../ui/doing';

/** As HTML's `accept` takes them. */
export const DECK_ENDINGS = '.pdf,.pptx';

/** Ids of the files that are shown as slides. */
export const DecksContext = createContext<ReadonlySet<string>>(new Set());

export const decksOf = ({ slips }: Pick<Recording, 'slips'>): ReadonlySet<string> =>
  new Set(slips.flatMap((s) => s.slide?.deckId ?? []));

/** The slides that have a place in a recording, in the order in which they were shown. */
export const placedSlides = ({ slips }: Pick<Recording, 'slips'>): Slip[] =>
  slips.filter((s) => s.kind === 'slide' && !s.isWhole).sort((a, b) => a.startMs - b.startMs);

/** Number of the slide that is shown at a time, in milliseconds; before the first one it is the first. */
export const slideAt = (slides: readonly Slip[], ms: number): number =>
  Math.max(
    0,
    slides.findLastIndex((s) => s.startMs <= ms),
  );

type Asked = { make: string } | { place: string } | { accept: string };

const ask = (asked: Asked): Promise<Done> =>
  'make' in asked
    ? call('makeSlides', { params: { id: asked.make } })
    : 'place' in asked
      ? call('placeSlides', { params: { id: asked.place } })
      : call('acceptSlides', { params: { id: asked.accept } });

/** Has slides made of the file of a slip, and has their places proposed again or accepted. */
export function useSlideChanges() {
  const client = useQueryClient();
  const showDone = useShowDone();
  return useMutation({
    mutationFn: ask,
    onSuccess: async (done) => {
      await client.invalidateQueries({ queryKey: ['recordings'] });
      showDone(done);
    },
  });
}
