import { DOMParser, type Element, type Document } from '@xmldom/xmldom';
import type { SlideWords } from '@immeld/core/slides/placeSlides';
import { MAX_SLIDE_TEXT, MAX_SLIDE_TITLE } from '@immeld/core/slides/slideOf';
import path from 'node:path';
import type { Readable } from 'node:stream';
import yauzl from 'yauzl';
import { DeckProblem, checkPages } from './slideLimits';

/** A slide of a presentation; `picture` is the largest one on it, as bytes. */
export type PptxSlide = SlideWords & { lines: string[]; picture: { bytes: Buffer; type: 'png' | 'jpeg' } | null };

const MAX_ENTRIES = 10_000;
/** Unpacked, of one part that is read. */
const MAX_XML = 8 * 1024 ** 2;
const MAX_PICTURE = 20 * 1024 ** 2;
/** Unpacked, of everything that is read. */
const MAX_ALL = 300 * 1024 ** 2;
const DAMAGED = 'This presentation is damaged and cannot be read.';

/**
 * Reads a presentation in Office Open XML (ECMA-376, part 1, PresentationML): words and pictures, not the layout. Hidden
 * slides are left out.
 * @throws DeckProblem where it is damaged, too large unpacked, or has no slides or too many
 */
export async function readPptx(file: string): Promise<PptxSlide[]> {
  const parts = await Parts.open(file);
  try {
    const order = await parts.slides();
    checkPages(order.length);
    const slides: PptxSlide[] = [];
    for (const name of order) {
      const slide = await readSlide(parts, name, slides.length + 1);
      if (slide) slides.push(slide);
    }
    checkPages(slides.length);
    return slides;
  } finally {
    parts.close();
  }
}

/** @returns null for a hidden slide */
async function readSlide(parts: Parts, name: string, number: number): Promise<PptxSlide | null> {
  const xml = await parts.xml(name);
  if (xml.documentElement?.getAttribute('show') === '0') return null;
  const titles: string[] = [];
  const lines: string[] = [];
  for (const shape of tagged(xml, 'p:sp')) {
    const kind = tagged(shape, 'p:ph')[0]?.getAttribute('type') ?? '';
    // The date, the number and the foot of a slide are not what it says.
    if (['dt', 'sldNum', 'ftr'].includes(kind)) continue;
    const isTitle = kind === 'title' || kind === 'ctrTitle';
    (isTitle ? titles : lines).push(...linesOf(shape));
  }
  for (const table of tagged(xml, 'a:tbl')) lines.push(...linesOf(table));
  const title = titles.join(' ').slice(0, MAX_SLIDE_TITLE) || lines[0]?.slice(0, MAX_SLIDE_TITLE) || `Slide ${number}`;
  const text = [...titles, ...lines].join('\n').slice(0, MAX_SLIDE_TEXT);
  return { title, text, lines, picture: await largestPicture(parts, name, xml) };
}

const linesOf = (element: Element): string[] =>
  tagged(element, 'a:p')
    .map((p) =>
      tagged(p, 'a:t')
        .map((t) => t.textContent ?? '')
        .join('')
        .trim(),
    )
    .filter(Boolean);

async function largestPicture(parts: Parts, name: string, xml: Document): Promise<PptxSlide['picture']> {
  const placed = tagged(xml, 'p:pic').map((pic) => {
    const size = tagged(pic, 'a:ext').find((e) => e.hasAttribute('cx'));
    return {
      id: tagged(pic, 'a:blip')[0]?.getAttribute('r:embed') ?? '',
      area: Number(size?.getAttribute('cx') ?? 0) * Number(size?.getAttribute('cy') ?? 0),
    };
  });
  placed.sort((a, b) => b.area - a.area);
  const targets = await parts.targets(name);
  for (const { id } of placed) {
    const target = targets.get(id);
    const type = target && /\.png$/i.test(target) ? 'png' : target && /\.jpe?g$/i.test(target) ? 'jpeg' : null;
    if (!target || !type) continue;
    const bytes = await parts.bytes(target, MAX_PICTURE);
    if (bytes) return { bytes, type };
  }
  return null;
}

