import type { ExportDocument } from './exportDocument';

/** What is selected of one paragraph, and who says it. */
export type SelectedPart = { speaker: string | null; text: string };

/** Selected words to be put on the clipboard: a paragraph each, with names where more than one person speaks. */
export function selectionDocument(parts: readonly SelectedPart[]): ExportDocument {
  const hasNames = new Set(parts.map((p) => p.speaker)).size > 1;
  return {
    ...{ title: '', facts: [], hasHeader: false, hasTitlePage: false, language: 'en', footnotes: [] },
    blocks: parts.map(({ speaker, text }) => ({
      ...{ kind: 'paragraph', lead: hasNames && speaker ? `${speaker}: ` : '', runs: [{ text }], notes: [] },
    })),
  };
}
