import { chromium } from 'playwright-core';
import { spawn } from 'node:child_process';
import fs from 'node:fs';
fs.rmSync('/tmp/look2', { recursive: true, force: true });
fs.cpSync('/tmp/look', '/tmp/look2', { recursive: true });
const server = spawn(process.execPath, ['server/dist/main.cjs'], { env: { ...process.env, PORT: '47391', IMMELD_DATA: '/tmp/look2', IMMELD_DEMO: '1', IMMELD_QUALITY: 'quick' }, stdio: 'inherit' });
await new Promise((r) => setTimeout(r, 5000));
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
try { await (await import(process.argv[2])).default(browser, 'http://localhost:47391'); } finally { await browser.close(); server.kill(); }
