import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

let folder = os.tmpdir();

/** Has heavy work done below a data folder; what a server that died left there is removed. */
export function useWorkFolderOf(dataFolder: string): void {
  folder = path.join(dataFolder, 'work');
  fs.rmSync(folder, { recursive: true, force: true });
  fs.mkdirSync(folder, { recursive: true, mode: 0o700 });
}

/** A folder for one piece of work, which goes when the work has ended, however it ends. */
export const newWorkFolder = (): string => fs.mkdtempSync(path.join(folder, 'immeld-work-'));
