import fs from 'node:fs';
import path from 'node:path';
import { projectRoot } from '../projectRoot';

/** So sure must the reader be of a word, in per cent: leaves and stones are read as letters, too, but unsurely. */
const SURE_ENOUGH = 55;
/** Letters of one picture that are kept. */
const MAX_LETTERS = 5000;

/** A line of a picture as it was read. */
type ReadLine = { words: readonly { text: string; confidence: number }[] };

/**
 * The printed words in a picture, line by line; empty where there are none. Language and program come from the packages, and
 * nothing is fetched.
 * Method: Tesseract's line recogniser (Smith 2007), with the tilt of the picture taken out first.
 * Rejects where the picture cannot be read.
 */
export async function pictureWords(file: string): Promise<string> {
  // It looks for its parts beside itself: it stays outside the bundle.
  const { createWorker, OEM } = await import('tesseract.js');
  const worker = await createWorker('eng', OEM.LSTM_ONLY, {
    langPath: path.join(projectRoot(), 'node_modules/@tesseract.js-data/eng/4.0.0_best_int'),
    ...{ gzip: true, cacheMethod: 'none', errorHandler: () => undefined },
  });
  try {
    const { data } = await worker.recognize(fs.readFileSync(file), { rotateAuto: true }, { blocks: true, text: false });
    return keptLines((data.blocks ?? []).flatMap((b) => b.paragraphs.flatMap((p) => p.lines)));
  } finally {
    await worker.terminate();
  }
}

/** Lines with the words that are likely to be words. */
export const keptLines = (lines: readonly ReadLine[]): string =>
  lines
    .map(({ words }) =>
      words
        .filter((w) => w.confidence >= SURE_ENOUGH && /[\p{L}\p{N}]/u.test(w.text))
        .map((w) => w.text)
        .join(' '),
    )
    .filter((line) => /[\p{L}\p{N}]{2}/u.test(line))
    .join('\n')
    .slice(0, MAX_LETTERS);
