/** What is found, in the kinds in which it stands in the index. */
export const FOUND_KINDS = ['title', 'passage', 'note', 'slip', 'todo', 'tag', 'person', 'file'] as const;
export type FoundKind = (typeof FOUND_KINDS)[number];
