import { type Sentence } from '../language/sentences';
import { beginsPart } from '../language/parts';
import { topicStems } from '../language/words';

/** A slide by its words; `text` is all that stands on it, its title too. */
export type SlideWords = { title: string; text: string };

/** A word in the title says more about what a slide is for than one below it. */
const TITLE_WEIGHT = 2;
/** What it costs to pass over a slide that is never spoken about. */
const SKIP_COST = 0.5;
/** What it costs to go on to the next slide; without it single shared words would pull slides forward. */
const TURN_COST = 0.6;
/** Speakers turn to the next slide with certain words, and they pause before it. */
const TURN_BONUS = 0.5;
const PAUSE_MS = 1500;
const PAUSE_BONUS = 0.3;
/** Said of the slides themselves. Common practice, no source. */
const CUE =
  /\b(?:(?:next|this|following) slide|on (?:the|this) slide|here (?:you|we) (?:can )?see|this (?:picture|figure|chart|graph|diagram|table))\b/i;
const CUE_BONUS = 0.7;
const MAX_CUE = 400;
/** A long sentence has more chances to share a word. */
const LENGTH_FREE = 3;

/**
 * Finds for each slide the second at which somebody began to speak about it.
 * Method: sentences and slides are aligned in their order by dynamic programming (as in Needleman and Wunsch 1970, without
 * going back); a pair is worth the shared stems, weighted by how few slides have them (inverse document frequency, Spärck
 * Jones 1972). Slides may be passed over. Takes time in the order of sentences times slides.
 * @param slides in the order of the deck
 * @param sentences in the order of time; those without a time are left out
 * @returns milliseconds for each slide, never falling; null where it was passed over or nothing was said
 */
export function placeSlides(slides: readonly SlideWords[], sentences: readonly Sentence[]): (number | null)[] {
  const timed = sentences.filter((s) => s.startMs !== null);
  if (slides.length === 0 || timed.length === 0) return slides.map(() => null);
  const worth = worthOf(slides);
  /** From which slide the best way to (sentence, slide) comes. */
  const from: Int32Array[] = [];
  let best = new Float64Array(slides.length).fill(-Infinity);
  timed.forEach((sentence, u) => {
    const shared = worth(sentence.text);
    const next = new Float64Array(slides.length);
    const cameFrom = new Int32Array(slides.length);
    const turn = u === 0 ? 0 : turnWorth(timed[u - 1]!, sentence);
    // The best of all slides before this one, less what was passed over on the way.
    let before = u === 0 ? 0 : -Infinity;
    let beforeAt = -1;
    for (let s = 0; s < slides.length; s++) {
      const stays = best[s]!;
      const moves = before + (u === 0 ? 0 : turn);
      // Of two equal ways the later turn: what fits no slide stays with the one before.
      const isMove = moves >= stays;
      next[s] = (isMove ? moves : stays) + shared[s]!;
      cameFrom[s] = isMove ? beforeAt : s;
      before -= SKIP_COST;
      if (best[s]! > before) {
        before = best[s]!;
        beforeAt = s;
      }
    }
    best = next;
    from.push(cameFrom);
  });
  return placesOf(from, best, timed);
}

/** Follows the best way back. */
function placesOf(from: readonly Int32Array[], last: Float64Array, timed: readonly Sentence[]): (number | null)[] {
  const places: (number | null)[] = Array.from(last, () => null);
  let slide = last.indexOf(Math.max(...last));
  for (let u = timed.length - 1; u >= 0 && slide >= 0; u--) {
    places[slide] = timed[u]!.startMs;
    slide = from[u]![slide]!;
  }
  return places;
}

/** @returns what a sentence shares with each slide */
function worthOf(slides: readonly SlideWords[]): (text: string) => Float64Array {
  const slidesWith = new Map<string, Map<number, number>>();
  slides.forEach(({ title, text }, s) => {
    const inTitle = new Set(topicStems(title));
    for (const stem of new Set([...inTitle, ...topicStems(text)])) {
      const found = slidesWith.get(stem) ?? new Map<number, number>();
      found.set(s, inTitle.has(stem) ? TITLE_WEIGHT : 1);
      slidesWith.set(stem, found);
    }
  });
  return (text) => {
    const shared = new Float64Array(slides.length);
    const stems = new Set(topicStems(text));
    const length = Math.sqrt(LENGTH_FREE + stems.size);
    for (const stem of stems) {
      const found = slidesWith.get(stem);
      if (!found) continue;
      const rarity = Math.log(1 + slides.length / found.size) / Math.log(1 + slides.length);
      for (const [s, weight] of found) shared[s]! += (weight * rarity * 2) / length;
    }
    return shared;
  };
}

function turnWorth(before: Sentence, sentence: Sentence): number {
  const pause = before.endMs === null ? 0 : sentence.startMs! - before.endMs;
  return (
    (beginsPart(sentence.text) ? TURN_BONUS : 0) +
    (CUE.test(sentence.text.slice(0, MAX_CUE)) ? CUE_BONUS : 0) +
    (pause >= PAUSE_MS ? PAUSE_BONUS : 0) -
    TURN_COST
  );
}
