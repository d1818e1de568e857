import type { RecognitionModels } from './decoder';
import { Recogniser } from './recogniser';
import type { ModelRuntime, ModelSession, Tensor } from './session';
import { BLOCK_SAMPLES, FRAME_SAMPLES, SpeechDetector } from './speechDetector';
import { Tokenizer } from './tokenizer';
import { type TranscribedPiece, Transcriber } from './transcriber';

/** Tensors as plain objects: the core needs no more. */
const runtime: ModelRuntime = {
  float32: (data, dims) => ({ type: 'float32', data, dims }),
  int64: (data, dims) => ({ type: 'int64', data, dims }),
  open: () => Promise.reject(new Error('Nothing is opened here.')),
};
const session = (
  run: (feeds: Record<string, Tensor>) => Record<string, Tensor>,
  outputNames: string[] = [],
): ModelSession => ({ inputNames: [], outputNames, run: async (feeds) => run(feeds), release: async () => undefined });

/** Speech wherever the sound is loud. */
const detector = session((feeds) => {
  const [streams, window] = feeds['input']!.dims as [number, number];
  const samples = feeds['input']!.data as Float32Array;
  const output = Float32Array.from({ length: streams }, (_, s) =>
    samples.subarray((s + 1) * window - FRAME_SAMPLES, (s + 1) * window).some((v) => v > 0.1) ? 0.95 : 0.02,
  );
  return { output: runtime.float32(output, [streams, 1]), stateN: feeds['state']! };
});

const PIECES = ['<unk>', '<s>', '</s>', '▁Water', '▁the', '▁lime', 's', '.', '<0xC3>', '<0xA9>', '▁caf'];
const FRAMES = 120;
const ATTENTION = 'layers.0/encoder_attn';

/** A decoder that says these tokens, one after the other, attending further and further unless told to stand still. */
function models(script: number[], { standsStill = false } = {}): RecognitionModels & { steps: () => number } {
  let at = 0;
  return {
    runtime,
    tokenizer: new Tokenizer(PIECES),
    steps: () => at,
    encoder: session(() => {
      at = 0;
      return { last_hidden_state: runtime.float32(new Float32Array(1), [1]) };
    }),
    crossKeyValues: session(() => ({ 'present.0.encoder.key': runtime.float32(new Float32Array(1), [1]) })),
    step: session(() => {
      const token = script[Math.min(at, script.length - 1)]!;
      const logits = new Float32Array(PIECES.length + 8).fill(-5);
      logits[token] = 4;
      // Ids beyond the vocabulary are no pieces, however likely.
      logits[PIECES.length + 3] = 9;
      const attention = new Float32Array(8 * FRAMES);
      const focus = standsStill ? 30 : Math.min(FRAMES - 1, 5 + at * 9);
      for (let head = 0; head < 8; head++) attention[head * FRAMES + focus] = 1;
      at++;
      return {
        logits: runtime.float32(logits, [1, 1, logits.length]),
        [ATTENTION]: runtime.float32(attention, [1, 8, 1, FRAMES]),
      };
    }, [ATTENTION]),
  };
}

const seconds = (n: number, level = 0.5) => new Float32Array(n * 16000).fill(level);
const always = () => true;

describe('the recogniser', () => {
  it('gives words with times in order and the probability of their least sure token', async () => {
    const { words, isDoubtful } = await new Recogniser(models([3, 4, 5, 6, 7, 2])).recognise(seconds(3), always);
    expect(words.map((w) => w.text)).toEqual(['Water', 'the', 'limes.']);
    for (const [i, word] of words.entries()) {
      expect(word.endSeconds).toBeGreaterThanOrEqual(word.startSeconds);
      if (i) expect(word.startSeconds).toBeGreaterThanOrEqual(words[i - 1]!.endSeconds);
      expect(word.confidence).toBeGreaterThan(0.99);
    }
    expect(isDoubtful).toBe(false);
  });

  it('puts bytes together to letters', async () => {
    const { words } = await new Recogniser(models([10, 8, 9, 2])).recognise(seconds(2), always);
    expect(words.map((w) => w.text)).toEqual(['café']);
  });

  it('does not listen to less than a quarter of a second', async () => {
    const quiet = models([3, 2]);
    expect((await new Recogniser(quiet).recognise(seconds(0.2), always)).words).toEqual([]);
    expect(quiet.steps()).toBe(0);
  });

  it('says no more than people can: at most 6.5 tokens a second', async () => {
    const endless = models(Array.from({ length: 200 }, (_, i) => 3 + (i % 3)));
    const { words } = await new Recogniser(endless).recognise(seconds(1), always);
    // One more looks where a mark may be missing.
    expect(endless.steps()).toBeLessThanOrEqual(8);
    expect(words.length).toBeLessThanOrEqual(7);
  });

  it('cuts a loop down to what was said once', async () => {
    const loop = models([4, ...new Array<number>(40).fill(5)], { standsStill: true });
    const { words } = await new Recogniser(loop).recognise(seconds(10), always);
    expect(words.map((w) => w.text)).toEqual(['the', 'lime']);
    expect(loop.steps()).toBeLessThan(10);
  });

  describe('in doubt', () => {
    /** Each token with what may follow it, by logit. */
    const FOLLOWS: Record<number, Record<number, number>> = {
      // "Water" is little likelier than "lime", "caf" or the mark, which begins no word.
      1: { 3: 3, 5: 2.6, 10: 2.2, 7: 2.1, 4: -4 },
      3: { 7: 5 },
      5: { 6: 4, 7: 1 },
      6: { 7: 6 },
      10: { 8: 6 },
      8: { 9: 6 },
      9: { 7: 6 },
      7: { 2: 6 },
    };
    const byLast = (): RecognitionModels => ({
      ...models([2]),
      step: session(
        (feeds) => {
          const inputs = [...(feeds['input_ids']!.data as BigInt64Array)].map(Number);
          const logits = inputs.flatMap((token) => PIECES.map((_, next) => FOLLOWS[token]?.[next] ?? -20));
          const attention = new Float32Array(8 * FRAMES * inputs.length).fill(1 / FRAMES);
          return {
            logits: runtime.float32(Float32Array.from(logits), [1, inputs.length, PIECES.length]),
            [ATTENTION]: runtime.float32(attention, [1, 8, inputs.length, FRAMES]),
          };
        },
        [ATTENTION],
      ),
    });

    it('says what else a word may have been, carried on to its end', async () => {
      const { words } = await new Recogniser(byLast()).recognise(seconds(3), always, { wantsOthers: true });
      expect(words.map((w) => w.text)).toEqual(['Water.']);
      expect(words[0]!.others).toEqual(['limes', 'café']);
    });

    it('says it only when asked, and only of doubtful words', async () => {
      const { words } = await new Recogniser(byLast()).recognise(seconds(3), always);
      expect(words[0]!.others).toBeUndefined();
      const sure = await new Recogniser(models([3, 4, 5, 6, 7, 2])).recognise(seconds(3), always, {
        wantsOthers: true,
      });
      expect(sure.words.every((w) => w.others === undefined)).toBe(true);
    });
  });

  it('has nothing to say when the model ends at once', async () => {
    expect((await new Recogniser(models([2])).recognise(seconds(5), always)).words).toEqual([]);
  });

  it('tells when the model files are not prepared', async () => {
    const { step, ...rest } = models([3, 2]);
    const unprepared = { ...rest, step: { ...step, outputNames: [] } };
    await expect(new Recogniser(unprepared).recognise(seconds(1), always)).rejects.toThrow('prepare the model files');
  });
});

