/** Ids of the spoken commands of a dictation. */
export const DICTATION_COMMANDS = [
  ...(['full-stop', 'comma', 'question-mark', 'exclamation-mark', 'colon', 'semicolon', 'dash'] as const),
  ...(['open-bracket', 'close-bracket', 'open-quote', 'close-quote'] as const),
  ...(['new-paragraph', 'strike-that'] as const),
] as const;
export type DictationCommand = (typeof DICTATION_COMMANDS)[number];
