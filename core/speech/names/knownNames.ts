import type { ListedName } from './nameCandidates';

/** A shorter word sounds like too much else. */
const MIN_LETTERS = 4;
const MAX_KNOWN = 200;

/**
 * Names that nobody has to list, as they are known already. Each part of a person's name counts, too: "Ottoline" is known where
 * "Ottoline Reyes" is.
 * @param things names of projects, folders and the like, as a whole
 */
export function knownNames(people: readonly string[], things: readonly string[]): ListedName[] {
  const parts = people.flatMap((name) => [name, ...name.split(/\s+/)]);
  const names = [...new Set([...parts, ...things].map((n) => n.trim()))];
  return names
    .filter((n) => /^\p{Lu}/u.test(n) && n.length >= MIN_LETTERS)
    .slice(0, MAX_KNOWN)
    .map((text) => ({ text, soundsLike: [] }));
}
