import fs from 'node:fs';
import path from 'node:path';
import nspell from 'nspell';
import { projectRoot } from '../projectRoot';

type Spelling = ReturnType<typeof nspell>;
let loaded: Spelling[] | null = null;

/** British and American spelling, read when they are first needed. */
export function spellingDictionary(): Spelling[] {
  loaded ??= ['dictionary-en-gb', 'dictionary-en'].map((name) => {
    const folder = path.join(projectRoot(), 'node_modules', name);
    const read = (file: string) => fs.readFileSync(path.join(folder, file), 'utf8');
    return nspell(read('index.aff'), read('index.dic'));
  });
  return loaded;
}
