import type { ListedName } from './nameCandidates';

/** A listed name; one that belongs to a project is expected only in that project's recordings. */
export type NameOfProject = ListedName & { project?: string | null | undefined };

const OF_PROJECT = /\s@\s+([^@\s][^@]*)$/;

/**
 * A list as text: one name or term on a line, after "=" how it sounds, several ways parted by semicolons, and after " @ "
 * the project to which it belongs. Empty lines and lines that begin with "#" are passed over; a name that comes twice is
 * taken once, with all its sounds.
 */
export function parseNameList(text: string): { text: string; soundsLike: string[]; project?: string }[] {
  const names = new Map<string, { sounds: Set<string>; project: string | null }>();
  for (const line of text.split(/\r?\n/)) {
    if (line.trim() === '' || line.trim().startsWith('#')) continue;
    const project = OF_PROJECT.exec(line)?.[1]?.trim() ?? null;
    const [name = '', sounds = ''] = line.replace(OF_PROJECT, '').split(/=(.*)/s);
    if (name.trim() === '') continue;
    const known = names.get(name.trim()) ?? { sounds: new Set<string>(), project };
    for (const sound of sounds.split(';')) if (sound.trim()) known.sounds.add(sound.trim());
    names.set(name.trim(), known);
  }
  return [...names].map(([name, { sounds, project }]) => ({
    ...{ text: name, soundsLike: [...sounds] },
    ...(project ? { project } : {}),
  }));
}

export const formatNameList = (names: readonly NameOfProject[]): string =>
  names
    .map(({ text, soundsLike, project }) => {
      const sounds = soundsLike.length ? ` = ${soundsLike.join('; ')}` : '';
      return `${text}${sounds}${project ? ` @ ${project}` : ''}\n`;
    })
    .join('');

/**
 * The names to expect in a recording: those of every project, and those of its own.
 * @param project null where it is not known yet: then all are expected
 */
export const namesFor = <N extends NameOfProject>(names: readonly N[], project: string | null): N[] =>
  names.filter((n) => !n.project || project === null || n.project.toLowerCase() === project.toLowerCase());
