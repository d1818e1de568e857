import { createHash } from 'node:crypto';
import fs from 'node:fs';
import type { Span } from '@immeld/core/speech/speechSegmenter';
import type { RecognisedPieces, RecognisedSpeech } from '@immeld/core/speech/transcriber';

const keyOf = ({ start, end }: Span): string => `${start}-${end}`;

/**
 * The recognised pieces of one transcription, a line of JSON each. A line is written as soon as its piece is done, so a
 * server that is killed loses the piece it was at and no more. Lines that cannot be read are left out. Where nothing can be
 * written the transcription goes on all the same, and would begin anew after a new start.
 */
export class PieceFile implements RecognisedPieces {
  private readonly pieces = new Map<string, RecognisedSpeech>();
  private isWritten = true;

  /**
   * @param made all that the words depend on. Pieces that were made otherwise are thrown away.
   */
  constructor(
    private readonly file: string,
    made: unknown,
  ) {
    try {
      this.open(createHash('sha256').update(JSON.stringify(made)).digest('hex'));
    } catch {
      this.isWritten = false;
    }
  }

  private open(key: string): void {
    const { file } = this;
    const [first, ...lines] = fs.existsSync(file) ? fs.readFileSync(file, 'utf8').split('\n') : [];
    if (first !== key) {
      fs.writeFileSync(file, `${key}\n`, { mode: 0o600 });
      return;
    }
    for (const line of lines) this.read(line);
    // A line that was broken off stays alone.
    if (lines.at(-1) !== '') fs.appendFileSync(file, '\n');
  }

  get size(): number {
    return this.pieces.size;
  }

  find(span: Span): RecognisedSpeech | undefined {
    return this.pieces.get(keyOf(span));
  }

  add(span: Span, speech: RecognisedSpeech): void {
    if (!this.isWritten) return;
    try {
      fs.appendFileSync(this.file, `${JSON.stringify([keyOf(span), speech])}\n`);
    } catch {
      // A full disk costs the way back, not the words.
      this.isWritten = false;
    }
  }

  private read(line: string): void {
    try {
      const [key, speech] = JSON.parse(line) as [string, RecognisedSpeech];
      this.pieces.set(key, speech);
    } catch {
      // The end of a file whose writer was killed.
    }
  }
}
