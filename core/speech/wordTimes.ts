/**
 * Word times from cross-attention: dynamic time warping of tokens over frames with the negative attention as cost
 * (method: Sakoe and Chiba 1978 for the warping), only over frames in which speech was detected, because words
 * otherwise lean into the pauses.
 */

/** Seconds from one encoder frame to the next: 384 samples at 16 kHz. */
export const FRAME_HOP_SECONDS = 0.024;

/** A median of three along time takes single spikes out of the attention. */
function smoothed(row: Float32Array): Float32Array {
  return row.map((value, i) => {
    const before = row[Math.max(0, i - 1)]!;
    const after = row[Math.min(row.length - 1, i + 1)]!;
    return Math.max(Math.min(before, value), Math.min(Math.max(before, value), after));
  });
}

/** First and last frame index of each token. */
export type TokenFrames = { first: number; last: number };

/**
 * @param attention one row per token, one value per frame: mean attention over all heads
 * @param isSpeech whether a frame holds speech; if none does, all frames are used
 * @returns for each token the frames it covers, in order
 */
export function alignTokens(attention: readonly Float32Array[], isSpeech: (frame: number) => boolean): TokenFrames[] {
  const tokens = attention.length;
  const all = attention[0]?.length ?? 0;
  if (!tokens || !all) return [];
  let frames = Array.from({ length: all }, (_, frame) => frame).filter(isSpeech);
  if (frames.length === 0) frames = Array.from({ length: all }, (_, frame) => frame);
  const width = frames.length;
  const rows = attention.map((row) => {
    const smooth = smoothed(row);
    return Float32Array.from(frames, (frame) => smooth[frame]!);
  });

  const STAY = 1;
  const BOTH = 2;
  const SAME_FRAME = 3;
  const came = new Uint8Array(tokens * width);
  let previous = new Float64Array(width);
  for (let token = 0; token < tokens; token++) {
    const current = new Float64Array(width);
    for (let frame = 0; frame < width; frame++) {
      let best = token === 0 && frame === 0 ? 0 : Infinity;
      let step = 0;
      if (frame > 0 && current[frame - 1]! < best) [best, step] = [current[frame - 1]!, STAY];
      if (frame > 0 && token > 0 && previous[frame - 1]! < best) [best, step] = [previous[frame - 1]!, BOTH];
      if (token > 0 && previous[frame]! < best) [best, step] = [previous[frame]!, SAME_FRAME];
      current[frame] = best - rows[token]![frame]!;
      came[token * width + frame] = step;
    }
    previous = current;
  }

  const result: TokenFrames[] = attention.map(() => ({ first: 0, last: 0 }));
  let token = tokens - 1;
  let frame = width - 1;
  result[token]!.last = frames[frame]!;
  for (;;) {
    result[token]!.first = frames[frame]!;
    const step = came[token * width + frame]!;
    if (step === STAY) frame--;
    else if (step === BOTH || step === SAME_FRAME) {
      token--;
      if (step === BOTH) frame--;
      result[token]!.last = frames[frame]!;
    } else return result;
  }
}

/** Nobody pauses so long inside a word: 0.2 s. */
const PAUSE_FRAMES = 8;

/** A word that reaches over a pause is only the longer of its two parts; the rest belongs to its neighbour. */
export function snapToPauses({ first, last }: TokenFrames, isSpeech: (frame: number) => boolean): TokenFrames {
  let best: TokenFrames = { first, last };
  let voiced = 0;
  let from = first;
  let end = first - 1;
  const close = () => {
    if (end - from + 1 > voiced) [best, voiced] = [{ first: from, last: end }, end - from + 1];
  };
  for (let frame = first; frame <= last; frame++) {
    if (!isSpeech(frame)) continue;
    if (frame - end > PAUSE_FRAMES) {
      close();
      from = frame;
    }
    end = frame;
  }
  close();
  return best;
}
