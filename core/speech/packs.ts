/**
 * The packs of the recogniser. `quick` goes to devices for live words; `usual` hears better and takes more time. A pack's
 * name stands with every transcript that it made.
 */
export const PACKS = { quick: 'english-tiny-1', usual: 'english-base-1' } as const;
export type Quality = keyof typeof PACKS;
export const QUALITIES = Object.keys(PACKS) as Quality[];
