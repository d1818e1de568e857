import { backup } from '@immeld/server/backup/backup';
import type { Manifest } from '@immeld/server/backup/archive';
import { restore, verify } from '@immeld/server/backup/restore';
import { dataFolder } from '@immeld/server/dataFolder';
import { dayInWords } from '@immeld/core/formats/times';
import fs from 'node:fs';
import path from 'node:path';
import type { Command } from 'commander';

type Options = { data?: string; passphraseFile?: string; force?: boolean };

/** From a file, or from the environment: what stands on a command line is seen by everybody on the machine. */
function passphraseOf({ passphraseFile }: Options): { passphrase?: string } {
  const passphrase = passphraseFile
    ? fs.readFileSync(passphraseFile, 'utf8').replace(/\r?\n$/, '')
    : process.env['IMMELD_PASSPHRASE'];
  return passphrase ? { passphrase } : {};
}

const showing = () => {
  let last = -1;
  return (share: number) => {
    const percent = Math.floor(share * 100);
    if (percent === last) return;
    last = percent;
    if (process.stderr.isTTY) process.stderr.write(`\r${percent}%`);
  };
};

const inWords = ({ objects, files, madeAt }: Manifest): string => {
  const bytes = files.reduce((sum, f) => sum + f.size, 0);
  const count = (kind: string) => objects[kind] ?? 0;
  const counts = [
    [count('recordings'), 'recording'],
    [count('notes'), 'note'],
    [count('todos'), 'to-do'],
    [files.length, 'file'],
  ] as const;
  const named = counts.map(([n, name]) => `${n} ${name}${n === 1 ? '' : 's'}`).join(', ');
  return `${named}, ${(bytes / 1e6).toFixed(1)} MB, as of ${dayInWords(madeAt.slice(0, 16))} UTC`;
};

const PASSPHRASE = 'file that contains the passphrase (or set IMMELD_PASSPHRASE)';
const DATA = 'data folder (default: IMMELD_DATA, then the standard folder)';

/** Everything into one file, and back. */
export function addBackupCommands(program: Command): void {
  program
    .command('backup')
    .description('Create a backup: everything in one file. Works while Immeld runs.')
    .argument('<file>', 'backup file to write')
    .option('--data <folder>', DATA)
    .option('--passphrase-file <file>', PASSPHRASE)
    .option('--force', 'overwrite an existing file')
    .action(async (file: string, options: Options) => {
      if (fs.existsSync(file) && !options.force)
        throw new Error(`${file} already exists. Use --force to overwrite it.`);
      const manifest = await backup(options.data ?? dataFolder(), path.resolve(file), {
        ...passphraseOf(options),
        onProgress: showing(),
      });
      process.stdout.write(`Backup saved to ${file}: ${inWords(manifest)}\n`);
    });
  program
    .command('verify')
    .description('Check a backup and every file in it.')
    .argument('<file>', 'backup file')
    .option('--passphrase-file <file>', PASSPHRASE)
    .action(async (file: string, options: Options) => {
      const manifest = await verify(file, { ...passphraseOf(options), onProgress: showing() });
      process.stdout.write(`${file} is complete: ${inWords(manifest)}\n`);
    });
  program
    .command('restore')
    .description('Restore a backup into an empty data folder.')
    .argument('<file>', 'backup file')
    .option('--data <folder>', DATA)
    .option('--passphrase-file <file>', PASSPHRASE)
    .action(async (file: string, options: Options) => {
      const target = options.data ?? dataFolder();
      const manifest = await restore(file, path.resolve(target), { ...passphraseOf(options), onProgress: showing() });
      process.stdout.write(`Restored to ${target}: ${inWords(manifest)}\n`);
    });
}
