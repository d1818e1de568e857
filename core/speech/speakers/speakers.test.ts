import type { Word } from '../../transcript/manuscript';
import { diarisationError } from './diarisationError';
import { COEFFICIENTS, melOf, mfcc } from './mfcc';
import { Diarizer, identifyVoice } from './diarizer';
import { addFrame, dissimilarity, fromStored, mergedStatistics, emptyStatistics, toStored } from './voiceStatistics';

/** Noise that looks random and is the same every time. */
function noise(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647 - 0.5;
}

/** Something like a voice: noise through two resonances that wander a little, in hertz. */
function voice(seconds: number, formants: readonly [number, number], seed: number): Float32Array {
  const next = noise(seed);
  const samples = new Float32Array(seconds * 16_000);
  const past = [0, 0, 0, 0];
  for (let i = 0; i < samples.length; i++) {
    let value = next();
    for (const [k, hz] of formants.entries()) {
      const wander = 1 + 0.12 * Math.sin((2 * Math.PI * i * (k + 1)) / 3100 + seed);
      const angle = (2 * Math.PI * hz * wander) / 16_000;
      value += 2 * 0.96 * Math.cos(angle) * past[2 * k]! - 0.96 ** 2 * past[2 * k + 1]!;
      past[2 * k + 1] = past[2 * k]!;
      past[2 * k] = value;
    }
    samples[i] = value / 40;
  }
  return samples;
}

const LOW = [420, 1200] as const;
const HIGH = [640, 1900] as const;
const glued = (...parts: Float32Array[]): Float32Array => Float32Array.from(parts.flatMap((p) => [...p]));
/** Words of 400 ms all through so many seconds, a sentence ending every two seconds. */
const talk = (seconds: number): Word[] =>
  Array.from({ length: seconds * 2 }, (_, i) => ({
    ...{ startMs: i * 500, endMs: i * 500 + 400, confidence: 1 },
    text: i % 4 === 3 ? 'word.' : 'word',
  }));

describe('coefficients', () => {
  test('the mel of 1000 Hz is about 1000 (definition of the scale, O’Shaughnessy 1987)', () => {
    expect(melOf(0)).toBe(0);
    expect(melOf(1000)).toBeCloseTo(1000, 0);
  });

  test('one row for each hundredth of a second that has a whole window', () => {
    const rows = mfcc(voice(1, LOW, 3));
    expect(rows).toHaveLength(98);
    expect(rows[0]).toHaveLength(COEFFICIENTS);
  });

  test('loudness does not count', () => {
    const quiet = voice(0.5, LOW, 3);
    const [a, b] = [mfcc(quiet), mfcc(quiet.map((v) => v * 8))];
    a[20]!.forEach((value, i) => expect(b[20]![i]).toBeCloseTo(value, 2));
  });
});

describe('how alike two voices are', () => {
  const statistics = (samples: Float32Array) => {
    const sums = emptyStatistics();
    for (const row of mfcc(samples)) addFrame(sums, row);
    return sums;
  };
  const [low, lowAgain, high] = [voice(4, LOW, 5), voice(4, LOW, 77), voice(4, HIGH, 9)].map(statistics);

  test('the same is not told apart, another is', () => {
    expect(dissimilarity(low!, lowAgain!, 2.5)).toBeLessThan(0);
    expect(dissimilarity(low!, high!, 2.5)).toBeGreaterThan(0);
  });

  test('what is kept of a voice is enough to know it again', () => {
    const kept = [
      { speaker: 'Bram', voice: toStored(low!) },
      { speaker: 'Jun', voice: toStored(high!) },
    ];
    expect(identifyVoice(toStored(lowAgain!), kept)).toBe('Bram');
    expect(identifyVoice(toStored(lowAgain!), kept.slice(1))).toBeNull();
    const long = Array.from({ length: 20 }, () => low!).reduce(mergedStatistics);
    expect(toStored(long).frames).toBe(3000);
    expect(dissimilarity(fromStored(toStored(long)), high!, 2.5)).toBeGreaterThan(0);
  });
});

describe('who speaks', () => {
  test('one person is nobody in particular', () => {
    const finder = new Diarizer();
    finder.push(voice(12, LOW, 2), talk(12));
    expect(finder.find()).toEqual({ speakers: new Array(24).fill(null), voices: [] });
  });

  test('two are told apart and numbered as they begin, over several pieces', () => {
    const finder = new Diarizer();
    for (const seed of [2, 3, 4]) finder.push(glued(voice(4, LOW, seed), voice(4, HIGH, seed * 11)), talk(8));
    const { speakers, voices } = finder.find();
    const turn = (speaker: string) => new Array(8).fill(speaker);
    const both = [...turn('Speaker 1'), ...turn('Speaker 2')];
    expect(speakers).toEqual([...both, ...both, ...both]);
    expect(voices.map((v) => v.speaker)).toEqual(['Speaker 1', 'Speaker 2']);
  });

  test('a change in the middle of a sentence is found to the word or the next', () => {
    const finder = new Diarizer();
    const words = talk(12).map((w) => ({ ...w, text: 'word', endMs: w.startMs + 480 }));
    finder.push(glued(voice(6, LOW, 2), voice(6, HIGH, 8)), words);
    const change = finder.find().speakers.indexOf('Speaker 2');
    expect(Math.abs(change - 12)).toBeLessThanOrEqual(1);
  });

  test('a piece without words and one too short to tell do no harm', () => {
    const finder = new Diarizer();
    finder.push(voice(1, LOW, 2), []);
    expect(finder.find()).toEqual({ speakers: [], voices: [] });
    finder.push(new Float32Array(100), [{ startMs: 0, endMs: 6, text: 'a', confidence: 1 }]);
    expect(finder.find().speakers).toEqual([null]);
  });
});

/** Definition: NIST, The 2009 (RT-09) Rich Transcription Meeting Recognition Evaluation Plan, section 6.1. */
describe('diarisation error', () => {
  const turn = (speaker: string, startMs: number, endMs: number) => ({ speaker, startMs, endMs });
  const truth = [turn('a', 0, 10_000), turn('b', 10_000, 20_000)];

  test('names do not matter, only who is the same', () => {
    expect(diarisationError(truth, [turn('2', 0, 10_000), turn('1', 10_000, 20_000)]).rate).toBe(0);
  });

  test('nothing within a quarter of a second of a border counts', () => {
    expect(diarisationError(truth, [turn('x', 200, 9_800), turn('y', 10_200, 20_200)]).rate).toBe(0);
    expect(diarisationError(truth, [turn('x', 0, 10_200), turn('y', 10_200, 20_000)], 0)).toMatchObject({
      ...{ rate: 0.01, confusedMs: 200, missedMs: 0, falseMs: 0 },
    });
  });

  test('missed, invented and confused time add up over the time of all speakers', () => {
    const error = diarisationError([turn('a', 0, 8000), turn('b', 4000, 8000)], [turn('x', 0, 10_000)], 0);
    expect(error).toMatchObject({ speechMs: 12_000, missedMs: 4000, falseMs: 2000, confusedMs: 0, rate: 0.5 });
  });

  test('one found for two is right for the one who speaks longer', () => {
    const error = diarisationError([turn('a', 0, 6000), turn('b', 6000, 10_000)], [turn('x', 0, 10_000)], 0);
    expect(error).toMatchObject({ confusedMs: 4000, rate: 0.4 });
  });
});
