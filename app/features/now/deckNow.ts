import { useSyncExternalStore } from 'react';
import { Listeners } from '../../state/listeners';
import { type OpenPdf, pdfDrawer } from '../recording/pdfDrawer';

/** The slides that are shown while recording; `page` is the one that was shown last, 0 before the first. */
export type DeckNow = { name: string; pdf: OpenPdf; page: number };

/** Of a slide that is put into the margin, in pixels. */
const WIDTH = 1200;
const QUALITY = 0.85;

let deck: DeckNow | null = null;
const listeners = new Listeners();
const set = (next: DeckNow | null): void => {
  deck = next;
  listeners.tell();
};

/** The deck beside what is being recorded. It stays open while other pages are looked at. */
export const deckNow = {
  get: (): DeckNow | null => deck,
  subscribe: listeners.subscribe,
  /** Rejects where the file is no PDF that can be shown. */
  async open(file: File): Promise<void> {
    const pdf = await (await pdfDrawer())(await file.arrayBuffer());
    deck?.pdf.close();
    set({ name: file.name, pdf, page: 0 });
  },
  close(): void {
    deck?.pdf.close();
    set(null);
  },
  /** Goes to a page. @returns its words and its picture; null where there is no such page */
  async show(page: number): Promise<{ title: string; text: string; picture: Blob } | null> {
    if (!deck || page < 1 || page > deck.pdf.pages) return null;
    const { pdf } = deck;
    set({ ...deck, page });
    const canvas = document.createElement('canvas');
    await pdf.draw(page, canvas, WIDTH / devicePixelRatio);
    const picture = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY));
    return picture && { ...(await pdf.words(page)), picture };
  },
};

export const useDeckNow = (): DeckNow | null => useSyncExternalStore(deckNow.subscribe, deckNow.get, () => null);
