import { execFileSync, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { Export, ExportItem } from '@immeld/core/contract/exportEndpoints';
import { type ExportFormat, PLAIN_CHOICES, USUAL_CHOICES, USUAL_PATTERN } from '@immeld/core/contract/exports';
import type { Note } from '@immeld/core/contract/notes';
import JSZip from 'jszip';
import mammoth from 'mammoth';
import { asAccount } from '../accounts/currentAccount';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { NoteRow } from '../models/note';
import { Recording } from '../models/recording';
import { SlipRow } from '../models/slip';
import { projectRoot } from '../projectRoot';
import { pdfText } from '../storage/pdfText';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder, until } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
let quay: string;
let plan: string;
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
  quay = await say({
    ...{ title: 'Quay: limes & roots', speaker: 'Bram <b>' },
    text: 'The limes need water. שלום לך עולם. مرحبا بالعالم. We 🌳 plant on Friday.',
  });
  plan = await say({ title: 'Quay: limes & roots', text: 'The second one of that name. =1+1 is no sum.' });
  const sound = path.join(projectRoot(), 'demo', 'sound', 'voice-message.ogg');
  fs.copyFileSync(sound, path.join(dataFolder, 'sound', 'quay.ogg'));
  await Recording.update({ soundFile: 'quay.ogg' }, { where: { id: quay } });
  fs.writeFileSync(path.join(dataFolder, 'pictures', 'plan.png'), PNG);
  const slip = { recordingId: quay, binnedAt: null, address: null, assignee: null };
  await asAccount(FIRST_ACCOUNT, () =>
    SlipRow.bulkCreate([
      {
        ...slip,
        id: randomUUID(),
        kind: 'heading',
        mark: null,
        startMs: 0,
        endMs: null,
        text: 'The roots',
        pictureFile: null,
      },
      {
        ...slip,
        id: randomUUID(),
        kind: 'mark',
        mark: 'key-point',
        startMs: 300,
        endMs: 1200,
        text: 'Water!',
        pictureFile: null,
      },
      {
        ...slip,
        id: randomUUID(),
        kind: 'picture',
        mark: null,
        startMs: 1300,
        endMs: null,
        text: 'The plan',
        pictureFile: 'plan.png',
      },
      {
        ...slip,
        id: randomUUID(),
        kind: 'picture',
        mark: null,
        startMs: 1400,
        endMs: null,
        text: 'Gone',
        pictureFile: 'gone.png',
      },
    ]),
  );
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const recording = (id: string): ExportItem => ({ kind: 'recording', id });
const rich = (format: ExportFormat, more = {}) => ({ format, choices: { ...USUAL_CHOICES.docx, ...more } });
const plain = (format: ExportFormat) => ({ format, choices: PLAIN_CHOICES });

async function made(items: ExportItem[], files: object[], more = {}) {
  const wish = { items, files, pattern: USUAL_PATTERN, ...more };
  const { status, body } = await askJson<Export>(server, 'POST', '/exports', wish);
  expect(status).toBe(200);
  const get = async () => (await askJson<Export>(server, 'GET', `/exports/${body.id}`)).body;
  const view = await until(get, (e) => e.state !== 'making');
  const response = await fetch(`${server.address}/api/exports/${body.id}/file`);
  const bytes = Buffer.from(await response.arrayBuffer());
  return { view, bytes, disposition: response.headers.get('Content-Disposition') };
}

