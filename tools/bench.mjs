/** Measures recognition and capture and prints the tables; `--write` puts them into docs/benchmarks.md. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { checkNode, installDebian, installForTests } from './install.mjs';
import { root, say } from './paths.mjs';

checkNode();
const { compiled } = await installForTests();
if (spawnSync('sh', ['-c', 'command -v pocketsphinx_continuous'], { stdio: 'ignore' }).status !== 0) {
  await installDebian(['pocketsphinx', 'pocketsphinx-en-us'], 'pocketsphinx, for comparison');
}
if (spawnSync('sh', ['-c', 'command -v flite'], { stdio: 'ignore' }).status !== 0)
  await installDebian(['flite'], 'flite, voices');
if (spawnSync('sh', ['-c', 'test -e /usr/share/doc/asterisk-core-sounds-en'], { stdio: 'ignore' }).status !== 0)
  await installDebian(['asterisk-core-sounds-en-g722'], 'clips of a person');
const { buildAll } = await import('./build.mjs');
await buildAll();
await compiled;
say('Measuring; this takes about three quarters of an hour on two quiet cores, ten minutes with --short …');
let status = 0;
for (const name of [
  'recognition',
  'human',
  'cleaning',
  'speakers',
  'monologues',
  'names',
  'longText',
  'exports',
  'archive',
  'finding',
  'todos',
  'understanding',
  'asking',
  'writeUps',
  'notes',
  'decisions',
  'attacks',
  'queue',
  'live',
]) {
  const run = spawnSync(
    process.execPath,
    [
      path.join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs'),
      path.join(root, 'tools', 'bench', `${name}.ts`),
      ...process.argv.slice(2),
    ],
    { stdio: 'inherit', cwd: root },
  );
  status ||= run.status ?? 1;
}
process.exit(status);
