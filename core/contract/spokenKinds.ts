/** What a recording is: thoughts of one's own, a message to somebody, a conversation, a talk, a letter that is dictated. */
export const SPOKEN_KINDS = ['memo', 'message', 'dialogue', 'lecture', 'letter'] as const;
export type SpokenKind = (typeof SPOKEN_KINDS)[number];

/** What people read. */
export const SPOKEN_KIND_NAMES: Record<SpokenKind, string> = {
  memo: 'Memo',
  message: 'Message',
  dialogue: 'Conversation',
  lecture: 'Talk or lecture',
  letter: 'Dictated letter',
};

/** Whose the one voice of a recording is: the person's own, or somebody else's. */
export const VOICES = ['own', 'other'] as const;
export type Voice = (typeof VOICES)[number];
