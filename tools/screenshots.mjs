/** Makes the pictures in docs/screenshots from fresh demo data: node tools/screenshots.mjs [NAME...] */
import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { root } from './paths.mjs';

// The demo's day is seen at noon, whenever the pictures are taken.
const hoursToNoon = 12 - new Date().getUTCHours();
process.env.TZ = `Etc/GMT${hoursToNoon > 0 ? '-' : '+'}${Math.abs(hoursToNoon)}`;

const only = process.argv.slice(2);
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-pictures-'));
const data = path.join(folder, 'data');
const port = 47_123;
const address = `http://localhost:${port}`;
execFileSync(process.execPath, [path.join(root, 'demo', 'dist', 'makeDemoData.cjs'), data]);
const server = spawn(process.execPath, [path.join(root, 'server', 'dist', 'main.cjs')], {
  stdio: 'ignore',
  env: { ...process.env, IMMELD_DATA: data, PORT: String(port), IMMELD_DEMO: '1' },
});
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const ask = async (place) => (await fetch(`${address}/api${place}`)).json();
for (let i = 0; i < 100 && !(await fetch(`${address}/api/status`).catch(() => null)); i++) await wait(200);
for (let i = 0; i < 100 && (await ask('/jobs')).items.length; i++) await wait(500);

const voice = path.join(folder, 'voice.wav');
execFileSync('ffmpeg', [
  '-loglevel',
  'error',
  '-i',
  path.join(root, 'demo', 'sound', 'quay-walk.ogg'),
  '-ar',
  '48000',
  '-ac',
  '1',
  voice,
]);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    ...[
      '--no-sandbox',
      '--disable-gpu',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
    ],
    ...['--disable-sync', '--disable-quic', '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
    `--use-file-for-fake-audio-capture=${voice}`,
  ],
});
const { items } = await ask('/recordings');
const titled = (title) => items.find((r) => r.title === title).id;
const lecture = `/recordings/${titled('Infiltration and field capacity')}`;
const walk = `/recordings/${titled('Walk the quay with Bram')}`;
const study = lecture.replace('/recordings/', '/study/');
const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

const press =
  (name, role = 'button') =>
  (page) =>
    page.getByRole(role, { name }).first().click();
