/** Files of which slides can be made, by their media type (the second one as ECMA-376 registered it). */
export const DECK_FORMS = {
  'application/pdf': 'pdf',
  'application/vnd.openxmlformats-officedocument.presentationml.presentation': 'pptx',
} as const;
export type DeckForm = (typeof DECK_FORMS)[keyof typeof DECK_FORMS];

/** What kind of deck a file of this media type is; null where it is none. */
export const deckFormOf = (mediaType: string): DeckForm | null =>
  (DECK_FORMS as Record<string, DeckForm>)[mediaType] ?? null;
