import { NUMBER_WORD } from '../language/spokenNumbers';
import { isStopword } from '../language/words';

const PART = `(?:${NUMBER_WORD}|hundred|thousand|million|half|dozen)`;
const QUANTITY = new RegExp(
  `(?<![\\p{L}\\p{N}])((?:an? )?${PART}(?:[ -]${PART}| and ${PART}| point ${PART}|[.,]\\d+|(?<=thousand), ${PART} hundred)*(?: per cent| percent| ?%)?)(?![\\p{L}\\p{N}])(?: (?:of )?(\\p{L}+))?`,
  'giu',
);

/** Numbers in a text, spoken or in figures, each with the word that is counted: "eleven thousand four hundred", "two plums". */
export function quantitiesIn(text: string): string[] {
  return [...text.matchAll(QUANTITY)]
    .filter(
      ([, number, counted]) =>
        !/^(?:an? )?(?:one|half)$/i.test(number!) || (counted && !isStopword(counted.toLowerCase())),
    )
    .map(([, number, counted]) => {
      const isCounted =
        counted &&
        (!isStopword(counted.toLowerCase()) || /^(?:minutes?|hours?|days?|weeks?|months?|years?)$/i.test(counted));
      return isCounted ? `${number} ${counted}` : number!;
    });
}
