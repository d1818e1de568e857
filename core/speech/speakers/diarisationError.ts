/** Who speaks from when to when, in milliseconds. */
export type Turn = { speaker: string; startMs: number; endMs: number };

export type DiarisationError = {
  /** Missed, invented and confused time over the time of all speakers. */
  rate: number;
  missedMs: number;
  falseMs: number;
  confusedMs: number;
  speechMs: number;
};

const STEP_MS = 10;

/**
 * Diarisation error rate as the NIST Rich Transcription evaluation defines it (RT-09 evaluation plan, section 6.1):
 * speakers are paired so that they agree for as long as possible, and no time within the collar around a border of
 * the reference counts.
 * @param collarMs 250 in the usual scoring
 */
export function diarisationError(reference: readonly Turn[], found: readonly Turn[], collarMs = 250): DiarisationError {
  const end = Math.max(0, ...reference.map((t) => t.endMs), ...found.map((t) => t.endMs));
  const steps = Math.ceil(end / STEP_MS);
  const counts = new Uint8Array(steps).fill(1);
  for (const { startMs, endMs } of reference) {
    for (const border of [startMs, endMs]) fill(counts, border - collarMs, border + collarMs, 0);
  }
  const truth = rows(reference, steps);
  const guess = rows(found, steps);
  const pairs = bestPairs(overlaps(truth, guess, counts));
  let [missed, invented, confused, speech] = [0, 0, 0, 0];
  for (let at = 0; at < steps; at++) {
    if (!counts[at]) continue;
    const real = [...truth.values()].filter((row) => row[at]).length;
    const said = [...guess.values()].filter((row) => row[at]).length;
    const right = pairs.filter(([r, f]) => truth.get(r)![at] && guess.get(f)![at]).length;
    speech += real;
    missed += Math.max(0, real - said);
    invented += Math.max(0, said - real);
    confused += Math.min(real, said) - right;
  }
  return {
    rate: speech ? (missed + invented + confused) / speech : 0,
    ...{ missedMs: missed * STEP_MS, falseMs: invented * STEP_MS },
    ...{ confusedMs: confused * STEP_MS, speechMs: speech * STEP_MS },
  };
}

function fill(row: Uint8Array, fromMs: number, toMs: number, value: number): void {
  row.fill(value, Math.max(0, Math.round(fromMs / STEP_MS)), Math.max(0, Math.round(toMs / STEP_MS)));
}

function rows(turns: readonly Turn[], steps: number): Map<string, Uint8Array> {
  const bySpeaker = new Map<string, Uint8Array>();
  for (const { speaker, startMs, endMs } of turns) {
    const row = bySpeaker.get(speaker) ?? new Uint8Array(steps);
    fill(row, startMs, endMs, 1);
    bySpeaker.set(speaker, row);
  }
  return bySpeaker;
}

type Overlap = { real: string[]; found: string[]; steps: number[][] };

function overlaps(truth: Map<string, Uint8Array>, guess: Map<string, Uint8Array>, counts: Uint8Array): Overlap {
  const [real, found] = [[...truth.keys()], [...guess.keys()]];
  const steps = real.map((r) =>
    found.map((f) => counts.reduce((sum, c, at) => sum + (c && truth.get(r)![at] && guess.get(f)![at] ? 1 : 0), 0)),
  );
  return { real, found, steps };
}

/** Every way to pair is tried: fit for the few speakers of a talk. */
function bestPairs({ real, found, steps }: Overlap): [string, string][] {
  const best = (r: number, free: readonly number[]): { sum: number; pairs: [string, string][] } => {
    if (r === real.length) return { sum: 0, pairs: [] };
    let most = best(r + 1, free);
    for (const f of free) {
      if (!steps[r]![f]) continue;
      const rest = best(
        r + 1,
        free.filter((other) => other !== f),
      );
      if (rest.sum + steps[r]![f]! > most.sum) {
        most = { sum: rest.sum + steps[r]![f]!, pairs: [[real[r]!, found[f]!], ...rest.pairs] };
      }
    }
    return most;
  };
  return best(
    0,
    found.map((_, i) => i),
  ).pairs;
}
