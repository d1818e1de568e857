/**
 * Guards against a decoder that turns in circles. A group of tokens at the end of the sequence counts as a loop when
 * it has come often enough in a row: one token five times, two or three four times, up to ten three times, longer ones
 * twice.
 */
export type Loop = { groupLength: number; times: number };

const MAX_GROUP = 30;
const timesForLoop = (groupLength: number): number =>
  groupLength === 1 ? 5 : groupLength <= 3 ? 4 : groupLength <= 10 ? 3 : 2;

/** The shortest group that repeats at the end of `tokens`, or null. */
export function loopAtEnd(tokens: readonly number[]): Loop | null {
  for (let groupLength = 1; groupLength <= MAX_GROUP; groupLength++) {
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
const MIN_REPEAT_SECONDS_PER_TOKEN = 0.07;

/**
 * How many of the repetitions were really said: with each one the attention moves on through the sound; in a loop it
 * stands still or jumps back.
 *
 * @param attendedSeconds for each token, the second of the piece it attends to most
 * @returns 1 to `loop.times`
 */
export function supportedRepetitions(loop: Loop, attendedSeconds: readonly number[]): number {
  const { groupLength, times } = loop;
  const begin = attendedSeconds.length - groupLength * times;
  const centre = (repetition: number): number => {
    const from = begin + repetition * groupLength;
    return attendedSeconds.slice(from, from + groupLength).reduce((a, b) => a + b, 0) / groupLength;
  };
  const needed = groupLength * MIN_REPEAT_SECONDS_PER_TOKEN;
  for (let i = 1; i < times; i++) if (centre(i) - centre(i - 1) < needed) return i;
  return times;
}
