/** Draws the pages of a PDF; loaded only when one is opened, and handed over as a property of the window. */
import { GlobalWorkerOptions, getDocument } from 'pdfjs-dist';
import { runsOfPdf, slideOf } from '@immeld/core/slides/slideOf';
import type { PdfDrawer } from '../features/recording/pdfDrawer';

GlobalWorkerOptions.workerSrc = '/workers/pdfWorker.mjs';

const open: PdfDrawer = async (bytes) => {
  const pdf = await getDocument({ data: bytes, isEvalSupported: false }).promise;
  return {
    pages: pdf.numPages,
    draw: async (number, canvas, width) => {
      const page = await pdf.getPage(number);
      const natural = page.getViewport({ scale: 1 });
      const viewport = page.getViewport({ scale: (width * devicePixelRatio) / natural.width });
      Object.assign(canvas, { width: Math.round(viewport.width), height: Math.round(viewport.height) });
      await page.render({ canvas, viewport }).promise;
    },
    words: async (number) => slideOf(runsOfPdf((await (await pdf.getPage(number)).getTextContent()).items), number),
    close: () => void pdf.destroy(),
  };
};

Object.assign(window, { immeldPdf: open });
