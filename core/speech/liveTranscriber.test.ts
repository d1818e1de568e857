import { LiveTranscriber, type LiveUpdate } from './liveTranscriber';
import type { Hint } from './decoder';
import { Recogniser } from './recogniser';
import type { ModelRuntime, ModelSession, Tensor } from './session';
import { FRAME_SAMPLES } from './speechDetector';
import { Tokenizer } from './tokenizer';
import type { TranscriberModels } from './transcriber';

/**
 * A scripted model that hears its own input: every half second of loud sound is one word, whose number stands in the
 * samples (0.5 + n / 1000). So it can be checked that each word that was said is written once, in its place.
 */
const runtime: ModelRuntime = {
  float32: (data, dims) => ({ type: 'float32', data, dims }),
  int64: (data, dims) => ({ type: 'int64', data, dims }),
  open: () => Promise.reject(new Error('Nothing is opened here.')),
};
const session = (run: (feeds: Record<string, Tensor>) => Record<string, Tensor>, outputNames: string[] = []) =>
  ({ inputNames: [], outputNames, run: async (feeds) => run(feeds), release: async () => undefined }) as ModelSession;

const RATE = 16_000;
const WORD_SAMPLES = RATE / 2;
const HOP = 384;
const WORDS = 200;
const END = 2;
const FIRST_WORD = 3;
const PIECES = ['<unk>', '<s>', '</s>', ...Array.from({ length: WORDS }, (_, i) => `▁w${i}`)];
const ATTENTION = 'layers.0/encoder_attn';

function models(): TranscriberModels & { decodings: () => number; steps: () => number } {
  let heard: { word: number; frame: number }[] = [];
  let frames = 0;
  let steps = 0;
  let decodings = 0;
  return {
    runtime,
    tokenizer: new Tokenizer(PIECES),
    decodings: () => decodings,
    steps: () => steps,
    detector: session((feeds) => {
      const samples = feeds['input']!.data as Float32Array;
      const isLoud = samples.subarray(samples.length - FRAME_SAMPLES).some((v) => v > 0.1);
      return { output: runtime.float32(Float32Array.of(isLoud ? 0.95 : 0.02), [1, 1]), stateN: feeds['state']! };
    }),
    encoder: session((feeds) => {
      const samples = feeds['input_values']!.data as Float32Array;
      decodings++;
      frames = Math.ceil(samples.length / HOP);
      heard = [];
      let last = -1;
      let run = 0;
      samples.forEach((value, i) => {
        const word = value > 0.1 ? Math.round((value - 0.5) * 1000) : -1;
        run = word === last ? run + 1 : 0;
        last = word;
        // Half of a word is enough to understand it.
        if (word >= 0 && run === WORD_SAMPLES / 2) heard.push({ word, frame: Math.floor((i - run) / HOP) });
      });
      return { last_hidden_state: runtime.float32(new Float32Array(1), [1]) };
    }),
    crossKeyValues: session(() => ({})),
    // The next word is the one heard after the last that went in; several may go in at once.
    step: session(
      (feeds) => {
        steps++;
        const given = [...(feeds['input_ids']!.data as BigInt64Array)].map((id) => Number(id) - FIRST_WORD);
        const logits = new Float32Array(given.length * PIECES.length).fill(-8);
        const attention = new Float32Array(8 * given.length * frames);
        given.forEach((last, row) => {
          const next = heard[heard.findIndex((h) => h.word === last) + 1];
          logits[row * PIECES.length + (next ? FIRST_WORD + next.word : END)] = 8;
          const focus = next?.frame ?? frames - 1;
          for (let head = 0; head < 8; head++) {
            const from = (head * given.length + row) * frames;
            for (let d = 0; d < 21 && focus + d < frames; d++) attention[from + focus + d] = 1;
          }
        });
        return {
          logits: runtime.float32(logits, [1, given.length, PIECES.length]),
          [ATTENTION]: runtime.float32(attention, [1, 8, given.length, frames]),
          'present.0.decoder.key': runtime.float32(new Float32Array(8 * given.length * 36), [1, 8, given.length, 36]),
        };
      },
      [ATTENTION],
    ),
  };
}

const word = (n: number) => new Float32Array(WORD_SAMPLES).fill(0.5 + n / 1000);
const silence = (seconds: number) => new Float32Array(Math.round(seconds * RATE));

