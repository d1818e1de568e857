/** Installs what is missing, then checks everything: format, lint, types, directions, unit, server and browser tests. */
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { checkNode, installForTests } from './install.mjs';
import { root, say } from './paths.mjs';

checkNode();
const { compiled } = await installForTests();

const reports = path.join(root, '.immeld', 'reports');
fs.rmSync(reports, { recursive: true, force: true });
fs.mkdirSync(reports, { recursive: true });
const bin = (name) => path.join(root, 'node_modules', '.bin', name);
const totals = { passed: 0, failed: 0 };
const triedTwice = [];

const browserTests = ['test', '--config', 'e2e/playwright.config.ts'];

const env = () => ({ ...process.env, ONNXRUNTIME_NODE_INSTALL: 'skip' });
const secondsSince = (started) => Math.round((Date.now() - started) / 1000);

/** Runs a step that has the machine to itself; a runner tells its own counts in a report. */
function step(name, program, args, countsOf = null) {
  say(`\n== ${name}`);
  const started = Date.now();
  const { status } = spawnSync(program, args, { cwd: root, stdio: ['ignore', 2, 2], env: env() });
  count(name, status, started, countsOf?.() ?? null);
}

function count(name, status, started, counts) {
  if (counts) {
    totals.passed += counts.passed;
    totals.failed += counts.failed;
    // A runner that stops before it has run anything has failed too.
    if (status !== 0 && counts.failed === 0) totals.failed++;
  } else if (status === 0) totals.passed++;
  else totals.failed++;
  say(`== ${name}: ${status === 0 ? 'good' : 'FAILED'} (${secondsSince(started)} s)`);
}

/** Runs checks two at a time; each counts as one test, and what it says is shown when it has ended. */
async function twoByTwo(checks) {
  const waiting = [...checks];
  const one = async () => {
    for (let check = waiting.shift(); check; check = waiting.shift()) {
      const [name, program, ...args] = check;
      const started = Date.now();
      const child = spawn(path.isAbsolute(program) ? program : bin(program), args, {
        cwd: root,
        stdio: ['ignore', 'pipe', 'pipe'],
        env: env(),
      });
      let said = '';
      for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes) => (said += bytes));
      const status = await new Promise((resolve) => child.once('close', resolve).once('error', () => resolve(1)));
      if (status !== 0) say(said);
      count(name, status, started, null);
    }
  };
  await Promise.all([one(), one()]);
}

const readJson = (file) => (fs.existsSync(file) ? JSON.parse(fs.readFileSync(file, 'utf8')) : null);
/** Titles of the tests of a Playwright report that passed only when they were tried again. */
const flakyIn = ({ file, specs = [], suites = [] }) => [
  ...specs
    .filter(({ tests }) => tests.some(({ status }) => status === 'flaky'))
    .map(({ title }) => `${file}: ${title}`),
  ...suites.flatMap(flakyIn),
];
const jestReport = path.join(reports, 'jest.json');

await twoByTwo([
  // Takes longest, so it begins first.
  ['Build', process.execPath, 'tools/build.mjs'],
  ['Lint', 'eslint', '.', '--max-warnings', '0'],
  ...['app', 'server', 'e2e', 'demo', 'core', 'cli'].map((part) => [`Types of ${part}`, 'tsc', '-p', part]),
  ['Format', 'prettier', '--check', '--log-level', 'warn', '.'],
  [
    ...['Direction of dependencies', 'depcruise', 'core', 'server', 'app', 'cli', 'demo'],
    ...['--config', '.dependency-cruiser.cjs', '--output-type', 'err'],
  ],
]);
await compiled;
step(
  'Unit and server tests',
  bin('jest'),
  ['--json', '--outputFile', jestReport, '--silent', '--maxWorkers', '2'],
  () => {
    const report = readJson(jestReport);
    return (
      report && { passed: report.numPassedTests, failed: report.numFailedTests + report.numRuntimeErrorTestSuites }
    );
  },
);
for (const project of ['watching', 'listening']) {
  const browserReport = path.join(reports, `browser ${project}.json`);
  process.env['IMMELD_REPORT'] = browserReport;
  step(`Browser tests, ${project}`, bin('playwright'), [...browserTests, '--project', project], () => {
    const report = readJson(browserReport);
    const stats = report?.stats;
    triedTwice.push(...(report?.suites ?? []).flatMap(flakyIn));
    return stats && { passed: stats.expected + stats.flaky, failed: stats.unexpected };
  });
}

for (const title of triedTwice) console.log(`Passed at the second try only: ${title}`);
console.log(`${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed ? 1 : 0);
