import { inProcess } from '../tasks/inProcess';

const RULES = { memoryMb: 800, limitMs: 120_000 };
/** Beyond that a document is no longer something that one looks for words in. */
const MAX_CHARACTERS = 1_000_000;

/** One at a time: forty at once would take forty times the memory. */
let before: Promise<unknown> = Promise.resolve();

/** The words of a PDF, read in a process of its own; null where it has none or cannot be read. */
export function pdfText(file: string): Promise<string | null> {
  const mine = before
    .then(() => inProcess({ kind: 'pdf words', file }, RULES))
    .then(
      (text) => text.slice(0, MAX_CHARACTERS) || null,
      () => null,
    );
  before = mine;
  return mine;
}
