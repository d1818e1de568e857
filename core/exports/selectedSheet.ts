import type { Sheet } from './sheet';

/** What is selected of one paragraph, and who says it. */
export type SelectedPart = { speaker: string | null; text: string };

/** Selected words to be put on the clipboard: a paragraph each, with names where more than one person speaks. */
export function selectedSheet(parts: readonly SelectedPart[]): Sheet {
  const hasNames = new Set(parts.map((p) => p.speaker)).size > 1;
  return {
    ...{ title: '', facts: [], hasHeader: false, hasTitlePage: false, language: 'en', footnotes: [] },
    blocks: parts.map(({ speaker, text }) => ({
      ...{ kind: 'paragraph', lead: hasNames && speaker ? `${speaker}: ` : '', runs: [{ text }], notes: [] },
    })),
  };
}
