/** Orders in which recordings stand on a shelf. */
export const RECORDING_SORTS = ['newest', 'oldest', 'title', 'longest'] as const;
export type RecordingSort = (typeof RECORDING_SORTS)[number];
/** And in the tray: imported files stand where they came. */
export const LIST_SORTS = [...RECORDING_SORTS, 'arrived'] as const;
export type ListSort = (typeof LIST_SORTS)[number];
