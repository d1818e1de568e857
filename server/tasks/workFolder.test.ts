import fs from 'node:fs';
import path from 'node:path';
import { temporaryFolder } from '../testing/testServer';
import { newWorkFolder, useWorkFolderOf } from './workFolder';

test('what a server that died left half done is gone at the next start; what is stored stays', () => {
  const dataFolder = temporaryFolder();
  const stored = path.join(dataFolder, 'sound.ogg');
  fs.writeFileSync(stored, 'sound');
  useWorkFolderOf(dataFolder);
  const left = path.join(newWorkFolder(), 'all.zip');
  fs.writeFileSync(left, 'half');
  useWorkFolderOf(dataFolder);
  expect([fs.existsSync(left), fs.existsSync(stored)]).toEqual([false, true]);
  expect(fs.statSync(path.dirname(newWorkFolder())).mode & 0o077).toBe(0);
  fs.rmSync(dataFolder, { recursive: true });
});
