import fs from 'node:fs';
import { joinedLines } from './joinedLines';
import { openPdf } from './openPdf';

const MAX_PAGES = 2000;

/** The words of a PDF, page after page. Rejects where it cannot be read. */
export async function pdfWords(file: string): Promise<string> {
  const pdf = await openPdf(new Uint8Array(fs.readFileSync(file)));
  const pages: string[] = [];
  for (let number = 1; number <= Math.min(pdf.numPages, MAX_PAGES); number++) {
    const { items } = await (await pdf.getPage(number)).getTextContent();
    pages.push(items.map((item) => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : '')).join(' '));
  }
  await pdf.destroy();
  return joinedLines(pages.join('\n'));
}
