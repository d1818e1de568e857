import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { PDF_FONTS } from './pdfFonts';

const FONT_FILES = new Set(Object.values(PDF_FONTS).flatMap((looks) => Object.values(looks)));
let isReady = false;

/** A PDF by its definition, with the typefaces that ship. Nothing is fetched, and nothing read but the typefaces. */
export function pdfBytes(definition: TDocumentDefinitions): Promise<Buffer> {
  if (!isReady) {
    pdfmake.addFonts(PDF_FONTS);
    pdfmake.setUrlAccessPolicy(() => false);
    pdfmake.setLocalAccessPolicy((file) => FONT_FILES.has(file));
    isReady = true;
  }
  return pdfmake.createPdf(definition).getBuffer();
}
