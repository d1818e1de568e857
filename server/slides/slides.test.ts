import { USUAL_CHOICES, USUAL_PATTERN } from '@immeld/core/contract/exports';
import type { Recording as View } from '@immeld/core/contract/recordings';
import type { Done } from '@immeld/core/contract/shelves';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import { imageSize } from 'image-size';
import JSZip from 'jszip';
import type { Found } from '@immeld/core/contract/find';
import { pdfBytes } from '../exports/pdfMaker';
import type { RunningServer } from '../start';
import {
  ControlledPool,
  SPOKEN,
  askJson,
  startTestServer,
  temporaryFolder,
  until,
  upload,
} from '../testing/testServer';
import { plainSlidesPdf } from './plainSlides';

const dataFolder = temporaryFolder();
const pool = new ControlledPool();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, pool);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});
const ask = <T = View>(method: string, address: string, body?: unknown) => askJson<T>(server, method, address, body);
const get = async (id: string) => (await ask('GET', `/recordings/${id}`)).body;
const slidesOf = async (id: string) => (await get(id)).slips.filter((s) => s.kind === 'slide');

let counter = 0;
async function recorded(isReady = true): Promise<string> {
  const { recordingId } = await upload(server.address, Buffer.from(`a lecture ${counter++}`), 'Lecture.webm');
  if (isReady)
    await until(
      () => get(recordingId),
      (r) => r.state === 'ready',
    );
  return recordingId;
}

/** Puts a file into the margin and has slides made of it. */
async function bringIn(recordingId: string, name: string, bytes: Uint8Array) {
  const id = randomUUID();
  const slip = { id, kind: 'file', startMs: 0, isWhole: true, text: name };
  await ask('POST', `/recordings/${recordingId}/slips`, { slips: [slip] });
  const put = await fetch(`${server.address}/api/slips/${id}/file?name=${encodeURIComponent(name)}`, {
    method: 'PUT',
    body: new Uint8Array(bytes),
  });
  expect(put.status).toBe(200);
  const made = await ask<Done & { detail?: string }>('POST', `/slips/${id}/slides`);
  return { id, ...made };
}

const CALL = { title: 'People to call', lines: ['Bram, about the pits'] };
const LIMES = { title: 'Thirsty limes', lines: ['Twenty litres each week'] };
const GRAFTING = { title: 'Grafting', lines: ['Whip and tongue'] };

describe('slides of a PDF', () => {
  it('stand where they were spoken about, can be seen and found, and go back with one undo', async () => {
    const recording = await recorded();
    const { status, body } = await bringIn(recording, 'deck.pdf', await plainSlidesPdf([CALL, GRAFTING, LIMES]));
    expect({ status, text: body.text }).toEqual({
      status: 200,
      text: '3 slides added. Places of 2 are suggested.',
    });
    const slides = await slidesOf(recording);
    expect(slides.map((s) => [s.text, s.isWhole ? null : s.startMs, s.slide!.page, s.slide!.isProposed])).toEqual(
      expect.arrayContaining([
        ['People to call', 500, 1, true],
        ['Thirsty limes', 5000, 3, true],
        ['Grafting', null, 2, true],
      ]),
    );
    const picture = await fetch(`${server.address}/api/slips/${slides[0]!.id}/picture`);
    expect(picture.headers.get('Content-Type')).toBe('image/jpeg');
    const { width, height } = imageSize(new Uint8Array(await picture.arrayBuffer()));
    expect([width, Math.round((width / height) * 9)]).toEqual([1200, 16]);
    const found = (await ask<Found>('GET', '/find?q=tongue')).body;
    expect(JSON.stringify(found)).toContain(recording);
    expect((await ask('POST', `/history/${body.deedId}/undo`)).status).toBe(200);
    expect(await slidesOf(recording)).toEqual([]);
  });

  it('are accepted together or moved one by one; what a person has placed stays when places are proposed again', async () => {
    const recording = await recorded();
    await bringIn(recording, 'deck.pdf', await plainSlidesPdf([CALL, LIMES]));
    const [first, second] = await slidesOf(recording);
    await ask('PATCH', `/slips/${second!.id}`, { startMs: 6000 });
    expect((await slidesOf(recording))[1]).toMatchObject({ startMs: 6000, slide: { isProposed: false } });
    expect((await ask<Done>('POST', `/recordings/${recording}/slides/places`)).body.text).toBe(
      'Places of 1 slide are suggested.',
    );
    expect((await slidesOf(recording))[1]!.startMs).toBe(6000);
    expect((await ask<Done>('POST', `/recordings/${recording}/slides/accept`)).body.count).toBe(1);
    expect((await slidesOf(recording)).map((s) => s.slide!.isProposed)).toEqual([false, false]);
    expect((await slidesOf(recording))[0]!.id).toBe(first!.id);
  });

  it('that were there before the words get their places with them', async () => {
    let heard = (_result: typeof SPOKEN) => {};
    const answer = pool.answer;
    pool.answer = () => new Promise((resolve) => (heard = resolve));
    const recording = await recorded(false);
    await until(
      async () => pool.tasks.length,
      (n) => n >= counter,
    );
    const { body } = await bringIn(recording, 'deck.pdf', await plainSlidesPdf([CALL, LIMES]));
    expect(body.text).toBe('2 slides added. They have no places in the recording yet.');
    heard(SPOKEN);
    pool.answer = answer;
    const slides = await until(
      () => slidesOf(recording),
      (all) => all.every((s) => !s.isWhole),
    );
    expect(slides.map((s) => s.startMs)).toEqual([500, 5000]);
  });

  it('stand above their passages in an export, and say what is only suggested', async () => {
    const recording = await recorded();
    await bringIn(recording, 'deck.pdf', await plainSlidesPdf([CALL, LIMES]));
    const taken = async (proposals: boolean): Promise<string> => {
      const choices = { ...USUAL_CHOICES.txt, words: true, slips: 'margin', times: true, proposals };
      const wish = { items: [{ kind: 'recording', id: recording }], files: [{ format: 'txt', choices }] };
      const { body } = await ask<{ id: string }>('POST', '/exports', { ...wish, pattern: USUAL_PATTERN });
      await until(
        async () => (await ask<{ state: string }>('GET', `/exports/${body.id}`)).body,
        (e) => e.state !== 'making',
      );
      return (await fetch(`${server.address}/api/exports/${body.id}/file`)).text();
    };
    const withProposals = await taken(true);
    expect(withProposals).toMatch(/Slide 2 at 0:05 \(place suggested\): Thirsty limes[\s\S]*The limes are thirsty/);
    const facts = await taken(false);
    expect(facts).toMatch(/The limes are thirsty[\s\S]*Slides without an accepted place[\s\S]*Slide 2: Thirsty limes/);
    expect(facts).not.toContain('suggested');
  });
});

