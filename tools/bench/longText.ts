/** A recording of five hours and 45,000 words in Chromium: opening, scrolling, typing. Prints a Markdown table. */
import { chromium } from '@playwright/test';
import { Immeld, makeDemoTemplate } from '../../e2e/immeld';
import { seedFiveHours } from './fiveHours';

const TIMES = 5;
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

async function main(): Promise<void> {
  await makeDemoTemplate();
  const immeld = new Immeld();
  immeld.makeDemoData();
  const { id, words, hours } = await seedFiveHours(immeld.dataFolder);
  await immeld.start();
  for (let i = 0; i < 200 && (await immeld.ask<{ items: unknown[] }>('/jobs')).items.length; i++) {
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await page.goto(`${immeld.address}/shelves`);
  await page.waitForTimeout(3000);

  const [cold, inside]: number[][] = [[], []];
  for (let i = 0; i < TIMES; i++) {
    // From a place of Immeld that is open: what a press on the recording takes.
    await page.goto(`${immeld.address}/find?q=infiltration`);
    const hit = page.getByText(/Five hours/).first();
    await page.waitForTimeout(1500);
    if (await hit.count()) {
      const start = Date.now();
      await hit.click();
      await page.locator('[data-word]').first().waitFor();
      inside!.push(Date.now() - start);
    }
    const start = Date.now();
    await page.goto(`${immeld.address}/recordings/${id}`);
    await page.locator('[data-word]').first().waitFor();
    cold!.push(Date.now() - start);
  }

  // Scrolling: at every step something is to be read in the middle of the screen.
  await page.mouse.move(195, 500);
  let [steps, gaps, waited] = [0, 0, 0];
  for (let i = 0; i < 60; i++) {
    await page.mouse.wheel(0, 1200);
    await page.waitForTimeout(50);
    const hasText = () =>
      page.evaluate(() =>
        [420, 520, 620].some((y) =>
          document.elementsFromPoint(195, y).some((e) => e.closest('article, [role=article]')),
        ),
      );
    steps++;
    const from = Date.now();
    if (!(await hasText())) {
      gaps++;
      while (!(await hasText()) && Date.now() - from < 5000) await page.waitForTimeout(10);
      waited = Math.max(waited, Date.now() - from + 50);
    }
  }

  await page.goto(`${immeld.address}/recordings/${id}`);
  await page.locator('[data-word]').nth(12).dblclick();
  const field = page.getByRole('textbox', { name: 'Text of this passage' });
  await field.waitFor();
  const typed = await field.evaluate(async (area) => {
    const taken: number[] = [];
    for (const letter of 'planting along the harbour wall') {
      const start = performance.now();
      document.execCommand('insertText', false, letter);
      // Two frames: the first begins after the letter is drawn.
      await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
      taken.push(performance.now() - start);
    }
    return { taken, length: (area as HTMLTextAreaElement).value.length };
  });
  const quick = [...typed.taken].sort((a, b) => a - b);
  console.log(
    [
      `| a recording of ${hours.toFixed(1)} hours, ${words} words, on a phone's screen | measured | aim |`,
      '|---|---|---|',
      `| from a press in Immeld to the first words, median of ${inside!.length} | ${(median(inside!) / 1000).toFixed(2)} s | under 1 s |`,
      `| the page loaded anew, median of ${cold!.length} | ${(median(cold!) / 1000).toFixed(2)} s | |`,
      `| ${steps} scrolls of 1,200 px: nothing to read after 50 ms | ${gaps}, at most ${waited} ms | none |`,
      `| a letter typed to its frame and the next, median and 95th percentile | ${median(quick).toFixed(0)} and ${quick[Math.floor(quick.length * 0.95)]!.toFixed(0)} ms | under 50 ms |`,
    ].join('\n'),
  );
  await browser.close();
  immeld.remove();
}

void main();
