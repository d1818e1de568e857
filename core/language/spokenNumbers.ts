/** Words of numbers, and the values that dates and times need. */

/** A table that knows nothing but its own words: "constructor" is no number. */
export const tableOf = <T>(values: Record<string, T>): Record<string, T> =>
  Object.assign(Object.create(null) as Record<string, T>, values);

export const UNITS = tableOf({
  zero: 0,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
  thirteen: 13,
  fourteen: 14,
  fifteen: 15,
  sixteen: 16,
  seventeen: 17,
  eighteen: 18,
  nineteen: 19,
});
export const TENS = tableOf({
  twenty: 20,
  thirty: 30,
  forty: 40,
  fifty: 50,
  sixty: 60,
  seventy: 70,
  eighty: 80,
  ninety: 90,
});
export const ORDINALS = tableOf({
  first: 1,
  second: 2,
  third: 3,
  fourth: 4,
  fifth: 5,
  sixth: 6,
  seventh: 7,
  eighth: 8,
  ninth: 9,
  tenth: 10,
  eleventh: 11,
  twelfth: 12,
  thirteenth: 13,
  fourteenth: 14,
  fifteenth: 15,
  sixteenth: 16,
  seventeenth: 17,
  eighteenth: 18,
  nineteenth: 19,
  twentieth: 20,
  thirtieth: 30,
  fortieth: 40,
  fiftieth: 50,
  sixtieth: 60,
  seventieth: 70,
  eightieth: 80,
  ninetieth: 90,
});

const oneOf = (words: Record<string, number>): string => Object.keys(words).join('|');
export const NUMBER_WORD = `(?:(?:${oneOf(TENS)})(?:[ -](?:one|two|three|four|five|six|seven|eight|nine))?|${oneOf(UNITS)}|\\d+)`;
export const ORDINAL_WORD = `(?:(?:${oneOf(TENS)})[ -](?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth)|${oneOf(ORDINALS)}|\\d{1,2}(?:st|nd|rd|th))`;

/** Value of a number word below a hundred, or of digits; null for anything else. */
export function numberValue(text: string): number | null {
  const word = text.toLowerCase().trim();
  if (/^\d+$/.test(word)) return Number(word);
  if (word in UNITS) return UNITS[word]!;
  const [tens, unit] = word.split(/[ -]/);
  if (tens && tens in TENS) return TENS[tens]! + (unit ? (UNITS[unit] ?? ORDINALS[unit] ?? 0) : 0);
  return null;
}

/** Value of an ordinal such as "twenty-first" or "14th"; null for anything else. */
export function ordinalValue(text: string): number | null {
  const word = text.toLowerCase().trim();
  const digits = /^(\d{1,2})(?:st|nd|rd|th)$/.exec(word);
  if (digits) return Number(digits[1]);
  if (word in ORDINALS) return ORDINALS[word]!;
  return /[ -]/.test(word) ? numberValue(word) : null;
}
