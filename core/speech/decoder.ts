import { loopAtEnd, supportedRepetitions } from './repetition';
import { type ModelRuntime, type ModelSession, type Tensor, floatsOf } from './session';
import { END_TOKEN, START_TOKEN, type Tokenizer } from './tokenizer';
import { FRAME_HOP_SECONDS } from './wordTimes';

/** People do not say more: what comes faster is invention. */
export const MAX_TOKENS_PER_SECOND = 6.5;

export type RecognitionModels = {
  runtime: ModelRuntime;
  encoder: ModelSession;
  crossKeyValues: ModelSession;
  step: ModelSession;
  tokenizer: Tokenizer;
  /** How words are laid in time; without it by all heads. */
  alignment?: Alignment;
};

/** Heads of the cross-attention that follow the sound best, as [layer, head]; what is added to the start of a word. */
export type Alignment = { heads: readonly (readonly [number, number])[]; offsetSeconds: number };

/** What is known of a piece from decoding its beginning before. */
export type Hint = {
  /** Tokens at the beginning that stand fast; decoding goes on after them. */
  known: readonly number[];
  /** Tokens that may follow; they are checked all at once and kept as far as they would be chosen again. */
  draft: readonly number[];
};
export const NO_HINT: Hint = { known: [], draft: [] };

export type Decoded = { tokens: number[]; logProbabilities: number[]; attention: Float32Array[] };

/** What the decoder knows of the sound, or of what was decoded before: tensors by their names in the model. */
export type Known = Record<string, Tensor>;

/** The encoder and decoder of the model with its caches: one piece of sound in, tokens and their attention out. */
export class Decoder {
  private readonly attentionNames: readonly string[];

  constructor(private readonly models: RecognitionModels) {
    this.attentionNames = models.step.outputNames.filter((name) => name.includes('encoder_attn'));
  }

  /** What the decoder needs to know of the sound: keys and values of the cross-attention. */
  async listen(samples: Float32Array): Promise<Known> {
    const { runtime, encoder, crossKeyValues } = this.models;
    const encoded = await encoder.run({ input_values: runtime.float32(samples, [1, samples.length]) });
    const cross = await crossKeyValues.run({ encoder_hidden_states: encoded['last_hidden_state']! });
    const constant: Known = {};
    for (const [name, tensor] of Object.entries(cross)) constant[name.replace('present', 'past_key_values')] = tensor;
    return constant;
  }

  /** One run of the decoder over some tokens after what went before. */
  async step(heard: Known, tokens: readonly number[], past: Known = this.emptyPast(heard)): Promise<Known> {
    const { runtime, step } = this.models;
    const inputIds = runtime.int64(BigInt64Array.from(tokens, BigInt), [1, tokens.length]);
    return step.run({ input_ids: inputIds, ...heard, ...past });
  }

  /** Greedily, with guards against loops and against more tokens than anybody says. */
  async decode(constant: Known, seconds: number, hint: Hint): Promise<Decoded> {
    const { tokenizer } = this.models;
    let past = this.emptyPast(constant);

    const decoded: Decoded = { tokens: [], logProbabilities: [], attention: [] };
    const attended: number[] = [];
    const most = Math.max(2, Math.ceil(seconds * MAX_TOKENS_PER_SECOND), hint.known.length + 2);
    const expected = [...hint.known, ...hint.draft].slice(0, most - 1);
    let next = [START_TOKEN, ...expected];
    while (decoded.tokens.length < most) {
      const result = await this.step(constant, next, past);
      const logits = floatsOf(result, 'logits');
      const perToken = logits.length / next.length;
      let row = 0;
      for (; row < next.length; row++) {
        const [chosen, logProbability] = argMax(logits.subarray(row * perToken), tokenizer.size);
        const attention = this.meanAttention(result, row, next.length);
        const wasExpected = next[row + 1];
        const isKnown = wasExpected !== undefined && decoded.tokens.length < hint.known.length;
        const token = isKnown ? wasExpected : chosen;
        decoded.attention.push(attention);
        decoded.logProbabilities.push(logProbability);
        if (token === END_TOKEN) return decoded;
        decoded.tokens.push(token);
        attended.push(indexOfLargest(attention) * FRAME_HOP_SECONDS);
        const loop = loopAtEnd(decoded.tokens);
        const said = loop && !isKnown ? supportedRepetitions(loop, attended) : 0;
        if (loop && !isKnown && said < loop.times) {
          const kept = decoded.tokens.length - loop.groupLength * (loop.times - said);
          return {
            tokens: decoded.tokens.slice(0, kept),
            logProbabilities: decoded.logProbabilities.slice(0, kept),
            attention: decoded.attention.slice(0, kept),
          };
        }
        if (token !== wasExpected) break;
      }
      past = this.nextPast(result, row + 1 < next.length ? decoded.tokens.length : null);
      next = [decoded.tokens.at(-1)!];
    }
    return decoded;
  }

