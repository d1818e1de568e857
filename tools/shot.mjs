/** Takes a picture of an address: node tools/shot.mjs URL FILE [WIDTHxHEIGHT] [dark] */
import { chromium } from '@playwright/test';
const [url, file, size = '390x844', scheme = 'light'] = process.argv.slice(2);
const [width, height] = size.split('x').map(Number);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-quic',
  ],
});
const page = await browser.newPage({ viewport: { width, height }, colorScheme: scheme });
page.on('console', (m) => m.type() === 'error' && console.log('console:', m.text()));
page.on('pageerror', (e) => console.log('pageerror:', e.message));
await page.goto(url);
await page.waitForTimeout(2500);
for (const step of process.env.STEPS ? JSON.parse(process.env.STEPS) : []) {
  await page.click(step, { timeout: 3000 }).catch((e) => console.log('no', step, e.message.slice(0, 300)));
  await page.waitForTimeout(700);
}
await page.screenshot({ path: file });
await browser.close();
