import type { NamePart } from '../contract/exports';

/** Characters that a file name may not have on one of the usual systems, and what would hide it. */
const FORBIDDEN = /[\\/:*?"<>|\p{Cc}]+/gu;
const MAX_BYTES = 180;

/** A name by the pattern, without ending; never empty, never too long for a file system, never reserved. */
export function fileNameBy(pattern: string, parts: Record<NamePart, string>): string {
  const filled = pattern.replace(/\{([a-z]+)\}/g, (_, part: NamePart) => parts[part] ?? '');
  let name = filled
    .replace(FORBIDDEN, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[\s.]+|(?<![\s.])[\s.]+$/g, '');
  while (new TextEncoder().encode(name).length > MAX_BYTES) name = [...name].slice(0, -1).join('');
  name = name.trim();
  // Names that Windows keeps for devices.
  if (/^(?:con|prn|aux|nul|com\d|lpt\d)$/i.test(name)) name = `${name}_`;
  return name || 'recording';
}

/** The names with numbers behind those that are there already, told apart without regard to capitals. */
export function uniqueNames(): (name: string) => string {
  const taken = new Set<string>();
  return (name) => {
    let free = name;
    for (let i = 2; taken.has(free.toLowerCase()); i++) free = `${name} ${i}`;
    taken.add(free.toLowerCase());
    return free;
  };
}
