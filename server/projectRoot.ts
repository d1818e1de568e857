import fs from 'node:fs';
import path from 'node:path';

/** The folder of the whole project: the nearest one upwards whose package.json is Immeld's. */
export function projectRoot(from: string = __dirname): string {
  for (let folder = from; ; folder = path.dirname(folder)) {
    const file = path.join(folder, 'package.json');
    if (fs.existsSync(file) && (JSON.parse(fs.readFileSync(file, 'utf8')) as { name?: string }).name === 'immeld') {
      return folder;
    }
    if (folder === path.dirname(folder)) throw new Error('Immeld’s own files were not found around this program.');
  }
}