  /** Likelihood and attention of a given text, all in one pass. */
  async score(heard: Known, tokens: readonly number[]): Promise<Decoded> {
    const { tokenizer } = this.models;
    const inputs = [START_TOKEN, ...tokens];
    const result = await this.step(heard, inputs);
    const logits = floatsOf(result, 'logits');
    const perToken = logits.length / inputs.length;
    const scored: Decoded = { tokens: [...tokens], logProbabilities: [], attention: [] };
    for (let row = 0; row < inputs.length; row++) {
      const here = logits.subarray(row * perToken, (row + 1) * perToken);
      const [chosen, logProbability] = argMax(here, tokenizer.size);
      const token = tokens[row] ?? END_TOKEN;
      scored.logProbabilities.push(logProbability + here[token]! - here[chosen]!);
      scored.attention.push(this.meanAttention(result, row, inputs.length));
    }
    return scored;
  }

  /** Nothing decoded before: as many layers and heads, of the same width, as the values of the sound have. */
  private emptyPast(heard: Known): Known {
    const past: Known = {};
    for (const [name, { dims }] of Object.entries(heard)) {
      if (!name.endsWith('.encoder.value')) continue;
      const [, heads = 0, , width = 0] = dims;
      for (const kind of ['key', 'value']) {
        const none = this.models.runtime.float32(new Float32Array(0), [1, heads, 0, width]);
        past[name.replace('encoder.value', `decoder.${kind}`)] = none;
      }
    }
    return past;
  }

  /** @param kept the first positions of which keys and values are kept, null for all */
  nextPast(result: Known, kept: number | null): Known {
    const past: Known = {};
    for (const [name, tensor] of Object.entries(result)) {
      if (!name.startsWith('present.') || !name.includes('.decoder.')) continue;
      past[name.replace('present', 'past_key_values')] =
        kept === null ? tensor : this.models.runtime.float32(...firstPositions(tensor, kept));
    }
    return past;
  }

  /** Mean over all layers and heads for one of the tokens that went in: one value per encoder frame. */
  private meanAttention(result: Known, row: number, rows: number): Float32Array {
    let mean: Float32Array | null = null;
    let count = 0;
    const chosen = this.models.alignment?.heads;
    let added = 0;
    for (const name of this.attentionNames) {
      const layer = layerOf(name);
      if (chosen && !chosen.some(([l]) => l === layer)) continue;
      const heads = floatsOf(result, name);
      count = result[name]!.dims[1]!;
      const frames = heads.length / count / rows;
      mean ??= new Float32Array(frames);
      for (let head = 0; head < count; head++) {
        if (chosen && !chosen.some(([l, h]) => l === layer && h === head)) continue;
        added++;
        const from = (head * rows + row) * frames;
        for (let frame = 0; frame < frames; frame++) mean[frame]! += heads[from + frame]!;
      }
    }
    if (!mean) throw new Error('The decoder gives no cross-attention: prepare the model files again.');
    return mean.map((value) => value / added);
  }
}

/** "/model/decoder/layers.5/encoder_attn/Softmax_output_0" */
const layerOf = (name: string): number => Number(/layers\.(\d+)/.exec(name)?.[1] ?? 0);

/** The first positions of keys or values of shape [1, heads, positions, width]. */
function firstPositions(tensor: Tensor, kept: number): [data: Float32Array, dims: number[]] {
  const [, heads = 0, positions = 0, width = 0] = tensor.dims;
  const all = tensor.data as Float32Array;
  const data = new Float32Array(heads * kept * width);
  for (let head = 0; head < heads; head++) {
    const from = head * positions * width;
    data.set(all.subarray(from, from + kept * width), head * kept * width);
  }
  return [data, [1, heads, kept, width]];
}

/** Index and log probability of the largest of the first `size` logits (softmax over these). */
export function argMax(logits: Float32Array, size: number): [token: number, logProbability: number] {
  let token = 0;
  let largest = -Infinity;
  for (let i = 0; i < size; i++) {
    if (logits[i]! > largest) {
      largest = logits[i]!;
      token = i;
    }
  }
  let sum = 0;
  // Terms under e^-12 do not show in a confidence: most of the 32,000 are passed over.
  for (let i = 0; i < size; i++) {
    const below = logits[i]! - largest;
    if (below > -12) sum += Math.exp(below);
  }
  return [token, -Math.log(sum)];
}

function indexOfLargest(values: Float32Array): number {
  let best = 0;
  for (let i = 1; i < values.length; i++) if (values[i]! > values[best]!) best = i;
  return best;
}
