import type { ExportDocument } from '@immeld/core/exports/exportDocument';
import type { Manifest } from '../backup/archive';
import { backup } from '../backup/backup';
import { type MergedArchive, mergeArchive } from '../backup/mergeArchive';
import { docxFile } from '../exports/docxFile';
import type { PagePicture } from '../exports/pagePictures';
import { pictureWords } from '../media/pictureWords';
import { pdfFile } from '../exports/pdfFile';
import type { DeckForm } from '@immeld/core/slides/deckForms';
import { type ReadDeck, readDeck } from '../slides/readDeck';
import { pdfWords } from '../storage/pdfWords';

/** Work on what strangers made, or that needs much memory: documents with pages, PDFs that came, and archives. */
export type HeavyTask =
  | { kind: 'page'; form: 'docx' | 'pdf'; sheet: ExportDocument; pictures: ReadonlyMap<string, PagePicture> }
  | { kind: 'pdf words'; file: string }
  | { kind: 'picture words'; file: string }
  /** The pictures of the slides are written into the folder. */
  | { kind: 'deck'; file: string; form: DeckForm; folder: string }
  | { kind: 'backup'; dataFolder: string; target: string; account: string | null; passphrase: string | null }
  | { kind: 'bring back'; file: string; dataFolder: string; account: string; passphrase: string | null };

type Results = {
  page: Uint8Array;
  'pdf words': string;
  'picture words': string;
  deck: ReadDeck;
  backup: Manifest;
  'bring back': MergedArchive;
};
export type HeavyResult<T extends HeavyTask> = Results[T['kind']];
export type FromHeavyProcess =
  { progress: number } | { result: unknown } | { problem: string; kind: string; code?: string };

export async function doHeavyTask(
  task: HeavyTask,
  onProgress: (share: number) => void,
): Promise<Results[HeavyTask['kind']]> {
  switch (task.kind) {
    case 'page': {
      // On their way here buffers have become plain arrays of bytes.
      const pictures = new Map([...task.pictures].map(([id, p]) => [id, { ...p, bytes: Buffer.from(p.bytes) }]));
      return new Uint8Array(await (task.form === 'docx' ? docxFile : pdfFile)(task.sheet, pictures));
    }
    case 'pdf words':
      return pdfWords(task.file);
    case 'picture words':
      return pictureWords(task.file);
    case 'deck':
      return readDeck(task.file, task.form, task.folder, onProgress);
    case 'backup': {
      const { dataFolder, target, account, passphrase } = task;
      return backup(dataFolder, target, {
        onProgress,
        ...(account ? { account } : {}),
        ...(passphrase ? { passphrase } : {}),
      });
    }
    case 'bring back': {
      const { file, dataFolder, account, passphrase } = task;
      return mergeArchive(file, dataFolder, account, { onProgress, ...(passphrase ? { passphrase } : {}) });
    }
  }
}
