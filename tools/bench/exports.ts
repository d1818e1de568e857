/** A recording of five hours in every format, made by the built server: time, size, memory. Prints a Markdown table. */
import { execFileSync } from 'node:child_process';
import type { Export } from '../../core/contract/exportEndpoints';
import { EXPORT_FORMATS, USUAL_CHOICES } from '../../core/contract/exports';
import { Immeld, makeDemoTemplate } from '../../e2e/immeld';
import { seedFiveHours } from './fiveHours';

/** Highest resident memory of the server so far, its threads included, in megabytes. */
function peakOf(port: string): number {
  const pids = execFileSync('pgrep', ['-f', 'server/dist/main.cjs'], { encoding: 'utf8' }).trim().split('\n');
  const pid = pids.find((p) =>
    execFileSync('cat', [`/proc/${p}/environ`], { encoding: 'utf8' })
      .split('\0')
      .includes(`PORT=${port}`),
  );
  const status = execFileSync('cat', [`/proc/${pid}/status`], { encoding: 'utf8' });
  return Number(/VmHWM:\s+(\d+)/.exec(status)![1]) / 1024;
}

async function main(): Promise<void> {
  await makeDemoTemplate();
  const immeld = new Immeld();
  immeld.makeDemoData();
  const { id, words, hours } = await seedFiveHours(immeld.dataFolder);
  await immeld.start();
  // What the demo leaves to be recognised is done first, and the recogniser's memory is given back.
  while ((await immeld.ask<{ items: unknown[] }>('/jobs')).items.length) await new Promise((r) => setTimeout(r, 500));
  immeld.kill();
  await immeld.start();
  const port = new URL(immeld.address).port;
  console.log(`| ${hours.toFixed(1)} hours, ${words} words, as | time | size | server's memory, peak so far |`);
  console.log('|---|---|---|---|');
  console.log(`| nothing yet | | | ${Math.round(peakOf(port))} MB |`);
  for (const format of EXPORT_FORMATS) {
    const started = Date.now();
    const wish = {
      items: [{ kind: 'recording', id }],
      files: [{ format, choices: { ...USUAL_CHOICES[format], times: true } }],
      pattern: '{title}',
    };
    const asked = await fetch(`${immeld.address}/api/exports`, {
      ...{ method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(wish) },
    });
    let made = (await asked.json()) as Export;
    while (made.state === 'making') {
      await new Promise((resolve) => setTimeout(resolve, 100));
      made = await immeld.ask<Export>(`/exports/${made.id}`);
    }
    if (made.state !== 'ready') throw new Error(`${format}: ${made.problem}`);
    const seconds = (Date.now() - started) / 1000;
    const size = (made.sizeBytes! / 1e6).toFixed(2);
    console.log(`| ${format} | ${seconds.toFixed(1)} s | ${size} MB | ${Math.round(peakOf(port))} MB |`);
  }
  immeld.remove();
}

void main();
