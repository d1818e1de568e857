import path from 'node:path';
import { defineConfig } from '@playwright/test';

const root = path.resolve(__dirname, '..');

// Server and browser live where it is noon now: what the tests see of "today" does not depend on when they are run.
// The processes of the tests read this file again and must not choose another place.
const hoursToNoon = 12 - new Date().getUTCHours();
process.env['IMMELD_TESTS_TZ'] ??= `Etc/GMT${hoursToNoon > 0 ? '-' : '+'}${Math.abs(hoursToNoon)}`;
process.env['TZ'] = process.env['IMMELD_TESTS_TZ'];
// The quick pack: what is tested here is what people press, not how well they are heard.
process.env['IMMELD_QUALITY'] ??= 'quick';

const LISTENING = /(?:browserKills|capture|sources|speak)\.spec\.ts$/;
const RESULTS = path.join(root, '.immeld', 'test-results');
const REPORT = path.join(root, '.immeld', 'reports', 'browser.json');

const LAUNCH = {
  executablePath: '/usr/bin/chromium',
  args: [
    ...['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
    ...['--disable-component-update', '--disable-sync', '--disable-quic'],
    '--autoplay-policy=no-user-gesture-required',
  ],
};
/** Nothing is drawn by a graphics card: without a process of its own for that a test costs an eighth less (measured). */
const WITHOUT_GPU_PROCESS = { ...LAUNCH, args: [...LAUNCH.args, '--in-process-gpu', '--disable-software-rasterizer'] };

export default defineConfig({
  testDir: __dirname,
  // What listens while somebody speaks goes by itself, so that nothing else takes its time; the rest before it.
  projects: [
    {
      ...{ name: 'watching', testIgnore: LISTENING, outputDir: path.join(RESULTS, 'watching') },
      // A service worker would fetch the whole app once more for each test; what needs it asks for it.
      use: { launchOptions: WITHOUT_GPU_PROCESS, serviceWorkers: 'block' },
    },
    { name: 'listening', testMatch: LISTENING, outputDir: path.join(RESULTS, 'listening') },
  ],
  workers: 2,
  globalSetup: path.join(__dirname, 'demoTemplate.ts'),
  // A browser on a busy machine stumbles now and then: one more try, and the closing lines name who needed it.
  retries: 1,
  timeout: 120_000,
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json', { outputFile: process.env['IMMELD_REPORT'] ?? REPORT }]],
  use: {
    viewport: { width: 390, height: 844 },
    launchOptions: LAUNCH,
  },
});
