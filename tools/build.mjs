/** Builds what is out of date: model files, server, command line and app. `--all` builds everything. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import zlib from 'node:zlib';
import { root, say } from './paths.mjs';

/** Made by a step itself, so no reason to run it again. */
const MADE = new Set([path.join('app', 'public', 'workers')]);
const SKIP = new Set(['node_modules', 'dist', 'build', '.expo', 'test-results']);

/** Hash over names and contents of everything a step is made from. */
function fingerprint(places) {
  const hash = createHash('sha256');
  const visit = (place) => {
    const full = path.join(root, place);
    if (MADE.has(place) || !fs.existsSync(full)) return;
    if (fs.statSync(full).isDirectory()) {
      for (const name of fs.readdirSync(full).sort()) if (!SKIP.has(name)) visit(path.join(place, name));
    } else if (!/\.test\.tsx?$/.test(place)) hash.update(place).update(fs.readFileSync(full));
  };
  places.forEach(visit);
  return hash.digest('hex');
}

const node = (program, ...args) =>
  execFileSync(process.execPath, [path.join(root, 'node_modules', ...program.split('/')), ...args], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1' },
  });

async function bundle(entries, folder) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: entries,
    outdir: folder,
    outExtension: { '.js': '.cjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'cjs',
    sourcemap: true,
    logLevel: 'warning',
    logOverride: { 'empty-import-meta': 'silent' },
    external: [
      'sqlite3',
      'pdfjs-dist',
      '@hyzyla/pdfium',
      'tesseract.js',
      'pdfmake',
      'pdfjs-dist/legacy/build/pdf.mjs',
      'sequelize',
      'onnxruntime-node',
      'umzug',
      'express',
      '@node-rs/argon2',
    ],
  });
}

const inBrowser = {
  absWorkingDir: root,
  bundle: true,
  platform: 'browser',
  target: 'es2022',
  format: 'esm',
  minify: true,
  logLevel: 'warning',
  conditions: ['onnxruntime-web-use-extern-wasm'],
};

/** The threads of the app, which its own bundler would not keep as single files. */
async function bundleWorkers() {
  const { build } = await import('esbuild');
  await build({
    ...inBrowser,
    entryPoints: ['liveWorker', 'tapProcessor', 'journalWorker', 'cleanProcessor', 'pdfPages', 'sumWorker'].map(
      (name) => `app/workers/${name}.ts`,
    ),
    outdir: 'app/public/workers',
  });
  fs.copyFileSync(
    path.join(root, 'node_modules', 'onnxruntime-web', 'dist', 'ort-wasm-simd-threaded.mjs'),
    path.join(root, 'app', 'public', 'workers', 'runtime.mjs'),
  );
  fs.copyFileSync(
    path.join(root, 'node_modules', 'pdfjs-dist', 'build', 'pdf.worker.min.mjs'),
    path.join(root, 'app', 'public', 'workers', 'pdfWorker.mjs'),
  );
}

/** The service worker with the list of everything that it keeps for days without a network. */
async function writeServiceWorker() {
  const { build } = await import('esbuild');
  const { injectManifest } = await import('workbox-build');
  const bundled = path.join(root, 'app', 'dist', 'service-worker.bundled.js');
  await build({
    ...inBrowser,
    format: 'iife',
    entryPoints: ['app/workers/serviceWorker.ts'],
    outfile: bundled,
    define: { 'process.env.NODE_ENV': '"production"' },
  });
  await injectManifest({
    swSrc: bundled,
    swDest: path.join(root, 'app', 'dist', 'service-worker.js'),
    globDirectory: path.join(root, 'app', 'dist'),
    globPatterns: ['**/*.{html,js,mjs,css,ttf,woff2,png,svg,ico,webmanifest,ogg}'],
    globIgnores: ['service-worker*.js'],
    dontCacheBustURLsMatching: /-[0-9a-f]{32}\./,
    maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
  });
  fs.rmSync(bundled);
}

/** Packs the app's files once, so that the server need not do it at each request. */
async function packFiles(folder) {
  const isPacked = /\.(?:js|mjs|css|html|json|svg|ttf|webmanifest)$/;
  for (const name of fs.readdirSync(folder, { recursive: true })) {
    const file = path.join(folder, name);
    if (!isPacked.test(name) || fs.statSync(file).size < 1024) continue;
    const content = fs.readFileSync(file);
    const [brotli, gzip] = await Promise.all([
      promisify(zlib.brotliCompress)(content, { params: { [zlib.constants.BROTLI_PARAM_QUALITY]: 9 } }),
      promisify(zlib.gzip)(content, { level: 9 }),
    ]);
    fs.writeFileSync(`${file}.br`, brotli);
    fs.writeFileSync(`${file}.gz`, gzip);
  }
}

const STEPS = [
  {
    name: 'model files',
    from: [
      'tools/prepareModel.ts',
      'core/speech',
      'server/recognition/modelFiles.ts',
      'NOTICE.md',
      'package-lock.json',
    ],
    result: 'models',
    run: () => node('tsx/dist/cli.mjs', 'tools/prepareModel.ts'),
  },
  {
    name: 'server',
    from: ['core', 'server', 'demo/src', 'tools/build.mjs', 'package-lock.json'],
    result: 'server/dist',
    run: () =>
      bundle(
        [
          'server/main.ts',
          'server/jobs/recognitionWorker.ts',
          'server/recognition/cleaningWorker.ts',
          'server/tasks/taskWorker.ts',
          'server/tasks/heavyProcess.ts',
        ].map((f) => ({
          in: f,
          out: path.basename(f, '.ts'),
        })),
        'server/dist',
      ),
  },
  {
    name: 'command line',
    from: ['core', 'server', 'cli', 'demo/src', 'tools/build.mjs', 'package-lock.json'],
    result: 'cli/dist',
    run: async () => {
      await bundle([{ in: 'cli/immeld.ts', out: 'immeld' }], 'cli/dist');
      await bundle([{ in: 'demo/src/makeDemoData.ts', out: 'makeDemoData' }], 'demo/dist');
    },
  },
  {
    name: 'app',
    from: ['core', 'app', 'tools/build.mjs', 'package-lock.json'],
    result: 'app/dist',
    run: async () => {
      await bundleWorkers();
      execFileSync(
        process.execPath,
        [path.join(root, 'node_modules', 'expo', 'bin', 'cli'), 'export', '--platform', 'web', '--output-dir', 'dist'],
        {
          cwd: path.join(root, 'app'),
          stdio: ['ignore', process.env.IMMELD_VERBOSE ? 'inherit' : 'ignore', 'inherit'],
          env: { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1' },
        },
      );
      await writeServiceWorker();
      await packFiles(path.join(root, 'app', 'dist'));
    },
  },
];

export async function buildAll({ only = null, force = false } = {}) {
  for (const step of STEPS) {
    if (only && !only.includes(step.name)) continue;
    const mark = path.join(root, '.immeld', `built-${step.name.replace(' ', '-')}`);
    const now = fingerprint(step.from);
    const isFresh =
      !force &&
      fs.existsSync(path.join(root, step.result)) &&
      fs.existsSync(mark) &&
      fs.readFileSync(mark, 'utf8') === now;
    if (isFresh) continue;
    say(`Building the ${step.name} …`);
    await step.run();
    fs.mkdirSync(path.dirname(mark), { recursive: true });
    fs.writeFileSync(mark, now);
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const only = process.argv.slice(2).filter((a) => !a.startsWith('--'));
  await buildAll({ only: only.length ? only : null, force: process.argv.includes('--all') });
}
