import { Problem } from '@immeld/core/contract/problem';
import type { Done } from '@immeld/core/contract/shelves';
import type { SlideFacts } from '@immeld/core/contract/slips';
import { type DeckForm, deckFormOf } from '@immeld/core/slides/deckForms';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { Sequelize } from 'sequelize';
import { recordChanges } from '../history/changeSets';
import { type Recording } from '../models/recording';
import { SlipRow } from '../models/slip';
import type { SoundStore } from '../storage/soundStore';
import { ProcessProblem, inProcess } from '../tasks/inProcess';
import { longTasks } from '../tasks/taskPool';
import { newWorkFolder } from '../tasks/workFolder';
import { passagesJson } from '../transcript/readPassages';
import type { ReadDeck, ReadSlide } from './readDeck';

/** Two hundred slides take a third of it. */
const RULES = { memoryMb: 900, limitMs: 120_000 };

const slideCount = (count: number): string => (count === 1 ? '1 slide' : `${count} slides`);

/**
 * Makes slides of the pages of a slip's file, each with its picture, its words and the place that is proposed for it.
 * @throws Problem where the file is no deck or cannot be read
 */
export async function makeSlides(database: Sequelize, deck: SlipRow, sounds: SoundStore): Promise<Done> {
  const form = deck.file && deckFormOf(deck.file.mediaType);
  if (!form)
    throw new Problem('invalid-request', 'Slides can be made of PDF files and of presentations that end in .pptx.');
  if ((await slidesOf(deck.recordingId)).some((s) => s.slide!.deckId === deck.id))
    throw new Problem('invalid-request', 'This file is shown as slides already.', 'Nothing was added twice.');
  const folder = newWorkFolder();
  try {
    const { slides, hasLayout } = await readInProcess(sounds.slipFilePath(deck.id), form, folder);
    const places = await placesFor(deck.recordingId, slides);
    return await recordChanges(database, async (changes) => {
      for (const [i, slide] of slides.entries()) {
        const id = randomUUID();
        const pictureFile = slide.picture && (await keepDrawn(sounds, path.join(folder, slide.picture), id));
        await changes.create(SlipRow, {
          ...{ id, recordingId: deck.recordingId, kind: 'slide', mark: null, endMs: null, binnedAt: null },
          ...{ text: slide.title, fileText: slide.text, pictureFile, ...standing(places[i]!) },
          slide: { deckId: deck.id, page: i + 1, isProposed: true } satisfies SlideFacts,
        });
      }
      const layout = hasLayout ? '' : ' Their layout is not shown, as LibreOffice is not installed on the server.';
      return { text: `${slideCount(slides.length)} added.${placedWords(places)}${layout}`, count: slides.length };
    });
  } finally {
    await fs.promises.rm(folder, { recursive: true, force: true });
  }
}

const placedWords = (places: readonly (number | null)[]): string => {
  const placed = places.filter((ms) => ms !== null).length;
  if (placed === 0) return ' They have no places in the recording yet.';
  return ` ${placed === places.length ? 'Their places are' : `Places of ${placed} are`} suggested.`;
};

async function readInProcess(file: string, form: DeckForm, folder: string): Promise<ReadDeck> {
  try {
    return await inProcess({ kind: 'deck', file, form, folder }, RULES);
  } catch (error) {
    if (!(error instanceof ProcessProblem)) throw error;
    const said =
      error.kind === 'DeckProblem'
        ? error.message
        : error.kind === 'TooHeavy'
          ? 'This file takes too much memory or time to be shown as slides.'
          : 'This file is damaged and cannot be shown as slides.';
    throw new Problem('invalid-request', said, 'The file is kept as it is.');
  }
}

async function keepDrawn(sounds: SoundStore, drawn: string, id: string): Promise<string> {
  const name = `${id}${path.extname(drawn)}`;
  await fs.promises.copyFile(drawn, sounds.picturePath(name));
  return name;
}

/** A slide without a place stands with the whole recording. */
const standing = (ms: number | null) => ({ startMs: ms ?? 0, isWhole: ms === null });

const slidesOf = async (recordingId: string): Promise<SlipRow[]> =>
  (await SlipRow.findAll({ where: { recordingId, kind: 'slide', binnedAt: null } }))
    .filter((s) => s.slide !== null)
    .sort((a, b) => a.slide!.page - b.slide!.page);

async function placesFor(
  recordingId: string,
  slides: readonly Pick<ReadSlide, 'title' | 'text'>[],
): Promise<(number | null)[]> {
  const passages = await passagesJson(recordingId);
  return longTasks.run({ kind: 'place slides', passages, slides: slides.map(({ title, text }) => ({ title, text })) });
}

/** Proposes places again, deck by deck; what a person has placed or accepted stays where it is. */
export async function placeSlidesAgain(database: Sequelize, recordingId: string): Promise<Done> {
  const slides = await slidesOf(recordingId);
  const moves: { row: SlipRow; place: number | null }[] = [];
  for (const deckId of new Set(slides.map((s) => s.slide!.deckId))) {
    const deck = slides.filter((s) => s.slide!.deckId === deckId);
    if (!deckId || !deck.some((s) => s.slide!.isProposed)) continue;
    const places = await placesFor(
      recordingId,
      deck.map((s) => ({ title: s.text, text: s.fileText ?? '' })),
    );
    deck.forEach((row, i) => row.slide!.isProposed && moves.push({ row, place: places[i]! }));
  }
  return recordChanges(database, async (changes) => {
    for (const { row, place } of moves) await changes.change(row, standing(place));
    const found = moves.filter((m) => m.place !== null).length;
    return { text: `Places of ${slideCount(found)} are suggested.`, count: found };
  });
}

/** Accepts where the slides stand; those without a place still have none. */
export async function acceptSlides(database: Sequelize, recordingId: string): Promise<Done> {
  const slides = (await slidesOf(recordingId)).filter((s) => s.slide!.isProposed && !s.isWhole);
  return recordChanges(database, async (changes) => {
    for (const row of slides) await changes.change(row, { slide: { ...row.slide!, isProposed: false } });
    return { text: `Places of ${slideCount(slides.length)} accepted.`, count: slides.length };
  });
}

/** When a recording has its words: slides that were there before them get their places. */
export async function placeWaitingSlides(recording: Recording): Promise<void> {
  const waits = (await slidesOf(recording.id)).some((s) => s.slide!.isProposed && s.isWhole);
  if (waits) await placeSlidesAgain(recording.sequelize, recording.id);
}
