import type { CaptureStore } from '../offline/captureStore';

/** Writes the pieces of a recording to the disk, numbered, in the order in which the recorder gives them. */
export class PieceWriter {
  private sequence = 0;
  private unwritten: { sequence: number; data: Blob; elapsedMs: number }[] = [];
  private isWriting = false;
  private writing: Promise<void> = Promise.resolve();
  /** Bytes that the recorder has given so far. */
  bytes = 0;

  /** @param onFull told when the storage is full: what comes from now on lives in this page only */
  constructor(
    private readonly store: CaptureStore,
    private readonly captureId: string,
    private readonly onFull: () => void,
  ) {}

  /** @param elapsedMs milliseconds of sound until the end of this piece */
  add(data: Blob, elapsedMs: number): void {
    if (data.size === 0) return;
    this.unwritten.push({ sequence: this.sequence++, data, elapsedMs });
    this.bytes += data.size;
    if (!this.isWriting) this.writing = this.writeOut();
  }

  /** Resolves when everything that was given is written. */
  done(): Promise<void> {
    return this.writing;
  }

  /** What came while the disk was busy goes to it in one go: a slow disk makes no queue that a crash would cost. */
  private async writeOut(): Promise<void> {
    this.isWriting = true;
    try {
      while (this.unwritten.length) {
        const pieces = this.unwritten.splice(0).map(async ({ data, ...piece }) => ({
          ...{ ...piece, captureId: this.captureId, content: await data.arrayBuffer() },
        }));
        if (!(await this.store.addPieces(await Promise.all(pieces)))) this.onFull();
      }
    } finally {
      this.isWriting = false;
    }
  }
}
