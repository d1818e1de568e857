import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { needsPlaybackCopy } from '../recognition/playbackCopy';

/** The folder with the sound files. Files are named by the recording's id: what people call them stands in the database. */
export class SoundStore {
  readonly folder: string;
  readonly uploadFolder: string;
  private readonly pictureFolder: string;
  private readonly pieceFolder: string;

  constructor(dataFolder: string) {
    this.folder = path.join(dataFolder, 'sound');
    this.uploadFolder = path.join(dataFolder, 'uploads');
    this.pictureFolder = path.join(dataFolder, 'pictures');
    this.pieceFolder = path.join(dataFolder, 'pieces');
    for (const folder of [this.folder, this.uploadFolder, this.pictureFolder, this.pieceFolder])
      fs.mkdirSync(folder, { recursive: true });
  }

  pathOf(soundFile: string): string {
    return path.join(this.folder, path.basename(soundFile));
  }

  picturePath(pictureFile: string): string {
    return path.join(this.pictureFolder, path.basename(pictureFile));
  }

  /** What a transcription under way has recognised so far. */
  piecePath(jobId: string): string {
    return path.join(this.pieceFolder, `${path.basename(jobId)}.jsonl`);
  }

  hasPieces(jobId: string): Promise<boolean> {
    return fs.promises.access(this.piecePath(jobId)).then(
      () => true,
      () => false,
    );
  }

  dropPieces(jobId: string): Promise<void> {
    return fs.promises.rm(this.piecePath(jobId), { force: true });
  }

  /** Removes what was recognised by transcriptions that ended. @param unfinished ids of those that go on */
  sweepPieces(unfinished: ReadonlySet<string>): void {
    for (const name of fs.readdirSync(this.pieceFolder))
      if (!unfinished.has(path.basename(name, '.jsonl'))) fs.rmSync(path.join(this.pieceFolder, name), { force: true });
  }

  /** A file in the margin; what it is called stands in the database. */
  slipFilePath(slipId: string): string {
    return path.join(this.pictureFolder, `${path.basename(slipId)}.file`);
  }

  /** Takes a finished file in by renaming it, so it is there whole or not at all. */
  async take(source: string, soundFile: string): Promise<void> {
    await fs.promises.rename(source, this.pathOf(soundFile));
  }

  /** Where the copy for playing goes, or null when the original can be played. */
  playbackPlan(soundFile: string, added = 0): { fileName: string; target: string; isWebm: boolean } | null {
    const extension = path.extname(soundFile);
    if (!needsPlaybackCopy(extension) && !added) return null;
    const isWebm = extension === '.webm' && !added;
    const number = added ? `.${added}` : '';
    const fileName = `${path.basename(soundFile, extension)}.play${number}.${isWebm ? 'webm' : 'ogg'}`;
    return { fileName, target: this.pathOf(fileName), isWebm };
  }
}

/** SHA-256 of a file as lower-case hex, read in pieces. */
export async function sha256Of(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of fs.createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}
