/** Installs what is missing: npm packages from the lock file and, where it can and needs to, Debian packages. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { root, say } from './paths.mjs';

const has = (program) => spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0;
const lockHash = () =>
  createHash('sha256')
    .update(fs.readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 19)) return;
  say(
    `Immeld needs Node 20.19 or newer; this is ${process.versions.node}. Install it, then run the same command again.`,
  );
  process.exit(1);
}

export function installNpmPackages() {
  const mark = path.join(root, 'node_modules', '.immeld-installed');
  // A copied or cleaned folder may have lost what was compiled in it.
  const compiled = path.join(root, 'node_modules', 'sqlite3', 'build', 'Release', 'node_sqlite3.node');
  if (fs.existsSync(mark) && fs.readFileSync(mark, 'utf8') === lockHash() && fs.existsSync(compiled)) return;
  ensureCompiler();
  say('Installing packages (some minutes the first time) …');
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel', 'error'], {
    cwd: root,
    stdio: ['ignore', process.stderr, process.stderr],
    // The CPU build is in the package; its script would fetch what we do not use.
    env: { ...process.env, ONNXRUNTIME_NODE_INSTALL: 'skip', JOBS: 'max' },
    shell: process.platform === 'win32',
  });
  fs.writeFileSync(mark, lockHash());
}

/** The database module is built from source where no ready build can be had. */
function ensureCompiler() {
  if (process.platform !== 'linux' || (has('g++') && has('make') && has('python3'))) return;
  installDebian(['g++', 'make', 'python3'], 'a C++ compiler (g++), make and python3 for the database module');
}

/** Debian packages, or a sentence about what to install by hand. Returns whether they are there now. */
export function installDebian(packages, purpose) {
  const isRoot = process.getuid?.() === 0;
  if (!has('apt-get') || (!isRoot && !has('sudo'))) {
    say(`Please install ${purpose}, then run the same command again.`);
    return false;
  }
  say(`Installing Debian packages: ${packages.join(' ')} …`);
  const run = (...args) =>
    spawnSync(isRoot ? 'apt-get' : 'sudo', isRoot ? args : ['-n', 'apt-get', ...args], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    }).status === 0;
  run('update');
  const done = run('install', '-y', '--no-install-recommends', ...packages);
  if (!done) say(`That did not work. Please install ${purpose} by hand, then run the same command again.`);
  return done;
}

/** Debian's Chromium for the browser tests. Throws when it cannot be had. */
export function installChromium() {
  if (fs.existsSync('/usr/bin/chromium')) return;
  installDebian(['chromium'], 'Chromium');
  if (!fs.existsSync('/usr/bin/chromium')) throw new Error('The browser tests need Chromium at /usr/bin/chromium.');
}

/** Speech of real readers with its published text: Debian's pocketsphinx-testdata. */
export function installTestSpeech() {
  if (!fs.existsSync('/usr/share/pocketsphinx/test/data/librivox')) {
    installDebian(['pocketsphinx-testdata'], 'Debian’s pocketsphinx-testdata');
  }
}
