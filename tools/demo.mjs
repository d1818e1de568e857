/** Installs and builds what is missing, makes demo data if there is none, starts and prints one address. */
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { checkNode, installNpmPackages } from './install.mjs';
import { root, say } from './paths.mjs';

checkNode();
const { compiled } = await installNpmPackages();
const { buildAll } = await import('./build.mjs');
await buildAll();
await compiled;

const data = process.env.IMMELD_DATA ?? path.join(root, '.immeld', 'demo-data');
if (!fs.existsSync(path.join(data, 'immeld.sqlite'))) {
  say('Making the demo’s day …');
  const half = `${data}.new`;
  fs.rmSync(half, { recursive: true, force: true });
  const made = spawnSync(process.execPath, [path.join(root, 'demo', 'dist', 'makeDemoData.cjs'), half], {
    stdio: ['ignore', 2, 2],
  });
  if (made.status !== 0) process.exit(1);
  fs.mkdirSync(path.dirname(data), { recursive: true });
  fs.rmSync(data, { recursive: true, force: true });
  fs.renameSync(half, data);
}
const server = spawn(process.execPath, [path.join(root, 'server', 'dist', 'main.cjs')], {
  stdio: 'inherit',
  env: { ...process.env, IMMELD_DATA: data, IMMELD_DEMO: '1' },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