const tagged = (element: Element | Document, name: string): Element[] => Array.from(element.getElementsByTagName(name));

/** The parts of the package, read with limits: what is said to be small may unpack to gigabytes. */
class Parts {
  private read = 0;

  private constructor(
    private readonly zip: yauzl.ZipFile,
    private readonly entries: ReadonlyMap<string, yauzl.Entry>,
  ) {}

  static async open(file: string): Promise<Parts> {
    const zip = await new Promise<yauzl.ZipFile>((resolve, reject) =>
      yauzl.open(file, { lazyEntries: true, autoClose: false }, (error, opened) =>
        error ? reject(new DeckProblem(DAMAGED)) : resolve(opened),
      ),
    );
    const entries = new Map<string, yauzl.Entry>();
    await new Promise<void>((resolve, reject) => {
      zip.on('entry', (entry: yauzl.Entry) => {
        entries.set(entry.fileName, entry);
        if (entries.size > MAX_ENTRIES) reject(new DeckProblem('This presentation holds too many files.'));
        else zip.readEntry();
      });
      zip.once('end', resolve);
      zip.once('error', () => reject(new DeckProblem(DAMAGED)));
      zip.readEntry();
    });
    return new Parts(zip, entries);
  }

  close(): void {
    this.zip.close();
  }

  /** Names of the slides in the order in which they are shown. */
  async slides(): Promise<string[]> {
    const main = 'ppt/presentation.xml';
    const targets = await this.targets(main);
    return tagged(await this.xml(main), 'p:sldId')
      .map((s) => targets.get(s.getAttribute('r:id') ?? ''))
      .filter((name) => name !== undefined);
  }

  /** What a part refers to, by the ids it uses. */
  async targets(name: string): Promise<Map<string, string>> {
    const rels = path.posix.join(path.posix.dirname(name), '_rels', `${path.posix.basename(name)}.rels`);
    if (!this.entries.has(rels)) return new Map();
    return new Map(
      tagged(await this.xml(rels), 'Relationship')
        .filter((r) => r.getAttribute('TargetMode') !== 'External')
        .map((r) => {
          const target = r.getAttribute('Target') ?? '';
          const whole = target.startsWith('/') ? target.slice(1) : path.posix.join(path.posix.dirname(name), target);
          return [r.getAttribute('Id') ?? '', whole];
        }),
    );
  }

  async xml(name: string): Promise<Document> {
    const bytes = await this.bytes(name, MAX_XML);
    if (!bytes) throw new DeckProblem(DAMAGED);
    try {
      return new DOMParser({ onError: () => undefined }).parseFromString(bytes.toString('utf8'), 'text/xml');
    } catch {
      throw new DeckProblem(DAMAGED);
    }
  }

  /** @returns null where there is no such part. @throws DeckProblem where it unpacks to more than `most` bytes */
  async bytes(name: string, most: number): Promise<Buffer | null> {
    const entry = this.entries.get(name);
    if (!entry) return null;
    const tooLarge = () => new DeckProblem('This presentation is too large once it is unpacked.');
    if (entry.uncompressedSize > most) throw tooLarge();
    const stream = await new Promise<Readable>((resolve, reject) =>
      this.zip.openReadStream(entry, (error, opened) => (error ? reject(new DeckProblem(DAMAGED)) : resolve(opened))),
    );
    const chunks: Buffer[] = [];
    let length = 0;
    try {
      for await (const chunk of stream) {
        length += (chunk as Buffer).length;
        this.read += (chunk as Buffer).length;
        if (length > most || this.read > MAX_ALL) throw tooLarge();
        chunks.push(chunk as Buffer);
      }
    } catch (error) {
      throw error instanceof DeckProblem ? error : new DeckProblem(DAMAGED);
    }
    return Buffer.concat(chunks);
  }
}
