import path from 'node:path';
import { defineConfig } from '@playwright/test';

const root = path.resolve(__dirname, '..');

export default defineConfig({
  testDir: __dirname,
  outputDir: path.join(root, '.immeld', 'test-results'),
  workers: 1,
  retries: 0,
  timeout: 120_000,
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json', { outputFile: path.join(root, '.immeld', 'reports', 'browser.json') }]],
  use: {
    viewport: { width: 390, height: 844 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        ...['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
        ...[
          '--disable-component-update',
          '--disable-sync',
          '--disable-quic',
          '--autoplay-policy=no-user-gesture-required',
        ],
      ],
    },
  },
});