const xml = (body: string) => `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>${body}`;
const NAMES =
  'xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"';
const shape = (text: string, type?: string) =>
  `<p:sp><p:nvSpPr><p:nvPr>${type ? `<p:ph type="${type}"/>` : ''}</p:nvPr></p:nvSpPr><p:txBody><a:p><a:r><a:t>${text}</a:t></a:r></a:p></p:txBody></p:sp>`;

/** A presentation as ECMA-376 describes it, as small as it can be. */
async function pptx(slides: readonly { shapes: string; isHidden?: boolean }[], more: Record<string, string> = {}) {
  const zip = new JSZip();
  zip.file(
    '[Content_Types].xml',
    xml(
      `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Override PartName="/ppt/presentation.xml" ContentType="application/vnd.openxmlformats-officedocument.presentationml.presentation.main+xml"/></Types>`,
    ),
  );
  const ids = slides.map((_, i) => `<p:sldId id="${256 + i}" r:id="rId${i + 1}"/>`).join('');
  zip.file('ppt/presentation.xml', xml(`<p:presentation ${NAMES}><p:sldIdLst>${ids}</p:sldIdLst></p:presentation>`));
  const rels = slides.map((_, i) => `<Relationship Id="rId${i + 1}" Type="slide" Target="slides/slide${i + 1}.xml"/>`);
  zip.file('ppt/_rels/presentation.xml.rels', xml(`<Relationships>${rels.join('')}</Relationships>`));
  slides.forEach(({ shapes, isHidden }, i) =>
    zip.file(
      `ppt/slides/slide${i + 1}.xml`,
      xml(`<p:sld ${NAMES}${isHidden ? ' show="0"' : ''}><p:cSld><p:spTree>${shapes}</p:spTree></p:cSld></p:sld>`),
    ),
  );
  for (const [name, content] of Object.entries(more)) zip.file(name, content);
  return zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
}

it('a presentation gives its titles and words, without hidden slides and without the numbers in the foot', async () => {
  const recording = await recorded();
  const deck = await pptx([
    { shapes: shape('Thirsty limes', 'title') + shape('Twenty litres') + shape('7', 'sldNum') },
    { shapes: shape('Not shown', 'title'), isHidden: true },
    { shapes: shape('A slide without a title') },
  ]);
  const { status, body } = await bringIn(recording, 'deck.pptx', deck);
  expect(status).toBe(200);
  expect(body.text).toContain('2 slides added.');
  const slides = (await slidesOf(recording)).sort((a, b) => a.slide!.page - b.slide!.page);
  expect(slides.map((s) => [s.text, s.hasPicture])).toEqual([
    ['Thirsty limes', true],
    ['A slide without a title', true],
  ]);
});

describe('a file that cannot be shown as slides is kept, and a sentence says why', () => {
  const cases: [string, () => Promise<Uint8Array>, string][] = [
    ['text.txt', async () => Buffer.from('no slides'), 'Slides can be made of PDF files and of presentations'],
    ['damaged.pdf', async () => Buffer.from('%PDF-1.4 …'), 'This PDF is damaged and cannot be read.'],
    [
      'locked.pdf',
      () => pdfBytes({ content: 'secret', userPassword: 'lime', defaultStyle: { font: 'Literata' } }),
      'This PDF has a password.',
    ],
    [
      'book.pdf',
      () =>
        pdfBytes({
          content: Array.from({ length: 501 }, (_, i) => ({ text: `${i}`, pageBreak: 'after' as const })),
          defaultStyle: { font: 'Literata' },
        }),
      'Slides can be made of up to 500.',
    ],
    ['empty.pptx', () => pptx([]), 'This file has no pages.'],
    ['broken.pptx', () => pptx([{ shapes: '<p:sp>' }]), 'This presentation is damaged and cannot be read.'],
    [
      'bomb.pptx',
      () => pptx([{ shapes: shape('x') }], { 'ppt/slides/slide1.xml': ' '.repeat(30_000_000) }),
      'This presentation is too large once it is unpacked.',
    ],
  ];
  it.each(cases)('%s', async (name, make, sentence) => {
    const recording = await recorded();
    const { id, status, body } = await bringIn(recording, name, await make());
    expect(status).toBe(400);
    expect(body.detail).toContain(sentence);
    expect((await get(recording)).slips.find((s) => s.id === id)!.file!.name).toBe(name);
    expect(await slidesOf(recording)).toEqual([]);
  });
});
