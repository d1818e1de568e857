import { asDataAddress } from '../../ui/dataAddress';
import { saveFile } from '../../ui/saveFile';

/** Points of a picture for each px of the map. */
const SHARPNESS = 2;
/** Browsers draw no larger pictures. Common practice, no source. */
const MAX_PIXELS = 8000;

export type SheetSize = 'A4' | 'A3';
type Picture = { svg: SVGSVGElement; width: number; height: number; background: string };

/** The map as it is drawn, whole, as a file of its own: an SVG with its typefaces in it. */
export async function mapAsSvg({ svg, width, height, background }: Picture): Promise<string> {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  for (const { name } of [...copy.attributes]) copy.removeAttribute(name);
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  for (const [name, value] of Object.entries({ width, height, viewBox: `0 0 ${width} ${height}` }))
    copy.setAttribute(name, String(value));
  copy.querySelector('[data-moved]')?.removeAttribute('transform');
  // On the screen the title stands above the map.
  copy.querySelector('[data-printed]')?.removeAttribute('style');
  // What is there to be pressed is no part of the picture.
  copy.querySelectorAll('[data-handle], [data-at]').forEach((e) => e.remove());
  const families = new Set([...copy.querySelectorAll('text')].map((e) => e.style.fontFamily.replace(/["']/g, '')));
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent = await fontFaces(families);
  const sheet = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  for (const [name, value] of Object.entries({ width, height, fill: background }))
    sheet.setAttribute(name, String(value));
  copy.prepend(style, sheet);
  return new XMLSerializer().serializeToString(copy);
}

/** The rules of the page that bring typefaces, with the typefaces themselves in them. */
async function fontFaces(families: ReadonlySet<string>): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) =>
    [...sheet.cssRules].filter((rule): rule is CSSFontFaceRule => rule instanceof CSSFontFaceRule),
  );
  const wanted = [...families].map((family) => ({
    family,
    address: rules
      .find((r) => r.style.getPropertyValue('font-family').replace(/["']/g, '') === family)
      ?.style.getPropertyValue('src')
      .match(/url\(["']?([^"')]+)/)?.[1],
  }));
  const faces = await Promise.all(
    wanted.map(async ({ family, address }) => {
      if (!address) return '';
      const data = await asDataAddress(await (await fetch(address)).blob());
      return `@font-face { font-family: "${family}"; src: url("${data}"); }`;
    }),
  );
  return faces.join('\n');
}

export async function saveMapAsSvg(picture: Picture, name: string): Promise<void> {
  saveFile(new Blob([await mapAsSvg(picture)], { type: 'image/svg+xml' }), `${name}.svg`);
}

/** @throws Error where the browser cannot draw a picture of that size */
export async function saveMapAsPng(picture: Picture, name: string): Promise<void> {
  const { width, height } = picture;
  const scale = Math.min(SHARPNESS, MAX_PIXELS / width, MAX_PIXELS / height);
  const image = new Image();
  const loaded = new Promise((resolve, reject) => {
    image.onload = resolve;
    image.onerror = () => reject(new Error('The map could not be saved as a picture. Save it as SVG instead.'));
  });
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(await mapAsSvg(picture))}`;
  await loaded;
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * scale);
  canvas.height = Math.round(height * scale);
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  const png = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!png) throw new Error('The map is too large for a PNG. Save it as SVG instead.');
  saveFile(png, `${name}.png`);
}

/** Opens the browser's print dialog with the map alone, whole on one sheet across. */
export async function printMap(picture: Picture, size: SheetSize): Promise<void> {
  const frame = document.createElement('iframe');
  frame.style.cssText = 'position:fixed;width:0;height:0;border:0';
  frame.setAttribute('aria-hidden', 'true');
  frame.tabIndex = -1;
  const svg = await mapAsSvg(picture);
  const rules = `@page { size: ${size} landscape; margin: 10mm } body { margin: 0 } svg { width: 100%; height: 95vh }`;
  const loaded = new Promise((resolve) => frame.addEventListener('load', resolve, { once: true }));
  frame.srcdoc = `<!doctype html><style>${rules}</style>${svg}`;
  document.body.append(frame);
  await loaded;
  const { contentWindow } = frame;
  contentWindow?.addEventListener('afterprint', () => frame.remove());
  contentWindow?.print();
}
