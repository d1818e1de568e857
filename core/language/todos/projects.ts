/** A person or project with the other names it goes by. */
export type Named = { name: string; otherNames?: readonly string[] };

const escape = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
const ARTICLE = /^(?:the|my|our) /i;
const namesOf = ({ name, otherNames = [] }: Named): string[] =>
  [name, ...otherNames].map((n) => n.replace(ARTICLE, ''));

/** "Personal" and "at home" mean the project of one's own four walls, where there is one. */
const OWN = /^(?:personal|personally|private|privately|at home|home)$/i;
const HOME = /^(?:home|personal|private|house(?:hold)?|family)$/i;

/** The project that a text names, by its name or one of its other names. */
export function projectIn(text: string, projects: readonly Named[]): string | null {
  for (const project of projects) {
    for (const name of [project.name, ...(project.otherNames ?? [])]) {
      // "On the way home" is no project; "the apples" is one where "buy apples" is none.
      const bare = escape(name.replace(ARTICLE, ''));
      const pattern = ARTICLE.test(name)
        ? new RegExp(`\\b(?:the|my|our|this|that|those|these) ${bare}\\b`, 'i')
        : new RegExp(`(?<!\\b(?:way|go|going|get|come|coming|went|drive|walk|at) )\\b${bare}\\b`, 'i');
      if (pattern.test(text)) return project.name;
    }
  }
  return null;
}

const ANNOUNCES =
  /^(?:(?:okay|ok|so|right|and|now|then|next(?! project)|well)[, ]+)*(?:(?:next|first|last) project[,:]? |(?:and )?for |as for |on |about |project |moving on to |to )?(?:the |my )?(.{2,40}?)([,.:;]|$)\s*/i;
const FOR_PROJECT =
  /^(?:and |now |then |so )?(?:for|as for|about) (?:the |my )?(.{2,30}?) (?=i\b|we\b|please\b|can you\b)/i;

export type Announced = {
  /** Undefined: nothing was announced. */
  project: string | null | undefined;
  /** The sentence without the announcement. */
  rest: string;
};

/** A project announced for what follows: "For the orchard, ...", "Next project, home.", "Personal: ...". */
export function announcedProject(text: string, projects: readonly Named[]): Announced {
  const bare = FOR_PROJECT.exec(text);
  const exactly = (name: string): string | null => {
    const plain = name.trim().toLowerCase();
    if (OWN.test(plain)) return projects.find((p) => namesOf(p).some((n) => HOME.test(n)))?.name ?? null;
    return projects.find((p) => namesOf(p).some((n) => n.toLowerCase() === plain))?.name ?? null;
  };
  if (bare) {
    const named = exactly(bare[1]!);
    if (named) return { project: named, rest: text.slice(bare[0].length) };
  }
  const opening = ANNOUNCES.exec(text);
  if (!opening) return { project: undefined, rest: text };
  const named =
    exactly(opening[1]!) ?? (opening[1]!.split(' ').length <= 4 ? projectIn(`the ${opening[1]!}`, projects) : null);
  if (!named) return { project: undefined, rest: text };
  // "Water the orchard." names it too, and is not only an announcement.
  const isOnlyName = exactly(opening[1]!) !== null || /\b(?:for|project|on|about|to)\b/i.test(opening[0]);
  return { project: named, rest: isOnlyName ? text.slice(opening[0].length) : text };
}
