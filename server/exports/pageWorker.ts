/** A worker thread: makes one document with pages. */
import { workerData } from 'node:worker_threads';
import type { Sheet } from '@immeld/core/exports/sheet';
import { answerFromWorker } from '../jobs/inWorker';
import { docxFile } from './docxFile';
import type { PagePicture } from './pagePictures';
import { pdfFile } from './pdfFile';

export type PageTask = { kind: 'docx' | 'pdf'; sheet: Sheet; pictures: ReadonlyMap<string, PagePicture> };

const { kind, sheet, pictures } = workerData as PageTask;
// On their way here buffers have become plain arrays of bytes.
const buffers = new Map([...pictures].map(([id, p]) => [id, { ...p, bytes: Buffer.from(p.bytes) }]));

answerFromWorker(
  (kind === 'docx' ? docxFile(sheet, buffers) : pdfFile(sheet, buffers)).then((bytes) => new Uint8Array(bytes)),
);
