import type { Named } from '../language/todos/projects';
import { type Passage, passageText } from '../transcript/manuscript';

/** Voices that nobody has named yet. */
const UNNAMED = /^Speaker \d+$/;
export const isUnnamed = (speaker: string): boolean => UNNAMED.test(speaker);
const MAX_PEOPLE = 8;

/**
 * Who is in a recording, by full names: who speaks and has a name, who came to the appointment, and known people who
 * are spoken of by one of their names.
 */
export function peopleIn(
  passages: readonly Pick<Passage, 'speaker' | 'words'>[],
  present: readonly string[],
  known: readonly Named[],
): string[] {
  const speakers = [...new Set(passages.flatMap((p) => (p.speaker && !isUnnamed(p.speaker) ? [p.speaker] : [])))];
  const text = passages.map(passageText).join(' ');
  const people = [
    ...[...speakers, ...present].map((name) => fullName(name, known)),
    ...known.filter((p) => isSpokenOf(p, text)).map((p) => p.name),
  ];
  return [...new Set(people)].slice(0, MAX_PEOPLE);
}

const namesOf = ({ name, otherNames = [] }: Named): string[] => [name, ...otherNames];

/** The name under which somebody is known, from one of their names or the first part of it. */
export function fullName(name: string, known: readonly Named[]): string {
  const lower = name.trim().toLowerCase();
  const exact = known.find((p) => namesOf(p).some((n) => n.toLowerCase() === lower));
  if (exact) return exact.name;
  const byFirst = known.filter((p) => p.name.toLowerCase().split(/\s+/)[0] === lower);
  return byFirst.length === 1 ? byFirst[0]!.name : name.trim();
}

/** By a full or other name of their own; "the engineer" alone may be any engineer and does not count. */
const isSpokenOf = (person: Named, text: string): boolean =>
  [...namesOf(person), person.name.split(/\s+/)[0]!]
    .filter((n) => /^\p{Lu}/u.test(n) && n.length > 2 && !/^(?:Professor|Doctor|Dr|Mrs?|Ms)\.?$/.test(n))
    .some((n) =>
      new RegExp(
        `(?<![\\p{L}\\p{N}])${n.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?:['’]s)?(?![\\p{L}\\p{N}])`,
        'u',
      ).test(text),
    );
