import type { SlideWords } from '@immeld/core/slides/placeSlides';

export type OpenPdf = {
  pages: number;
  /** @param number of the page, from 1 @param width on the screen in pixels */
  draw: (number: number, canvas: HTMLCanvasElement, width: number) => Promise<void>;
  /** The words on a page, from 1, with its title. */
  words: (number: number) => Promise<SlideWords>;
  close: () => void;
};
export type PdfDrawer = (bytes: ArrayBuffer) => Promise<OpenPdf>;

type WithDrawer = { immeldPdf?: PdfDrawer };

let loading: Promise<PdfDrawer> | null = null;

/** The program that draws PDFs is large: it is fetched when the first one is opened. */
export function pdfDrawer(): Promise<PdfDrawer> {
  loading ??= new Promise<PdfDrawer>((resolve, reject) => {
    const script = document.createElement('script');
    Object.assign(script, { type: 'module', src: '/workers/pdfPages.js' });
    script.onload = () => resolve((window as WithDrawer).immeldPdf!);
    script.onerror = () => {
      loading = null;
      reject(new Error('The pages cannot be shown right now. You can still save the file.'));
    };
    document.head.append(script);
  });
  return loading;
}
