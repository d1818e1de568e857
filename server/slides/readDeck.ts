import type { DeckForm } from '@immeld/core/slides/deckForms';
import type { SlideWords } from '@immeld/core/slides/placeSlides';
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { imageSize } from 'image-size';
import { drawPages } from './drawPages';
import { pdfSlides } from './pdfSlides';
import { plainSlidesPdf } from './plainSlides';
import { type PptxSlide, readPptx } from './pptx';

/** A slide with the name of its picture in the folder, where it could be drawn. */
export type ReadSlide = SlideWords & { picture: string | null };
export type ReadDeck = { slides: ReadSlide[]; hasLayout: boolean };

/** A picture of a presentation with more pixels is left out. */
const MAX_PIXELS = 20_000_000;
/** Of the program that turns presentations into PDFs. */
const OFFICE_LIMIT_MS = 60_000;
const PLAIN = 'The words and the picture of the slide. Its layout needs LibreOffice on the server.';

/**
 * Reads a deck: the words of its slides, and a picture of each.
 * @param folder where the pictures are written
 * @returns `hasLayout` is false where the slides of a presentation were drawn in a layout of ours
 * @throws DeckProblem where it cannot be read
 */
export async function readDeck(
  file: string,
  form: DeckForm,
  folder: string,
  onProgress: (share: number) => void,
): Promise<ReadDeck> {
  if (form === 'pdf') {
    const bytes = new Uint8Array(fs.readFileSync(file));
    const slides = await pdfSlides(bytes);
    return { slides: withPictures(slides, await drawPages(bytes, folder, onProgress)), hasLayout: true };
  }
  const slides = await readPptx(file);
  const laidOut = await byOffice(file, folder);
  if (laidOut) {
    const pictures = await drawPages(laidOut, folder, onProgress);
    if (pictures.length === slides.length) return { slides: withPictures(slides, pictures), hasLayout: true };
  }
  const plain = new Uint8Array(await plainSlidesPdf(slides.map(withSafePicture), PLAIN));
  return { slides: withPictures(slides, await drawPages(plain, folder, onProgress)), hasLayout: false };
}

const withPictures = (slides: readonly SlideWords[], pictures: readonly (string | null)[]): ReadSlide[] =>
  slides.map(({ title, text }, i) => ({ title, text, picture: pictures[i] ?? null }));

/** A picture of too many pixels is left out before anything unpacks it. */
function withSafePicture(slide: PptxSlide): PptxSlide {
  if (!slide.picture) return slide;
  try {
    const { width, height } = imageSize(slide.picture.bytes);
    if (width * height <= MAX_PIXELS) return slide;
  } catch {
    // No picture at all, whatever it is called.
  }
  return { ...slide, picture: null };
}

/** A presentation as a PDF, by LibreOffice where it is installed; null where it is not, or cannot do it. */
async function byOffice(file: string, folder: string): Promise<Uint8Array | null> {
  const work = fs.mkdtempSync(path.join(folder, 'office-'));
  const source = path.join(work, 'deck.pptx');
  fs.copyFileSync(file, source);
  const profile = `-env:UserInstallation=file://${path.join(work, 'profile')}`;
  const status = await new Promise<number | null>((resolve) => {
    const program = spawn('soffice', [profile, '--headless', '--convert-to', 'pdf', '--outdir', work, source], {
      ...{ stdio: 'ignore', timeout: OFFICE_LIMIT_MS, killSignal: 'SIGKILL' },
      // Nothing of the server's own settings is for a program that reads what strangers made.
      env: { PATH: process.env['PATH'], HOME: work },
    });
    program.once('error', () => resolve(null));
    program.once('exit', resolve);
  });
  const made = path.join(work, 'deck.pdf');
  const pdf = status === 0 && fs.existsSync(made) ? new Uint8Array(fs.readFileSync(made)) : null;
  fs.rmSync(work, { recursive: true, force: true });
  return pdf;
}