describe('the speech detector', () => {
  it('gives one probability per 32 ms, the same in one block or many', async () => {
    const sound = new Float32Array(BLOCK_SAMPLES + 40 * FRAME_SAMPLES);
    sound.fill(0.5, 100 * FRAME_SAMPLES, 130 * FRAME_SAMPLES);
    sound.fill(0.5, BLOCK_SAMPLES + 3 * FRAME_SAMPLES, BLOCK_SAMPLES + 9 * FRAME_SAMPLES);
    const speech = new SpeechDetector(runtime, detector);
    const first = await speech.push(sound.subarray(0, BLOCK_SAMPLES));
    const second = await speech.push(sound.subarray(BLOCK_SAMPLES));
    expect([first.length, second.length]).toEqual([BLOCK_SAMPLES / FRAME_SAMPLES, 40]);
    const speaks = (p: Float32Array) => [...p].flatMap((v, i) => (v > 0.5 ? [i] : []));
    expect(speaks(first)).toEqual(Array.from({ length: 30 }, (_, i) => 100 + i));
    expect(speaks(second)).toEqual([3, 4, 5, 6, 7, 8]);
  });
});

describe('the transcriber', () => {
  const transcriber = () => new Transcriber({ ...models([3, 4, 5, 6, 7, 2]), detector });

  /** 90 s with speech at 5 to 8 s, 40 to 44 s and 80 to 82 s, in uneven chunks. */
  async function* source(): AsyncGenerator<Float32Array> {
    const sound = new Float32Array(90 * 16000);
    for (const [from, to] of [
      [5, 8],
      [40, 44],
      [80, 82],
    ] as const) {
      sound.fill(0.5, from * 16000, to * 16000);
    }
    for (let i = 0; i < sound.length; i += 12_345) yield sound.subarray(i, i + 12_345);
  }

  it('finds each stretch of speech at its time, over the edges of blocks', async () => {
    const pieces: TranscribedPiece[] = [];
    const progress: number[] = [];
    for await (const piece of transcriber().pieces(source(), { onProgress: (p) => progress.push(p.processedMs) }))
      pieces.push(piece);
    expect(pieces.map((p) => Math.round(p.startMs / 1000))).toEqual([5, 40, 80]);
    for (const piece of pieces) {
      expect(piece.words).toHaveLength(3);
      expect(piece.words[0]!.startMs).toBeGreaterThanOrEqual(piece.startMs);
      expect(piece.words.at(-1)!.endMs).toBeLessThanOrEqual(piece.endMs + 30);
    }
    expect(progress.length).toBeGreaterThan(3);
  });

  it('stops when told to, with the reason', async () => {
    const reason = new Error('cancelled');
    let isAborted = false;
    const signal = {
      get aborted() {
        return isAborted;
      },
      throwIfAborted: () => {
        if (isAborted) throw reason;
      },
    } as AbortSignal;
    const run = async () => {
      for await (const piece of transcriber().pieces(source(), { signal })) {
        expect(piece.words).toHaveLength(3);
        isAborted = true;
      }
    };
    await expect(run()).rejects.toBe(reason);
  });

  it('passes an error of the source on', async () => {
    async function* broken(): AsyncGenerator<Float32Array> {
      yield new Float32Array(100);
      throw new Error('torn');
    }
    const run = async () => {
      for await (const piece of transcriber().pieces(broken())) expect(piece).toBeUndefined();
    };
    await expect(run()).rejects.toThrow('torn');
  });
});
