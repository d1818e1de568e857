/**
 * Guards against a decoder that turns in circles. A group of tokens at the end of the sequence counts as a loop when
 * it has come often enough in a row: one token five times, two or three four times, longer groups three times.
 */
export type Loop = { groupLength: number; times: number };

const LONGEST_GROUP = 10;
const timesForLoop = (groupLength: number): number => (groupLength === 1 ? 5 : groupLength <= 3 ? 4 : 3);

/** The shortest group that repeats at the end of `tokens`, or null. */
export function loopAtEnd(tokens: readonly number[]): Loop | null {
  for (let groupLength = 1; groupLength <= LONGEST_GROUP; groupLength++) {
    const times = timesForLoop(groupLength);
    if (tokens.length < groupLength * times) return null;
    let same = 0;
    for (let i = tokens.length - 1; i >= groupLength && tokens[i] === tokens[i - groupLength]; i--) same++;
    const found = Math.floor(same / groupLength) + 1;
    if (found >= times) return { groupLength, times: found };
  }
  return null;
}

/** Shortest time in which anybody says a repeated group once, per token. Common practice, no source. */
const SHORTEST_REPEAT_SECONDS_PER_TOKEN = 0.07;

/**
 * Tells words really said again and again from a loop: in real repetition the attention moves on through the sound.
 *
 * @param attendedSeconds for each token, the second of the piece it attends to most
 */
export function isReallySaid(loop: Loop, attendedSeconds: readonly number[]): boolean {
  const last = attendedSeconds.slice(-loop.groupLength);
  const end = attendedSeconds.length - loop.groupLength * (loop.times - 1);
  const first = attendedSeconds.slice(Math.max(0, end - loop.groupLength), end);
  if (!first.length || !last.length) return false;
  const mean = (xs: readonly number[]) => xs.reduce((a, b) => a + b, 0) / xs.length;
  const needed = loop.groupLength * (loop.times - 1) * SHORTEST_REPEAT_SECONDS_PER_TOKEN;
  return mean(last) - mean(first) >= needed;
}
