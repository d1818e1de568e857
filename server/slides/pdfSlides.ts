import type { SlideWords } from '@immeld/core/slides/placeSlides';
import { runsOfPdf, slideOf } from '@immeld/core/slides/slideOf';
import { openPdf } from '../storage/openPdf';
import { DeckProblem, checkPages } from './slideLimits';

/**
 * The words of each page of a PDF, with the title that its largest letters make.
 * @throws DeckProblem where it has a password, is damaged, or has no pages or too many
 */
export async function pdfSlides(bytes: Uint8Array): Promise<SlideWords[]> {
  const pdf = await openPdf(bytes).catch((error: unknown) => {
    throw new DeckProblem(
      error instanceof Error && error.name === 'PasswordException'
        ? 'This PDF has a password. Save it without one, then add it again.'
        : 'This PDF is damaged and cannot be read.',
    );
  });
  try {
    checkPages(pdf.numPages);
    const slides: SlideWords[] = [];
    for (let number = 1; number <= pdf.numPages; number++) {
      const page = await pdf.getPage(number);
      const { items } = await page.getTextContent();
      slides.push(slideOf(runsOfPdf(items), number));
      page.cleanup();
    }
    return slides;
  } finally {
    await pdf.destroy();
  }
}
