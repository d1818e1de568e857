import { Cleaner, type Cleaning } from '@immeld/core/audio/cleaning/cleaner';

/** Cleans a sound in pieces, as long as the original: what the steps hold back at the beginning comes at the end. */
export async function* cleanedChunks(
  chunks: AsyncIterable<Float32Array>,
  rate: number,
  cleaning: Cleaning,
): AsyncGenerator<Float32Array> {
  const cleaner = new Cleaner(rate, cleaning);
  let early = cleaner.latency;
  for await (const chunk of chunks) {
    const cleaned = cleaner.process(chunk);
    const kept = cleaned.subarray(Math.min(early, cleaned.length));
    early -= cleaned.length - kept.length;
    if (kept.length) yield kept;
  }
  yield cleaner.process(new Float32Array(cleaner.latency)).subarray(early);
}
