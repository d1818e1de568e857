/** Made by Immeld (pencil), accepted by the person (ink) or turned down (dropped). */
export const PENCIL_STATES = ['pencil', 'ink', 'dropped'] as const;
export type PencilState = (typeof PENCIL_STATES)[number];
