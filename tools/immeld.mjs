/** The command line. Builds it first when it is out of date. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { checkNode, installNpmPackages } from './install.mjs';
import { root } from './paths.mjs';

checkNode();
const { compiled } = await installNpmPackages();
const { buildAll } = await import('./build.mjs');
await buildAll({ only: ['model files', 'command line'] });
await compiled;
const run = spawnSync(process.execPath, [path.join(root, 'cli', 'dist', 'immeld.cjs'), ...process.argv.slice(2)], {
  stdio: 'inherit',
  // npm changes into the project's folder; file names are meant from where the person stands.
  cwd: process.env.INIT_CWD ?? process.cwd(),
});
process.exit(run.status ?? 1);
