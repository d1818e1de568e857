/** Installs what is missing: npm packages from the lock file and, where it can and needs to, Debian packages. */
import { spawn, spawnSync } from 'node:child_process';
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

/** Runs a program to its end. Resolves to whether all went well. */
const run = (program, args, options) =>
  new Promise((resolve) =>
    spawn(program, args, options)
      .once('close', (status) => resolve(status === 0))
      .once('error', () => resolve(false)),
  );

const MARK = path.join(root, 'node_modules', '.immeld-installed');
// A copied or cleaned folder may have lost what was compiled in it.
const COMPILED = path.join(root, 'node_modules', 'sqlite3', 'build', 'Release', 'node_sqlite3.node');
const hasNpmPackages = () =>
  fs.existsSync(MARK) && fs.readFileSync(MARK, 'utf8') === lockHash() && fs.existsSync(COMPILED);

/**
 * Installs the npm packages. The database module is compiled on one core for minutes: what does not need it can go on.
 * @returns when the packages are there; `compiled` resolves when they are also compiled, and rejects when that fails
 */
export async function installNpmPackages() {
  if (hasNpmPackages()) {
    await ensureDecoder();
    return { compiled: Promise.resolve() };
  }
  await ensureCompiler();
  say('Installing packages (some minutes the first time) …');
  const decoder = ensureDecoder();
  await Promise.all([npm('ci', '--ignore-scripts', '--no-audit', '--no-fund'), decoder]);
  const compiled = npm('rebuild').then(() => fs.writeFileSync(MARK, lockHash()));
  // Who waits for it is told; until then it is no error that nobody waits.
  compiled.catch(() => undefined);
  return { compiled };
}

async function npm(...args) {
  const isDone = await run('npm', [...args, '--loglevel', 'error'], {
    cwd: root,
    stdio: ['ignore', process.stderr, process.stderr],
    // The CPU build is in the package; its script would fetch what we do not use.
    env: { ...process.env, ONNXRUNTIME_NODE_INSTALL: 'skip', JOBS: 'max' },
    shell: process.platform === 'win32',
  });
  if (!isDone) throw new Error('The packages could not be installed; what npm says stands above.');
}

/** The decoder of sound is the system's own, which the system keeps up to date. */
async function ensureDecoder() {
  if (has('ffmpeg')) return;
  await installDebian(['ffmpeg'], 'ffmpeg 5 or newer, which reads sound files');
}

/** The database module is built from source where no ready build can be had. */
async function ensureCompiler() {
  if (process.platform !== 'linux' || (has('g++') && has('make') && has('python3'))) return;
  await installDebian(['g++', 'make', 'python3'], 'a C++ compiler (g++), make and python3 for the database module');
}

/** Debian's installer does one thing at a time. */
let before = Promise.resolve();

/** Debian packages, or a sentence about what to install by hand. Returns whether they are there now. */
export function installDebian(packages, purpose) {
  const mine = before.then(() => installNow(packages, purpose));
  before = mine.catch(() => undefined);
  return mine;
}

async function installNow(packages, purpose) {
  const isRoot = process.getuid?.() === 0;
  if (!has('apt-get') || (!isRoot && !has('sudo'))) {
    say(`Please install ${purpose}, then run the same command again.`);
    return false;
  }
  say(`Installing Debian packages: ${packages.join(' ')} …`);
  const apt = (...args) =>
    run(isRoot ? 'apt-get' : 'sudo', isRoot ? args : ['-n', 'apt-get', ...args], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  await apt('update');
  const done = await apt('install', '-y', '--no-install-recommends', ...packages);
  if (!done) say(`That did not work. Please install ${purpose} by hand, then run the same command again.`);
  return done;
}

const CHROMIUM = '/usr/bin/chromium';
const NEEDED_BY_TESTS = [
  { package: 'chromium', file: CHROMIUM, purpose: 'Chromium' },
  // Speech of real readers with its published text.
  {
    ...{ package: 'pocketsphinx-testdata', file: '/usr/share/pocketsphinx/test/data/librivox' },
    purpose: 'Debian’s pocketsphinx-testdata',
  },
];

/**
 * Everything that the tests need: Debian's packages come while npm unpacks its own.
 * @returns as `installNpmPackages`
 */
export async function installForTests() {
  const [installed] = await Promise.all([installNpmPackages(), installBrowserAndSpeech()]);
  return installed;
}

/** Rejects where there is no browser to be had. */
async function installBrowserAndSpeech() {
  const missing = NEEDED_BY_TESTS.filter(({ file }) => !fs.existsSync(file));
  if (missing.length) {
    await installDebian(
      missing.map((m) => m.package),
      missing.map((m) => m.purpose).join(' and '),
    );
  }
  if (!fs.existsSync(CHROMIUM)) throw new Error(`The browser tests need Chromium at ${CHROMIUM}.`);
}
