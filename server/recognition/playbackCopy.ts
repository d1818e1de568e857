import fs from 'node:fs';
import { containerOf } from '../media/container';
import { type Source, inputArguments, startFfmpeg } from '../media/ffmpeg';

/** What browsers play and seek in as it is. */
const PLAYABLE = new Set(['.mp3', '.m4a', '.wav', '.ogg', '.oga', '.opus', '.flac', '.mp4', '.m4v', '.aac']);
const LIMIT_MS = 30 * 60 * 1000;

/** Whether a file needs a copy for playing; recorded WebM has no index, so nobody could skip in it. */
export const needsPlaybackCopy = (extension: string): boolean => !PLAYABLE.has(extension.toLowerCase());

/**
 * Writes a copy that browsers play: WebM keeps its streams and gets an index, everything else becomes Opus in Ogg.
 * Sounds that were added later are joined to it.
 * @returns whether the copy was made; the original is untouched either way
 */
export async function writePlaybackCopy(
  source: string,
  target: string,
  { isWebm, more = [] }: { isWebm: boolean; more?: readonly string[] },
): Promise<boolean> {
  const sources: Source[] = [];
  for (const file of [source, ...more]) {
    const container = await containerOf(file);
    if (!container || container.kind === 'picture') return false;
    sources.push({ file, container });
  }
  const joined = sources.map((_, i) => `[${i}:a:0]`).join('') + `concat=n=${sources.length}:v=0:a=1[joined]`;
  const codec = isWebm
    ? ['-c', 'copy', '-f', 'webm']
    : [
        ...(more.length ? ['-filter_complex', joined, '-map', '[joined]'] : ['-vn']),
        ...['-c:a', 'libopus', '-b:a', '48k', '-f', 'ogg'],
      ];
  const inputs = sources.flatMap(({ container }, i) => inputArguments(container, 3 + i));
  const code = await startFfmpeg(sources, ['-y', ...inputs, ...codec, `file:${target}.part`], {
    limitMs: LIMIT_MS,
  }).then(
    ({ closed }) => closed,
    () => null,
  );
  if (code !== 0) {
    await fs.promises.rm(`${target}.part`, { force: true });
    return false;
  }
  await fs.promises.rename(`${target}.part`, target);
  return true;
}
