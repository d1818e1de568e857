import { type ModelRuntime, type ModelSession, type Tensor, floatsOf } from './session';

/** Samples of one frame at 16 kHz: the model gives one speech probability for each 32 ms. */
export const FRAME_SAMPLES = 512;
export const FRAME_SECONDS = FRAME_SAMPLES / 16000;

const CONTEXT_SAMPLES = 64;
const STATE_SIZE = 128;
/** Frames of lead-in that warm up the state of a stream that starts in the middle of the sound. */
const LEAD_IN_FRAMES = 31;
/** The graph runs several stretches of one block side by side: a third of the time of one after the other. */
const STREAMS = 8;
const FRAMES_PER_STREAM = 256;
/** The block that `push` works through at once: about 65 s. */
export const BLOCK_SAMPLES = STREAMS * FRAMES_PER_STREAM * FRAME_SAMPLES;
const TAIL_SAMPLES = LEAD_IN_FRAMES * FRAME_SAMPLES + CONTEXT_SAMPLES;

/**
 * Speech probabilities of a long sound, block by block, in bounded memory.
 * Model: the recurrent speech detector in `@ricky0123/vad-web` (512 new samples after 64 samples of context).
 */
export class SpeechDetector {
  private tail = new Float32Array(TAIL_SAMPLES);

  constructor(
    private readonly runtime: ModelRuntime,
    private readonly model: ModelSession,
  ) {}

  /**
   * @param block 16 kHz mono samples in [-1, 1], at most BLOCK_SAMPLES; a shorter one only at the end of the sound
   * @returns one probability per frame, the last frame padded with silence
   */
  async push(block: Float32Array): Promise<Float32Array> {
    const frames = Math.ceil(block.length / FRAME_SAMPLES);
    const streams = frames > STREAMS * LEAD_IN_FRAMES ? STREAMS : 1;
    const perStream = Math.ceil(frames / streams);
    const sound = new Float32Array(TAIL_SAMPLES + streams * perStream * FRAME_SAMPLES);
    sound.set(this.tail);
    sound.set(block, TAIL_SAMPLES);

    const window = CONTEXT_SAMPLES + FRAME_SAMPLES;
    const input = new Float32Array(streams * window);
    const rate = this.runtime.int64(BigInt64Array.of(16000n), []);
    let state = this.runtime.float32(new Float32Array(2 * streams * STATE_SIZE), [2, streams, STATE_SIZE]);
    const probabilities = new Float32Array(frames);
    for (let step = -LEAD_IN_FRAMES; step < perStream; step++) {
      for (let s = 0; s < streams; s++) {
        const from = TAIL_SAMPLES - CONTEXT_SAMPLES + (s * perStream + step) * FRAME_SAMPLES;
        input.set(sound.subarray(from, from + window), s * window);
      }
      const result = await this.model.run({ input: this.runtime.float32(input, [streams, window]), state, sr: rate });
      state = result['stateN']!;
      if (step < 0) continue;
      const output = floatsOf(result, 'output');
      for (let s = 0; s < streams; s++) {
        const frame = s * perStream + step;
        if (frame < frames) probabilities[frame] = output[s]!;
      }
    }
    this.tail = sound.slice(block.length, block.length + TAIL_SAMPLES);
    return probabilities;
  }
}

/** The same detector for sound that arrives bit by bit: it goes on from where it was. */
export class SpeechStream {
  private readonly input = new Float32Array(CONTEXT_SAMPLES + FRAME_SAMPLES);
  private state: Tensor;

  constructor(
    private readonly runtime: ModelRuntime,
    private readonly model: ModelSession,
  ) {
    this.state = runtime.float32(new Float32Array(2 * STATE_SIZE), [2, 1, STATE_SIZE]);
  }

  /**
   * @param frames 16 kHz mono samples, whole frames of FRAME_SAMPLES
   * @returns one probability of speech per frame
   */
  async push(frames: Float32Array): Promise<Float32Array> {
    const rate = this.runtime.int64(BigInt64Array.of(16000n), []);
    const probabilities = new Float32Array(Math.floor(frames.length / FRAME_SAMPLES));
    for (let i = 0; i < probabilities.length; i++) {
      this.input.copyWithin(0, FRAME_SAMPLES);
      this.input.set(frames.subarray(i * FRAME_SAMPLES, (i + 1) * FRAME_SAMPLES), CONTEXT_SAMPLES);
      const input = this.runtime.float32(this.input.slice(), [1, this.input.length]);
      const result = await this.model.run({ input, state: this.state, sr: rate });
      this.state = result['stateN']!;
      probabilities[i] = floatsOf(result, 'output')[0]!;
    }
    return probabilities;
  }
}
