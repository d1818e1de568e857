/** What kind of answer a question wants. */
export const QUESTION_KINDS = [
  ...(['who', 'when', 'where', 'count', 'why', 'how'] as const),
  ...(['meaning', 'promise', 'digest', 'what'] as const),
] as const;
export type QuestionKind = (typeof QUESTION_KINDS)[number];
