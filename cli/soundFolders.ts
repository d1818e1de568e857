import fs from 'node:fs';
import path from 'node:path';
import { setTimeout } from 'node:timers/promises';

/** Endings of files that hold sound or video; anything else in a folder is left alone. */
const ENDINGS = new Set(
  'wav mp3 m4a aac mp4 m4v mov webm mkv ogg oga opus flac aiff aif amr 3gp wma'.split(' ').map((e) => `.${e}`),
);

/** A sound with the folder below which it was found; null where it was named by itself. */
export type FoundSound = { file: string; below: string | null };

/**
 * The sounds that are meant by some names: a file is itself, a folder the sounds in it, with those in its folders where it is
 * `isDeep`. Hidden files and folders, and links to folders, are passed over.
 */
export function soundsIn(names: readonly string[], isDeep: boolean): FoundSound[] {
  return names.flatMap((name): FoundSound[] => {
    if (!fs.existsSync(name) || !fs.statSync(name).isDirectory()) return [{ file: name, below: null }];
    return inFolder(name, isDeep).map((file) => ({ file, below: name }));
  });
}

function inFolder(folder: string, isDeep: boolean): string[] {
  const entries = fs.readdirSync(folder, { withFileTypes: true }).sort((a, b) => a.name.localeCompare(b.name, 'en'));
  return entries.flatMap((entry): string[] => {
    const full = path.join(folder, entry.name);
    if (entry.name.startsWith('.')) return [];
    if (entry.isDirectory()) return isDeep ? inFolder(full, isDeep) : [];
    return entry.isFile() && ENDINGS.has(path.extname(entry.name).toLowerCase()) ? [full] : [];
  });
}

const LOOK_EVERY_MS = 1000;

/**
 * Tells each sound that appears or changes in some folders, once it has not grown for a second; until `signal` ends it.
 * Folders are looked through again and again: that works on network drives and synchronised folders, where notices get lost.
 * @param known what is there already and not to be told
 */
export async function* newSounds(
  names: readonly string[],
  isDeep: boolean,
  known: readonly string[],
  signal: AbortSignal,
): AsyncGenerator<FoundSound> {
  const stamp = (file: string): string => {
    const stat = fs.statSync(file, { throwIfNoEntry: false });
    return stat ? `${stat.size} ${stat.mtimeMs}` : '';
  };
  const done = new Map(known.map((file) => [file, stamp(file)]));
  let seen = new Map<string, string>();
  while (!signal.aborted) {
    const now = new Map<string, string>();
    for (const sound of soundsIn(names, isDeep).filter((s) => s.below !== null)) {
      const current = stamp(sound.file);
      if (!current || done.get(sound.file) === current) continue;
      if (seen.get(sound.file) === current && !current.startsWith('0 ')) {
        done.set(sound.file, current);
        yield sound;
      } else now.set(sound.file, current);
    }
    seen = now;
    // Ended by the signal it throws, and the loop ends.
    await setTimeout(LOOK_EVERY_MS, undefined, { signal }).catch(() => undefined);
  }
}