/** Lets the sound arrive in tenths of a second, with time to work after each. */
async function listen(parts: Float32Array[], everyMs = 100) {
  const scripted = models();
  const live = new LiveTranscriber(scripted);
  const updates: (LiveUpdate & { atMs: number })[] = [];
  const sound = Float32Array.from(parts.flatMap((p) => [...p]));
  const size = (RATE * everyMs) / 1000;
  for (let at = 0; at < sound.length; at += size) {
    live.push(sound.subarray(at, at + size));
    const update = await live.advance();
    if (update) updates.push({ ...update, atMs: ((at + size) / RATE) * 1000 });
  }
  live.end();
  for (let update = await live.advance(); update; update = await live.advance()) {
    updates.push({ ...update, atMs: (sound.length / RATE) * 1000 });
  }
  const fixed = updates.flatMap((u) => u.fixed);
  return {
    updates,
    fixed,
    text: fixed.map((w) => w.text.toLowerCase()),
    decodings: scripted.decodings(),
    steps: scripted.steps(),
  };
}

const counting = (from: number, to: number) => Array.from({ length: to - from }, (_, i) => `w${from + i}`);

describe('text while somebody speaks', () => {
  it('writes every word once, in order, when there are pauses', async () => {
    const { text, fixed } = await listen([
      ...[0, 1, 2].map(word),
      silence(1),
      ...[3, 4].map(word),
      silence(2),
      word(5),
      silence(0.2),
    ]);
    expect(text).toEqual(counting(0, 6));
    expect(Math.abs(fixed[3]!.startMs - 2500)).toBeLessThan(200);
    expect(Math.abs(fixed[5]!.startMs - 5500)).toBeLessThan(200);
  });

  it('writes every word once when somebody speaks for a minute without a pause', async () => {
    const { text, updates } = await listen(counting(0, 120).map((_, n) => word(n)));
    expect(text).toEqual(counting(0, 120));
    // What is decoded again and again stays short.
    for (const { fixed, tentative } of updates) expect(fixed.length + tentative.length).toBeLessThanOrEqual(20);
  });

  it('shows a word within a second and a half of its end, before it is fixed', async () => {
    const { updates } = await listen(counting(0, 20).map((_, n) => word(n)));
    for (let n = 0; n < 20; n++) {
      const seen = updates.find((u) => [...u.fixed, ...u.tentative].some((w) => w.text.toLowerCase() === `w${n}`));
      expect(seen!.atMs - (n + 1) * 500).toBeLessThan(1500);
    }
  });

  it('changes nothing that it has fixed, and starts with what is tentative after it', async () => {
    const { updates } = await listen(counting(0, 60).map((_, n) => word(n)));
    let count = 0;
    for (const { fixed, tentative } of updates) {
      for (const w of fixed) expect(w.text.toLowerCase()).toBe(`w${count++}`);
      if (tentative[0]) expect(tentative[0].text.toLowerCase()).toBe(`w${count}`);
    }
  });

  it('decodes nothing in silence', async () => {
    const { updates, decodings } = await listen([silence(20)]);
    expect(updates).toEqual([]);
    expect(decodings).toBe(0);
  });

  it('catches up when the sound has come in faster than it could be worked on', async () => {
    const { text } = await listen(
      counting(0, 80).map((_, n) => word(n)),
      40_000,
    );
    expect(text).toEqual(counting(0, 80));
  });

  it('finds only the new words one by one; what was heard before is checked in one run', async () => {
    const { decodings, steps } = await listen(counting(0, 60).map((_, n) => word(n)));
    // One run for what is known, about one for each new word, one more for the end.
    expect(steps).toBeLessThan(decodings * 4);
  });

  it('goes on after noise in which there are no words', async () => {
    const noise = new Float32Array(RATE * 12).fill(0.11);
    const { text } = await listen([noise, silence(1), word(7), word(8)]);
    expect(text).toEqual(['w7', 'w8']);
  });
});

describe('a hint', () => {
  const sound = Float32Array.from([0, 1, 2, 3].flatMap((n) => [...word(n)]));
  const tokens = (...words: number[]) => words.map((n) => n + FIRST_WORD);
  const recognise = async (hint?: Hint) => {
    const scripted = models();
    const { words } = await new Recogniser(scripted).recognise(sound, () => true, { ...(hint ? { hint } : {}) });
    return {
      text: words.map((w) => w.text).join(' '),
      times: words.map((w) => w.startSeconds),
      steps: scripted.steps(),
    };
  };

  it('that is right saves steps and changes neither words nor times', async () => {
    const without = await recognise();
    const withIt = await recognise({ known: tokens(0), draft: tokens(1, 2, 3) });
    expect(without.text).toBe('w0 w1 w2 w3');
    expect({ ...withIt, steps: 0 }).toEqual({ ...without, steps: 0 });
    expect(withIt.steps).toBeLessThan(without.steps);
  });

  it('that is wrong is corrected from the first wrong word on', async () => {
    expect((await recognise({ known: [], draft: tokens(0, 1, 7, 8) })).text).toBe('w0 w1 w2 w3');
  });

  it('keeps what was known although it would not be heard so', async () => {
    expect((await recognise({ known: tokens(9), draft: tokens(5) })).text).toMatch(/^w9 w0 w1/);
  });
});
