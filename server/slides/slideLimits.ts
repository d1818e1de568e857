/** A deck with more pages is a book. */
export const MAX_SLIDES = 500;

/** Why a deck cannot be read, in a sentence. */
export class DeckProblem extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'DeckProblem';
  }
}

/** @throws DeckProblem where there are no pages or too many */
export function checkPages(count: number): void {
  if (count === 0) throw new DeckProblem('This file has no pages.');
  if (count > MAX_SLIDES)
    throw new DeckProblem(
      `This file has ${count.toLocaleString('en-GB')} pages. Slides can be made of up to ${MAX_SLIDES}.`,
    );
}
