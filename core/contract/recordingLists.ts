/** Orders in which recordings stand in a list. */
export const RECORDING_SORTS = ['newest', 'oldest', 'title', 'longest'] as const;
export type RecordingSort = (typeof RECORDING_SORTS)[number];
