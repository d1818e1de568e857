/**
 * A name as it is compared: capitals, and ways to write the same letter, tell no two names apart in any script (Unicode
 * Standard Annex 15, NFC; default case folding of the Unicode Standard, 3.13, by way of capitals).
 */
export const foldCase = (name: string): string => name.trim().normalize('NFC').toUpperCase().toLowerCase();

export const isSameName = (one: string, other: string): boolean => foldCase(one) === foldCase(other);
