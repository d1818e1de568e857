import { spawn } from 'node:child_process';
import fs from 'node:fs';
import ffmpegInstaller from '@ffmpeg-installer/ffmpeg';

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
  const sources = [source, ...more];
  const joined = sources.map((_, i) => `[${i}:a:0]`).join('') + `concat=n=${sources.length}:v=0:a=1[joined]`;
  const codec = isWebm
    ? ['-c', 'copy', '-f', 'webm']
    : [
        ...(more.length ? ['-filter_complex', joined, '-map', '[joined]'] : ['-vn']),
        ...['-c:a', 'libopus', '-b:a', '48k', '-f', 'ogg'],
      ];
  const program = spawn(
    ffmpegInstaller.path,
    [
      '-nostdin',
      '-loglevel',
      'error',
      '-protocol_whitelist',
      'file',
      '-y',
      ...sources.flatMap((file) => ['-i', `file:${file}`]),
      ...codec,
      `file:${target}.part`,
    ],
    { stdio: 'ignore' },
  );
  const limit = setTimeout(() => program.kill('SIGKILL'), LIMIT_MS);
  const code = await new Promise<number | null>((resolve) => {
    program.on('error', () => resolve(null));
    program.on('close', resolve);
  });
  clearTimeout(limit);
  if (code !== 0) {
    await fs.promises.rm(`${target}.part`, { force: true });
    return false;
  }
  await fs.promises.rename(`${target}.part`, target);
  return true;
}
