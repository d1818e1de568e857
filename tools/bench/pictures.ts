/**
 * How well the words in pictures are read: slides of the demo as a camera would see them, at three strengths.
 * Usage: npx tsx tools/bench/pictures.ts
 */
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readSlides } from '../../demo/src/world';
import { pictureWords } from '../../server/media/pictureWords';
import { drawPages } from '../../server/slides/drawPages';
import { plainSlidesPdf } from '../../server/slides/plainSlides';

const root = path.join(__dirname, '..', '..');
const STRENGTHS = [
  { name: 'light', degrees: 1.5, lean: 12, noise: 8, blur: 0.4 },
  { name: 'middle', degrees: 3, lean: 30, noise: 20, blur: 1 },
  { name: 'strong', degrees: 5, lean: 55, noise: 38, blur: 1.6 },
];

/** As a camera held by hand sees it: turned, seen from the side, blurred and with the noise of its sensor. */
function seen(source: string, target: string, { degrees, lean, noise, blur }: (typeof STRENGTHS)[number]): void {
  const side = `perspective=x0=${lean}:y0=${lean / 2}:x1=W:y1=0:x2=0:y2=H-${lean}:x3=W-${lean}:y3=H:sense=destination`;
  const turned = `rotate=${degrees}*PI/180:fillcolor=gray:ow=rotw(${degrees}*PI/180):oh=roth(${degrees}*PI/180)`;
  const filter = `pad=iw+80:ih+80:40:40:gray,${side},${turned},gblur=sigma=${blur},noise=alls=${noise}:allf=t`;
  execFileSync('ffmpeg', ['-y', '-loglevel', 'error', '-i', source, '-vf', filter, '-q:v', '4', target]);
}

/** Levenshtein's distance over the length of what was written: the character error rate. */
function errorsOf(written: string, read: string): number {
  let before = Array.from({ length: read.length + 1 }, (_, i) => i);
  for (let i = 1; i <= written.length; i++) {
    const now = [i];
    for (let j = 1; j <= read.length; j++)
      now[j] = Math.min(before[j]! + 1, now[j - 1]! + 1, before[j - 1]! + (written[i - 1] === read[j - 1] ? 0 : 1));
    before = now;
  }
  return before[read.length]!;
}
const plain = (text: string): string => text.replace(/\s+/g, ' ').trim();

void (async () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-pictures-'));
  const slides = readSlides(path.join(root, 'demo/slides/lecture.txt'));
  await drawPages(new Uint8Array(await plainSlidesPdf(slides)), folder, () => undefined);
  const isTold = process.argv.includes('--each');
  console.log('| picture of a slide | character errors | seconds for each |\n|---|---|---|');
  for (const strength of [null, ...STRENGTHS]) {
    let errors = 0;
    let letters = 0;
    const begun = performance.now();
    for (const [i, { title, lines }] of slides.entries()) {
      const drawn = path.join(folder, `${i + 1}.jpg`);
      const picture = strength ? path.join(folder, `seen-${strength.name}-${i + 1}.jpg`) : drawn;
      if (strength) seen(drawn, picture, strength);
      const written = plain([title, ...lines].join(' '));
      const read = plain(await pictureWords(picture));
      errors += errorsOf(written, read);
      letters += written.length;
      if (isTold) console.log(`${written}\n  ${read}`);
    }
    const seconds = (performance.now() - begun) / 1000 / slides.length;
    console.log(
      `| ${strength?.name ?? 'as it is'} | ${((100 * errors) / letters).toFixed(1)} % | ${seconds.toFixed(1)} |`,
    );
  }
  fs.rmSync(folder, { recursive: true });
})();
