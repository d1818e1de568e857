import type { ListedName } from './nameCandidates';

/**
 * A list as text: one name or term on a line, after "=" how it sounds, several ways parted by semicolons. Empty lines
 * and lines that begin with "#" are passed over; a name that comes twice is taken once, with all its sounds.
 */
export function parseNameList(text: string): { text: string; soundsLike: string[] }[] {
  const names = new Map<string, Set<string>>();
  for (const line of text.split(/\r?\n/)) {
    if (line.trim() === '' || line.trim().startsWith('#')) continue;
    const [name = '', sounds = ''] = line.split(/=(.*)/s);
    if (name.trim() === '') continue;
    const known = names.get(name.trim()) ?? new Set<string>();
    for (const sound of sounds.split(';')) if (sound.trim()) known.add(sound.trim());
    names.set(name.trim(), known);
  }
  return [...names].map(([name, sounds]) => ({ text: name, soundsLike: [...sounds] }));
}

export const formatNameList = (names: readonly ListedName[]): string =>
  names.map(({ text, soundsLike }) => `${text}${soundsLike.length ? ` = ${soundsLike.join('; ')}` : ''}\n`).join('');
