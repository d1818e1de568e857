/** Installs and builds what is missing and starts with an own data folder (IMMELD_DATA, PORT, HOST). */
import { spawn } from 'node:child_process';
import path from 'node:path';
import { checkNode, installNpmPackages } from './install.mjs';
import { root } from './paths.mjs';

checkNode();
const { compiled } = await installNpmPackages();
const { buildAll } = await import('./build.mjs');
await buildAll();
await compiled;
const server = spawn(process.execPath, [path.join(root, 'server', 'dist', 'main.cjs')], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
