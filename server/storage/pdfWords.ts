import fs from 'node:fs';
import { joinedLines } from './joinedLines';

const MAX_PAGES = 2000;

/** The words of a PDF, page after page. Rejects where it cannot be read. */
export async function pdfWords(file: string): Promise<string> {
  // The package asks for this class of browsers while it loads; reading words does without it.
  (globalThis as { DOMMatrix?: unknown }).DOMMatrix ??= class {};
  // It is a module of its own kind and looks for its parts beside itself: it stays outside the bundle.
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const pdf = await getDocument({ data: new Uint8Array(fs.readFileSync(file)), isEvalSupported: false, verbosity: 0 })
    .promise;
  const pages: string[] = [];
  for (let number = 1; number <= Math.min(pdf.numPages, MAX_PAGES); number++) {
    const { items } = await (await pdf.getPage(number)).getTextContent();
    pages.push(items.map((item) => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : '')).join(' '));
  }
  await pdf.destroy();
  return joinedLines(pages.join('\n'));
}
