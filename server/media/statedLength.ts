import { ALL_FORMATS, FilePathSource, Input } from 'mediabunny';
import type { Container } from './container';
import { mp3FrameCountLength } from './mp3Length';

/** Reading the index of a long recording takes a moment; a file that takes longer states nothing. */
const PATIENCE_MS = 5000;

/**
 * The length that a file states, in milliseconds; null where it states none, or in a way that is not understood. It is
 * read from the container alone: nothing is decoded.
 */
export async function statedLength(file: string, { mediaType }: Container): Promise<number | null> {
  const noted = mediaType === 'audio/mpeg' ? await mp3FrameCountLength(file) : null;
  if (noted !== null) return noted;
  const input = new Input({ formats: ALL_FORMATS, source: new FilePathSource(file) });
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<null>((resolve) => (timer = setTimeout(() => resolve(null), PATIENCE_MS)));
  try {
    const seconds = await Promise.race([input.computeDuration(), late]);
    return seconds !== null && Number.isFinite(seconds) && seconds > 0 ? Math.round(seconds * 1000) : null;
  } catch {
    return null;
  } finally {
    clearTimeout(timer);
    input.dispose();
  }
}
