import path from 'node:path';
import { projectRoot } from '../projectRoot';

const font = (family: string, file: string): string =>
  path.join(projectRoot(), 'node_modules', '@expo-google-fonts', family, ...file.split('/'));

const oneLook = (file: string) => ({ normal: file, bold: file, italics: file, bolditalics: file });

/** The typefaces that ship, for text, for the interface, and for scripts that these do not have. */
export const PDF_FONTS = {
  Literata: {
    normal: font('literata', '400Regular/Literata_400Regular.ttf'),
    bold: font('literata', '700Bold/Literata_700Bold.ttf'),
    italics: font('literata', '400Regular_Italic/Literata_400Regular_Italic.ttf'),
    bolditalics: font('literata', '700Bold_Italic/Literata_700Bold_Italic.ttf'),
  },
  Atkinson: {
    normal: font('atkinson-hyperlegible', '400Regular/AtkinsonHyperlegible_400Regular.ttf'),
    bold: font('atkinson-hyperlegible', '700Bold/AtkinsonHyperlegible_700Bold.ttf'),
    italics: font('atkinson-hyperlegible', '400Regular_Italic/AtkinsonHyperlegible_400Regular_Italic.ttf'),
    bolditalics: font('atkinson-hyperlegible', '700Bold_Italic/AtkinsonHyperlegible_700Bold_Italic.ttf'),
  },
  Emoji: oneLook(font('noto-emoji', '400Regular/NotoEmoji_400Regular.ttf')),
  Arabic: oneLook(font('noto-sans-arabic', '400Regular/NotoSansArabic_400Regular.ttf')),
  Hebrew: oneLook(font('noto-sans-hebrew', '400Regular/NotoSansHebrew_400Regular.ttf')),
};
export type PdfFont = keyof typeof PDF_FONTS;

const SCRIPTS: [PdfFont, RegExp][] = [
  ['Arabic', /[\u0600-\u06ff\u0750-\u077f\u08a0-\u08ff\ufb50-\ufdff\ufe70-\ufefc]/u],
  ['Hebrew', /[\u0590-\u05ff\ufb1d-\ufb4f]/u],
  ['Emoji', /\p{Extended_Pictographic}|[\u{1f1e6}-\u{1f1ff}\ufe0f\u200d\u20e3]/u],
];

const fontOf = (letter: string): PdfFont | null => SCRIPTS.find(([, has]) => has.test(letter))?.[0] ?? null;

/** A text in stretches of one typeface each; null for the typeface of the text around it. */
export function byFont(text: string): { text: string; font: PdfFont | null }[] {
  const found: { text: string; font: PdfFont | null }[] = [];
  for (const letter of text) {
    const last = found.at(-1);
    const font = /\s/.test(letter) ? (last?.font ?? null) : fontOf(letter);
    if (last && last.font === font) last.text += letter;
    else found.push({ text: letter, font });
  }
  return found;
}