const playSome = async (page) => {
  await page.locator('[data-word]').nth(60).click();
  await wait(1500);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Pause' }).click();
};
/** Makes a write-up and brings it to the top. */
const make = (name) => async (page) => {
  await page.getByRole('button', { name: 'Make a write-up' }).click();
  await page.getByRole('button', { name: new RegExp(`^${name}\\.`) }).click();
  const sheet = page.getByRole('article', { name, exact: true });
  await sheet.waitFor();
  await sheet.evaluate((element) => element.scrollIntoView({ block: 'start' }));
  await wait(600);
};
const asked = `/find?q=${encodeURIComponent('What did the arborist say about the roots?')}`;
const PICTURES = [
  { name: 'day', at: '/' },
  { name: 'tray', at: '/tray' },
  { name: 'recording', at: lecture, steps: [playSome] },
  { name: 'minutes', at: `${walk}?part=write-ups`, steps: [make('Minutes')] },
  { name: 'lecture-notes', at: `${lecture}?part=write-ups`, steps: [make('Lecture notes')] },
  {
    name: 'map',
    at: lecture.replace('/recordings/', '/map/'),
    steps: [(page) => page.locator('[data-handle]').nth(3).click()],
  },
  { name: 'todos', at: '/todos' },
  { name: 'find', at: asked },
  { name: 'note', at: `/notes/${(await ask('/notes')).items[0].id}` },
  {
    name: 'recording-now',
    at: '/tray',
    steps: [
      press('Speak'),
      () => wait(16_000),
      press('Mark: Question'),
      (page) => page.getByLabel('Write a slip').fill('Ask Ottoline who owns the crane'),
      press('Make a to-do'),
      () => wait(11_000),
      press('Mark: Key point'),
      () => wait(3000),
    ],
  },
  {
    name: 'recovered',
    half: 'recovered-and-queue',
    at: '/tray',
    steps: [
      press('Speak'),
      () => wait(12_000),
      press('Mark: Key point'),
      // The page is left while it records, and opened again.
      async (page) => {
        page.on('dialog', (dialog) => dialog.accept());
        await page.goto(`${address}/tray`);
        await wait(3000);
      },
    ],
  },
  // Where slips stand beside the words.
  { name: 'recording-wide', at: `${walk}?at=76000`, size: WIDE, steps: [() => wait(2500), press('Pause')] },
  {
    name: 'template-wide',
    at: '/templates',
    size: WIDE,
    steps: [
      (page) => page.getByRole('article', { name: 'Minutes' }).getByRole('button', { name: 'Copy' }).click(),
      () => wait(1500),
      press('Walk the quay with Bram', 'radio'),
      () => wait(1500),
    ],
  },
  { name: 'tray-wide', at: '/tray', size: WIDE },
  { name: 'shelves-wide', at: '/shelves', size: WIDE },
  { name: 'find-wide', at: asked, size: WIDE },
  { name: 'day-wide-dark', at: '/', size: WIDE, scheme: 'dark' },
  { name: 'slides', half: 'study', at: lecture, steps: [press('Next slide'), press('Next slide'), () => wait(800)] },
  {
    name: 'sitting',
    half: 'study',
    at: study,
    steps: [press('Begin'), () => wait(800), press('Next'), () => wait(500)],
  },
  {
    name: 'question',
    half: 'study',
    at: study,
    steps: [
      press('Questions only', 'radio'),
      press('Begin'),
      () => wait(500),
      press('Show the answer'),
      () => wait(300),
    ],
  },
  { name: 'take', half: 'take-and-links', at: `/take?items=r${walk.split('/').at(-1)}` },
  {
    name: 'links',
    half: 'take-and-links',
    at: `/links?item=r${walk.split('/').at(-1)}`,
    steps: [
      press('Audio', 'switch'),
      press('Margin', 'switch'),
      press('Create link'),
      () => wait(1200),
      press('Show QR code'),
      () => wait(800),
    ],
  },
  {
    name: 'import-queue',
    half: 'recovered-and-queue',
    at: '/tray',
    steps: [
      async (page) => {
        await page.route('**/api/uploads/**', async (route) => {
          await wait(700);
          await route.continue();
        });
        const chooser = page.waitForEvent('filechooser');
        await page.getByRole('button', { name: 'Import audio files' }).first().click();
        const names = ['Monday round', 'Watering plan', 'Call with the school', 'Trench by the lock', 'Leaf count'];
        const buffer = Buffer.alloc(3_000_000, 1);
        const file = (name, i) => ({
          name: `${name}.m4a`,
          mimeType: 'audio/mp4',
          buffer: Buffer.concat([buffer, Buffer.from(name)]).subarray(0, 2_000_000 + i * 400_000),
        });
        await (await chooser).setFiles(names.map(file));
        await wait(3200);
      },
    ],
  },
  {
    name: 'in-the-making',
    half: 'recovered-and-queue',
    at: '/tray',
    steps: [
      async (page) => {
        const chooser = page.waitForEvent('filechooser');
        await page.getByRole('button', { name: 'Import audio files' }).first().click();
        const long = path.join(folder, 'Evening lecture.m4a');
        const loop = ['-stream_loop', '5', '-i', path.join(root, 'demo', 'sound', 'lecture.m4a')];
        execFileSync('ffmpeg', ['-loglevel', 'error', ...loop, '-c', 'copy', long]);
        await (await chooser).setFiles([long]);
        await page.getByRole('link', { name: 'Open Evening lecture.m4a' }).waitFor();
        await wait(25_000);
        await page.getByRole('link', { name: 'Open Evening lecture.m4a' }).click();
        await wait(2500);
      },
    ],
  },
];
const target = (name) => path.join(root, 'docs', 'screenshots', `${name}.png`);
/** Parts of pictures in which phones stand side by side. */
const halves = new Map();
async function sideBySide(name, pictures) {
  const page = await browser.newPage({
    viewport: { width: (PHONE.width + 20) * pictures.length - 20, height: PHONE.height },
  });
  const sources = pictures.map((png) => `<img src="data:image/png;base64,${png.toString('base64')}">`);
  await page.setContent(`<body style="margin:0;display:flex;gap:20px;background:#fff">${sources.join('')}</body>`);
  await page.screenshot({ path: target(name) });
  await page.close();
}
for (const { name, half, at, size = PHONE, scheme = 'light', steps = [] } of PICTURES) {
  if (only.length && !only.includes(name) && !only.includes(half)) continue;
  const page = await browser.newPage({ viewport: size, colorScheme: scheme });
  await page.goto(address + at);
  await page.waitForLoadState('load');
  await page.waitForFunction(() => document.body.innerText.trim().length > 20);
  await wait(2500);
  for (const step of steps) await step(page);
  await wait(300);
  if (half) {
    halves.set(half, [...(halves.get(half) ?? []), await page.screenshot()]);
    if (halves.get(half).length === PICTURES.filter((p) => p.half === half).length)
      await sideBySide(half, halves.get(half));
  } else await page.screenshot({ path: target(name) });
  await page.close();
}
await browser.close();
server.kill();
fs.rmSync(folder, { recursive: true, force: true });
