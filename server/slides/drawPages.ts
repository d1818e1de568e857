import { once } from 'node:events';
import fs from 'node:fs';
import path from 'node:path';
import { type FfmpegRun, startFfmpeg } from '../media/ffmpeg';
import { projectRoot } from '../projectRoot';

/** Of a drawn page in pixels: enough for a wide screen, little enough for two hundred of them. */
const WIDTH = 1200;
/** A page that is a strip or a scroll is drawn smaller. */
const MAX_PIXELS = 2_400_000;
/** From 2, the best, to 31. */
const JPEG_QUALITY = '3';
const LIMIT_MS = 120_000;

/**
 * Draws each page of a PDF as a JPEG, `1.jpg` and so on.
 * @param folder where the pictures are written
 * @returns for each page the name of its picture, null where it could not be drawn
 */
export async function drawPages(
  pdf: Uint8Array,
  folder: string,
  onProgress: (share: number) => void,
): Promise<(string | null)[]> {
  // A module of its own kind with its program beside it: it stays outside the bundle.
  const { PDFiumLibrary } = await import('@hyzyla/pdfium');
  const program = fs.readFileSync(path.join(projectRoot(), 'node_modules/@hyzyla/pdfium/dist/pdfium.wasm'));
  const library = await PDFiumLibrary.init({
    wasmBinary: program.buffer.slice(program.byteOffset, program.byteOffset + program.byteLength) as ArrayBuffer,
  });
  const document = await library.loadDocument(pdf);
  const count = document.getPageCount();
  const pictures = new PictureFiles(folder);
  for (let i = 0; i < count; i++) {
    const page = document.getPage(i);
    const { originalWidth, originalHeight } = page.getOriginalSize();
    const scale = Math.min(WIDTH / originalWidth, Math.sqrt(MAX_PIXELS / (originalWidth * originalHeight)));
    // A page that cannot be drawn is one without a picture.
    const drawn = await page.render({ scale, render: async ({ data }) => data }).catch(() => null);
    if (drawn) await pictures.add(i + 1, drawn);
    onProgress((i + 1) / count);
  }
  await pictures.end();
  document.destroy();
  library.destroy();
  return Array.from({ length: count }, (_, i) => nameOf(i + 1)).map((name) =>
    fs.existsSync(path.join(folder, name)) ? name : null,
  );
}

const nameOf = (number: number): string => `${number}.jpg`;

type Drawn = { data: Uint8Array; width: number; height: number };

/** Writes pictures as JPEG files by their numbers; pages of one size go through one run of ffmpeg. */
class PictureFiles {
  private run: (FfmpegRun & { size: string; next: number }) | null = null;

  constructor(private readonly folder: string) {}

  async add(number: number, { data, width, height }: Drawn): Promise<void> {
    const size = `${width}x${height}`;
    if (this.run?.size !== size || this.run.next !== number) {
      await this.end();
      this.run = { ...(await this.start(size, number)), size, next: number };
    }
    this.run.next++;
    const input = this.run.program.stdin!;
    // The program draws with blue first.
    if (!input.write(data)) await Promise.race([once(input, 'drain'), this.run.closed]);
  }

  async end(): Promise<void> {
    this.run?.program.stdin!.end();
    await this.run?.closed;
    this.run = null;
  }

  private async start(size: string, number: number): Promise<FfmpegRun> {
    const run = await startFfmpeg(
      [],
      [
        ...['-f', 'rawvideo', '-pix_fmt', 'bgra', '-video_size', size, '-i', 'pipe:0'],
        ...['-pix_fmt', 'yuvj444p', '-q:v', JPEG_QUALITY, '-start_number', String(number)],
        ...['-f', 'image2', path.join(this.folder, '%d.jpg')],
      ],
      { limitMs: LIMIT_MS, stdin: 'pipe' },
    );
    // It may end before it has read all; then its pictures are missing, and nothing else is.
    run.program.stdin!.on('error', () => undefined);
    return run;
  }
}