it('a Word document: text, headings, check boxes, tables, pictures and comments, as another reader finds them', async () => {
  const { bytes, view, disposition } = await made([recording(quay)], [rich('docx')]);
  expect(disposition).toContain('filename="');
  expect(view.missing).toEqual([expect.stringContaining('A picture is missing or damaged')]);
  const { value: html } = await mammoth.convertToHtml({ buffer: bytes }, { styleMap: ['comment-reference => sup'] });
  expect(html).toContain('Quay: limes &amp; roots');
  expect(html).toContain('<strong>Bram &lt;b&gt;: </strong>The');
  expect(html).toMatch(/<img [^>]*src="data:image\/png;base64,/);
  expect(html).toContain('Water!');
  const { value: text } = await mammoth.extractRawText({ buffer: bytes });
  for (const said of ['שלום לך עולם', 'مرحبا بالعالم', 'We 🌳 plant on Friday.']) expect(text).toContain(said);
  const xml = await (await JSZip.loadAsync(bytes)).file('word/document.xml')!.async('text');
  // What is marked has the wash of its mark; what goes from right to left says so.
  expect(xml).toContain('w:fill="F6DDD7"');
  expect(xml).toContain('<w:rtl/>');
});

it('a note as a Word document has check boxes, a table and its headings', async () => {
  const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
  const cell = (text: string) => ({ type: 'tableCell', content: [paragraph(text)] });
  const body = {
    type: 'doc',
    content: [
      { type: 'heading', attrs: { level: 1 }, content: [{ type: 'text', text: 'Minutes' }] },
      {
        type: 'taskList',
        content: [{ type: 'taskItem', attrs: { checked: true }, content: [paragraph('Order ties')] }],
      },
      {
        type: 'table',
        content: [{ type: 'tableRow', content: [cell('Lime'), cell('twelve'), cell('by the water on the quay')] }],
      },
    ],
  };
  const { body: note } = await askJson<Note>(server, 'POST', '/notes', { title: 'Handed in', body });
  const { bytes } = await made([{ kind: 'note', id: note.id }], [{ format: 'docx', choices: PLAIN_CHOICES }]);
  const { value: html } = await mammoth.convertToHtml({ buffer: bytes });
  expect(html).toContain('<h1>Minutes</h1>');
  expect(html).toContain(
    '<table><tr><td><p>Lime</p></td><td><p>twelve</p></td><td><p>by the water on the quay</p></td></tr></table>',
  );
  // What says more has more room.
  const xml = await (await JSZip.loadAsync(bytes)).file('word/document.xml')!.async('text');
  const widths = [...xml.matchAll(/<w:gridCol w:w="(\d+)"/g)].map(([, width]) => Number(width));
  expect(widths).toHaveLength(3);
  expect(widths[2]!).toBeGreaterThan(2 * widths[0]!);
  expect(html).toMatch(/<input type="checkbox" checked="checked" \/> ?Order ties/);
  // Nothing but the note: no header was asked for.
  expect(html).not.toContain('Handed in');
  expect(await NoteRow.count()).toBe(1);
});

it('a PDF: the words, in every script that ships, as pdf.js reads them; headings are bookmarks', async () => {
  const { bytes } = await made([recording(quay)], [rich('pdf', { titlePage: true })]);
  const file = path.join(dataFolder, 'quay.pdf');
  fs.writeFileSync(file, bytes);
  const text = (await pdfText(file))!.replace(/\s+/g, ' ');
  for (const said of [
    'Quay: limes & roots',
    'Bram <b>: The limes need water.',
    'Key point at 0:00: Water!',
    'שלום',
    '🌳',
  ]) {
    expect(text).toContain(said);
  }
  // Letters that no typeface has would be shown as the same empty box.
  expect(text).not.toContain('\ufffd');
  expect(bookmarksOf(file)).toEqual(['The roots']);
});

it('a PDF: no heading is left alone at the end of a page', async () => {
  const text = (words: string) => [{ type: 'text', text: words }];
  const content = Array.from({ length: 60 }, (_, k) => [
    { type: 'heading', attrs: { level: 2 }, content: text(`Part${k}.`) },
    // Of many lengths, so that some page would end after a heading.
    { type: 'paragraph', content: text(`Text${k}. ${'The roots go down. '.repeat(10 + ((k * 7) % 23))}`) },
  ]).flat();
  const { body: note } = await askJson<Note>(server, 'POST', '/notes', {
    title: 'Long',
    body: { type: 'doc', content },
  });
  const { bytes } = await made([{ kind: 'note', id: note.id }], [{ format: 'pdf', choices: PLAIN_CHOICES }]);
  const file = path.join(dataFolder, 'long.pdf');
  fs.writeFileSync(file, bytes);
  const pages = pagesOf(file);
  expect(pages.length).toBeGreaterThan(5);
  for (let k = 0; k < 60; k++)
    expect(pages.findIndex((p) => p.includes(`Part${k}.`))).toBe(pages.findIndex((p) => p.includes(`Text${k}.`)));
});

it('many at once: a zip that another program unpacks, a name for each, a table of all to-dos', async () => {
  const files = ['txt', 'vtt', 'tsv', 'json', 'md', 'html', 'csv'].map((f) => plain(f as ExportFormat));
  const { bytes, view } = await made([recording(quay), recording(plan)], files);
  expect(view).toMatchObject({ state: 'ready', done: 2, total: 2 });
  const zip = await JSZip.loadAsync(bytes, { checkCRC32: true });
  const names = Object.keys(zip.files);
  expect(names).toHaveLength(13);
  expect(names.filter((n) => n.endsWith('.txt')).map((n) => n.replace(/^\S+ /, ''))).toEqual([
    'Quay limes & roots.txt',
    expect.stringMatching(/^Quay limes & roots/),
  ]);
  expect(await zip.file(/Quay.*\.txt$/)[1]!.async('text')).toBe('The second one of that name.\n\n=1+1 is no sum.\n');
});

it('sound: as it came, as another format, and only what was marked', async () => {
  const lengthOf = (file: string): number => {
    const { stderr } = spawnSync('ffmpeg', ['-i', file, '-f', 'null', '-'], { encoding: 'utf8' });
    const [, minutes, seconds] = [...stderr.matchAll(/time=\d+:(\d+):([\d.]+)/g)].at(-1)!;
    return Number(minutes) * 60 + Number(seconds);
  };
  const sound = (format: string, marksOnly = false) => ({ sound: { format, marksOnly } });
  const original = await made([recording(quay)], [], sound('original'));
  expect(original.bytes.equals(fs.readFileSync(path.join(dataFolder, 'sound', 'quay.ogg')))).toBe(true);
  const whole = lengthOf(path.join(dataFolder, 'sound', 'quay.ogg'));
  for (const format of ['mp3', 'wav', 'm4a']) {
    const file = path.join(dataFolder, `out.${format}`);
    fs.writeFileSync(file, (await made([recording(quay)], [], sound(format))).bytes);
    expect(Math.abs(lengthOf(file) - whole)).toBeLessThan(0.15);
  }
  const marked = path.join(dataFolder, 'marked.wav');
  fs.writeFileSync(marked, (await made([recording(quay)], [], sound('wav', true))).bytes);
  expect(Math.abs(lengthOf(marked) - 0.9)).toBeLessThan(0.1);
  execFileSync('ffmpeg', ['-v', 'error', '-i', marked, '-f', 'null', '-']);
});

it('what cannot be made is said; nobody else sees it', async () => {
  expect((await made([recording(plan)], [], { sound: { format: 'mp3', marksOnly: true } })).view).toMatchObject({
    state: 'failed',
    problem: expect.stringContaining('missing from the disk'),
  });
  const { status, body } = await askJson<{ detail: string }>(server, 'POST', '/exports', {
    ...{ items: [recording(quay)], files: [], pattern: '{title}' },
  });
  expect([status, body.detail]).toEqual([400, 'Choose at least one format or the audio.']);
  const wrong = { items: [recording(quay)], files: [plain('txt')], pattern: '{owner}' };
  expect((await askJson(server, 'POST', '/exports', wrong)).status).toBe(400);
  expect((await askJson(server, 'GET', `/exports/${randomUUID()}`)).status).toBe(404);
  const gone = await made([recording(randomUUID())], [plain('txt')]);
  expect(gone.view).toMatchObject({ state: 'failed', problem: 'This recording no longer exists.' });
});

it('a disk that is full is said, nothing half is left, and it works again afterwards', async () => {
  const open = fs.createWriteStream;
  // The kernel's own device that answers every write with "no space left".
  const full = jest.spyOn(fs, 'createWriteStream').mockImplementation((_path, options) => open('/dev/full', options));
  const begun = await askJson<Export>(server, 'POST', '/exports', {
    items: [{ kind: 'recording', id: quay }],
    files: [{ format: 'txt', choices: PLAIN_CHOICES }],
    sound: null,
    pattern: USUAL_PATTERN,
  });
  const ended = () =>
    until(
      async () => (await askJson<Export>(server, 'GET', `/exports/${begun.body.id}`)).body,
      (e) => e.state !== 'making',
    );
  expect(await ended()).toMatchObject({
    state: 'failed',
    problem: 'The server’s disk is full. Nothing is lost. Free up space on the server, then try again.',
  });
  full.mockRestore();
  expect(fs.existsSync(path.join(dataFolder, 'exports', begun.body.id))).toBe(false);
});

it('shows beforehand how a file will read', async () => {
  const ask = async (format: ExportFormat) =>
    (
      await askJson<{ isHtml: boolean; text: string }>(server, 'POST', '/exports/preview', {
        ...{ item: recording(plan), format, choices: PLAIN_CHOICES },
      })
    ).body;
  expect(await ask('txt')).toMatchObject({ isHtml: false, text: 'The second one of that name.\n\n=1+1 is no sum.\n' });
  expect(await ask('docx')).toMatchObject({
    ...{ isHtml: true, text: expect.stringContaining('<p dir="auto">The second') },
    plain: 'The second one of that name.\n\n=1+1 is no sum.\n',
  });
});

/** What pdf.js finds in a PDF by an expression of `pdf`. */
function askedOf<T>(file: string, expression: string): T {
  const script = `import('pdfjs-dist/legacy/build/pdf.mjs').then(async ({ getDocument }) => {
    const pdf = await getDocument({ data: new Uint8Array(require('fs').readFileSync(process.argv[1])), verbosity: 0 }).promise;
    console.log(JSON.stringify(${expression}));
  })`;
  const said = execFileSync(process.execPath, ['-e', `globalThis.DOMMatrix ??= class {}; ${script}`, file], {
    ...{ cwd: projectRoot(), encoding: 'utf8' },
  });
  return JSON.parse(said.trim().split('\n').at(-1)!) as T;
}
const bookmarksOf = (file: string) => askedOf<string[]>(file, '((await pdf.getOutline()) ?? []).map((o) => o.title)');
const pagesOf = (file: string) =>
  askedOf<string[]>(
    file,
    `await Promise.all(Array.from({ length: pdf.numPages }, async (_, k) =>
      (await (await pdf.getPage(k + 1)).getTextContent()).items.map((i) => i.str).join(' ')))`,
  );
