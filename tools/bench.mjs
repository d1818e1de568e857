/** Measures recognition and prints the tables; `--write` puts them into docs/benchmarks.md. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { checkNode, installDebian, installNpmPackages, installTestSpeech } from './install.mjs';
import { root, say } from './paths.mjs';

checkNode();
installNpmPackages();
installTestSpeech();
if (spawnSync('sh', ['-c', 'command -v pocketsphinx_continuous'], { stdio: 'ignore' }).status !== 0) {
  installDebian(['pocketsphinx', 'pocketsphinx-en-us'], 'pocketsphinx, for comparison');
}
const { buildAll } = await import('./build.mjs');
await buildAll({ only: ['model files', 'server'] });
say('Measuring; this takes about ten minutes on two quiet cores …');
const run = spawnSync(
  process.execPath,
  [
    path.join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs'),
    path.join(root, 'tools', 'bench', 'recognition.ts'),
    ...process.argv.slice(2),
  ],
  { stdio: 'inherit', cwd: root },
);
process.exit(run.status ?? 1);
