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

let misspelled: string | null = null;

/**
 * Words that are often written wrongly, each with the only word that it can be. The list has ninety thousand lines
 * (`"recieve->receive",`) of which a text needs a few: it is searched and not made into a map.
 */
export function commonMisspellings(): { get: (word: string) => string | undefined } {
  misspelled ??= fs.readFileSync(
    path.join(projectRoot(), 'node_modules/@cspell/dict-en-common-misspellings/dict/dict-en.json'),
    'utf8',
  );
  const list = misspelled;
  return {
    get: (word) => {
      const begins = `"${word}->`;
      const at = list.indexOf(begins);
      if (at < 0) return undefined;
      const meant = list.slice(at + begins.length, list.indexOf('"', at + begins.length));
      // Where it can be several words, nobody knows which.
      return meant.includes(',') ? undefined : meant;
    },
  };
}
