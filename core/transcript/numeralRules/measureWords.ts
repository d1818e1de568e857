import { tableOf } from '../../language/spokenNumbers';

export const COINS = tableOf({
  pounds: { sign: '£', small: 'pence' },
  pound: { sign: '£', small: 'pence' },
  dollars: { sign: '$', small: 'cents' },
  dollar: { sign: '$', small: 'cents' },
  euros: { sign: '€', small: 'cents' },
  euro: { sign: '€', small: 'cents' },
});

/** Symbols of the SI and of units accepted beside it (BIPM, The International System of Units, 9th edition, tables 2, 4 and 8). */
const SYMBOLS: readonly [names: string, symbol: string][] = [
  ['kilometer kilometers kilometre kilometres', 'km'],
  ['meter meters metre metres', 'm'],
  ['centimeter centimeters centimetre centimetres', 'cm'],
  ['millimeter millimeters millimetre millimetres', 'mm'],
  ['kilogram kilograms kilo kilos', 'kg'],
  ['gram grams', 'g'],
  ['milligram milligrams', 'mg'],
  ['liter liters litre litres', 'L'],
  ['milliliter milliliters millilitre millilitres', 'mL'],
  ['hectare hectares', 'ha'],
  ['volt volts', 'V'],
  ['watt watts', 'W'],
  ['kilowatt kilowatts', 'kW'],
  ['hertz', 'Hz'],
  ['kilohertz', 'kHz'],
  ['kilobyte kilobytes', 'kB'],
  ['megabyte megabytes', 'MB'],
  ['gigabyte gigabytes', 'GB'],
  ['decibel decibels', 'dB'],
];
export const UNIT_SYMBOLS = new Map(
  SYMBOLS.flatMap(([names, symbol]) => names.split(' ').map((n): [string, string] => [n, symbol])),
);
/** Measures that stay words after a figure. */
export const FIGURE_BEFORE = new Set(
  'feet foot inches inch miles mile yards yard acres acre tonnes tons pounds ounces degrees'.split(' '),
);
const TIME_UNITS = new Set(
  'seconds second minutes minute hours hour days day weeks week months month years year people times'.split(' '),
);
export const isMeasureWord = (word: string): boolean =>
  word in COINS ||
  UNIT_SYMBOLS.has(word) ||
  FIGURE_BEFORE.has(word) ||
  TIME_UNITS.has(word) ||
  /^per ?cent$|^percent$/.test(word);
