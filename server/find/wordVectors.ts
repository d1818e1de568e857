import { WordVectors } from '@immeld/core/find/wordVectors';
import fs from 'node:fs';
import path from 'node:path';
import { projectRoot } from '../projectRoot';
import { log } from '../log';

let loaded: WordVectors | null | undefined;

/** The word vectors that ship with Immeld, read when they are first needed; null where the files are missing. */
export function wordVectors(): WordVectors | null {
  if (loaded === undefined) {
    const folder = path.join(projectRoot(), 'server', 'find', 'vectors');
    try {
      const words = fs.readFileSync(path.join(folder, 'words.txt'), 'utf8').trimEnd().split('\n');
      const bytes = fs.readFileSync(path.join(folder, 'vectors.bin'));
      loaded = new WordVectors(words, new Int8Array(bytes.buffer, bytes.byteOffset, bytes.length));
    } catch (error) {
      log.error(error, 'Questions are answered without word vectors.');
      loaded = null;
    }
  }
  return loaded;
}
