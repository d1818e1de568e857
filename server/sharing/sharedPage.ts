import { type ExportDocument } from '@immeld/core/exports/exportDocument';
import { DOCUMENT_STYLE, escapeHtml, documentBody } from '@immeld/core/exports/documentHtml';

/** The style of shared pages: that of sheets, with Immeld's typefaces and a player. */
export const SHARED_STYLE = `
@font-face { font-family: Literata; src: url(/s/fonts/literata.ttf); }
@font-face { font-family: Literata; font-weight: bold; src: url(/s/fonts/literata-bold.ttf); }
@font-face { font-family: Atkinson; src: url(/s/fonts/atkinson.ttf); }
${DOCUMENT_STYLE}
:root { color-scheme: light dark; }
body { background: #f7f4ec; padding-bottom: 6em; }
header, footer, .facts, form { font-family: Atkinson, sans-serif; }
header { display: flex; justify-content: space-between; gap: 1em; border-bottom: 1px solid #dad4c5; padding-bottom: .5em; margin-bottom: 1.6em; font-size: .85em; color: #5a6766; }
.player { position: fixed; left: 0; right: 0; bottom: 0; background: #fffdf7; border-top: 1px solid #1e2a2b; padding: 10px 16px; }
.player audio { display: block; width: 100%; max-width: 42em; height: 48px; margin: 0 auto; }
[data-ms] { cursor: pointer; } .lit { background: #c9dedd; } .gone { color: #b8432f; font-weight: bold; }
input, button { font: inherit; min-height: 48px; padding: 0 14px; border: 1px solid #1e2a2b; border-radius: 4px; background: #fffdf7; color: #1e2a2b; max-width: 100%; box-sizing: border-box; }
input[type=checkbox] { min-height: 0; width: 16px; height: 16px; vertical-align: -2px; }
button { background: #1e2a2b; color: #fffdf7; cursor: pointer; } label { display: block; margin-bottom: .4em; } a { color: #1f5a5e; }
@media (prefers-color-scheme: dark) {
  body { background: #141b1c; color: #e8e4d8; } .player, input { background: #1b2526; color: #e8e4d8; border-color: #9daaa7; }
  .facts, header, aside .label { color: #9daaa7; } a { color: #7fb9b8; } .lit { background: #2b4a4b; } mark { color: #1e2a2b !important; } .gone { color: #e58a74; }
  button { background: #e8e4d8; color: #141b1c; }
}
@media print { .player, header { display: none; } body { padding-bottom: 0; } }
`.trim();

/** Follows the sound in the words, plays from a word, and ends when the link is taken back. */
export const SHARED_SCRIPT = `
'use strict';
const audio = document.querySelector('audio');
const words = [...document.querySelectorAll('[data-ms]')];
const starts = words.map((w) => Number(w.dataset.ms));
let lit = null;
const follow = () => {
  const now = audio.currentTime * 1000;
  let low = 0, high = starts.length;
  while (low < high) { const middle = (low + high) >> 1; if (starts[middle] <= now) low = middle + 1; else high = middle; }
  const word = words[low - 1] || null;
  if (word === lit) return;
  if (lit) lit.classList.remove('lit');
  if (word && !audio.paused) word.classList.add('lit');
  lit = word;
};
if (audio) {
  setInterval(follow, 100);
  document.addEventListener('click', (event) => {
    const word = event.target.closest('[data-ms]');
    if (!word || String(getSelection())) return;
    audio.currentTime = Number(word.dataset.ms) / 1000;
    audio.play();
  });
}
const end = () => {
  clearInterval(asking);
  if (audio) { audio.pause(); audio.removeAttribute('src'); audio.load(); audio.parentElement.remove(); }
  document.querySelector('main').innerHTML = '<p class="gone" role="alert">This link was turned off.</p>';
};
const asking = setInterval(async () => {
  const answer = await fetch(location.pathname + '/open', { cache: 'no-store' }).catch(() => null);
  if (answer && answer.status === 404) end();
}, 3000);
`.trim();

type PageParts = { title: string; language?: string; isListed: boolean; body: string };

const page = ({ title, language = 'en', isListed, body }: PageParts): string => `<!doctype html>
<html lang="${escapeHtml(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
${isListed ? '' : '<meta name="robots" content="noindex, nofollow">\n'}<title>${escapeHtml(title)}</title>
<link rel="stylesheet" href="/s/page.css">
</head>
<body>
${body}
</body>
</html>
`;

const HEADER = '<header><span>Shared from Immeld</span><span>Read only</span></header>';

/** What a link shows; it reads without scripts, which only follow the sound. */
export function sharedPage(
  sheet: ExportDocument,
  { path, isListed, soundPath }: { path: string; isListed: boolean; soundPath: string | null },
  pictures: ReadonlyMap<string, string>,
): string {
  const player = soundPath
    ? `<div class="player" role="region" aria-label="Audio"><audio controls preload="metadata" src="${escapeHtml(soundPath)}" aria-label="Audio of ${escapeHtml(sheet.title)}"></audio></div>`
    : '';
  const facts = sheet.facts.map((f) => `<p class="facts">${escapeHtml(f)}</p>`).join('\n');
  return page({
    ...{ title: sheet.title, language: sheet.language, isListed },
    body: `${HEADER}
<main data-path="${escapeHtml(path)}">
<h1 dir="auto">${escapeHtml(sheet.title)}</h1>
${facts}
${documentBody(sheet, pictures)}
</main>
${player}
<script src="/s/page.js" defer></script>`,
  });
}

export const passwordPage = (problem: string | null): string =>
  page({
    ...{ title: 'Password needed', isListed: false },
    body: `${HEADER}
<main>
<h1>Password needed</h1>
<form method="post">
${problem ? `<p class="gone" role="alert">${escapeHtml(problem)}</p>` : ''}
<label for="password">Ask the person who sent you the link.</label>
<input id="password" name="password" type="password" autocomplete="off" required autofocus>
<button type="submit">Open</button>
</form>
</main>`,
  });

export const nothingPage = (): string =>
  page({
    ...{ title: 'Link not available', isListed: false },
    body: `${HEADER}
<main>
<h1>This link is not available</h1>
<p>It may have been turned off or has expired. Ask the person who sent it for a new one.</p>
</main>`,
  });
