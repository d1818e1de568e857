import { LoudnessMeter } from '../loudness';
import { Cleaner, type Cleaning, NO_CLEANING, isCleaning } from './cleaner';

const RATE = 16_000;
const BLOCK = 128;

/** Uniform noise that is the same in every run (a linear congruential generator, Numerical Recipes). */
function noise(length: number, peak: number): Float32Array {
  let state = 12345;
  return Float32Array.from({ length }, () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return peak * (state / 2 ** 31 - 1);
  });
}

/** Something like a voice: a tone with overtones that comes and goes five times in two seconds. */
const voice = (length: number, peak: number): Float32Array =>
  Float32Array.from({ length }, (_, i) => {
    const seconds = i / RATE;
    const loud = Math.max(0, Math.sin(2 * Math.PI * 2.5 * seconds));
    const tone = [150, 300, 450, 900, 1350].reduce((sum, f) => sum + Math.sin(2 * Math.PI * f * seconds), 0) / 5;
    return peak * loud * tone;
  });

const sine = (hertz: number, length: number, peak = 0.3): Float32Array =>
  Float32Array.from({ length }, (_, i) => peak * Math.sin((2 * Math.PI * hertz * i) / RATE));

const sum = (a: Float32Array, b: Float32Array): Float32Array => a.map((v, i) => v + b[i]!);

const rms = (samples: Float32Array): number => Math.sqrt(samples.reduce((s, v) => s + v * v, 0) / samples.length);
const decibels = (ratio: number): number => 20 * Math.log10(ratio);

/** Cleaned in blocks as the sound thread does it, put back to where it was. */
function cleaned(samples: Float32Array, part: Partial<Cleaning>): Float32Array {
  const cleaner = new Cleaner(RATE, { ...NO_CLEANING, ...part });
  const padded = new Float32Array(Math.ceil((samples.length + cleaner.latency) / BLOCK) * BLOCK);
  padded.set(samples);
  const out = new Float32Array(padded.length);
  for (let at = 0; at < padded.length; at += BLOCK) out.set(cleaner.process(padded.subarray(at, at + BLOCK)), at);
  return out.subarray(cleaner.latency, cleaner.latency + samples.length);
}

const loudness = (samples: Float32Array): number => {
  const meter = new LoudnessMeter(RATE);
  meter.push([samples]);
  return meter.integrated();
};

it('changes nothing without a step', () => {
  const samples = voice(RATE, 0.4);
  expect(cleaned(samples, {})).toEqual(samples);
  expect(isCleaning(NO_CLEANING)).toBe(false);
});

it.each([
  ['lowCut', 30, 400],
  ['highCut', 7500, 1000],
] as const)('%s takes %i Hz away and leaves %i Hz', (step, gone, stays) => {
  const length = RATE * 2;
  const after = (hertz: number) =>
    decibels(rms(cleaned(sine(hertz, length), { [step]: 1 }).subarray(RATE)) / rms(sine(hertz, length).subarray(RATE)));
  expect(after(gone)).toBeLessThan(-12);
  expect(Math.abs(after(stays))).toBeLessThan(0.5);
});

it('falls by three decibels at the edge of the low cut', () => {
  // A Butterworth filter has half its power at the edge, by definition.
  const samples = sine(140, RATE * 2);
  const after = cleaned(samples, { lowCut: 1 });
  expect(decibels(rms(after.subarray(RATE)) / rms(samples.subarray(RATE)))).toBeCloseTo(-3.01, 1);
});

it('brings steady noise down and leaves the voice', () => {
  const length = RATE * 8;
  const clean = voice(length, 0.5);
  const hiss = noise(length, 0.02);
  const later = (samples: Float32Array) => samples.subarray(RATE * 4);
  const alone = cleaned(hiss, { noise: 1 });
  expect(decibels(rms(later(alone)) / rms(later(hiss)))).toBeLessThan(-15);
  const loud = noise(length, 0.15);
  const both = cleaned(sum(clean, loud), { noise: 1 });
  const left = both.map((v, i) => v - clean[i]!);
  expect(decibels(rms(later(left)) / rms(later(loud)))).toBeLessThan(-5);
  expect(decibels(rms(later(both)) / rms(later(clean)))).toBeGreaterThan(-2);
});

it('brings noise down by less with less strength', () => {
  const hiss = noise(RATE * 6, 0.02);
  const left = (strength: number) => rms(cleaned(hiss, { noise: strength }).subarray(RATE * 4));
  expect(left(0.25)).toBeGreaterThan(left(0.5));
  expect(left(0.5)).toBeGreaterThan(left(1));
});

it('takes clicks away and leaves the rest as it was', () => {
  const clean = sum(voice(RATE * 2, 0.5), noise(RATE * 2, 0.002));
  const clicked = clean.slice();
  const places = [3000, 9100, 15_777, 22_500, 28_003];
  for (const at of places) for (let i = 0; i < 4; i++) clicked[at + i] = clicked[at + i]! + (i % 2 ? -0.7 : 0.8);
  const mended = cleaned(clicked, { clicks: 0.5 });
  for (const at of places) {
    for (let i = -2; i < 8; i++) expect(Math.abs(mended[at + i]! - clean[at + i]!)).toBeLessThan(0.08);
  }
  const untouched = clean.findIndex((v, i) => Math.abs(mended[i]! - v) > 0.08);
  expect(untouched).toBe(-1);
  expect(rms(cleaned(clean, { clicks: 0.5 }).map((v, i) => v - clean[i]!))).toBeLessThan(0.002);
});

it('brings a quiet and a loud voice to one loudness', () => {
  const half = RATE * 12;
  const samples = new Float32Array(half * 2);
  samples.set(voice(half, 0.03));
  samples.set(voice(half, 0.8), half);
  expect(loudness(samples.subarray(half)) - loudness(samples.subarray(0, half))).toBeGreaterThan(25);
  const even = cleaned(samples, { loudness: 1 });
  const [quiet, loud] = [even.subarray(RATE * 4, half), even.subarray(half + RATE * 4)];
  expect(Math.abs(loudness(quiet) + 23)).toBeLessThan(3);
  expect(Math.abs(loudness(loud) + 23)).toBeLessThan(3);
});

it('does not make a quiet room loud', () => {
  const room = noise(RATE * 5, 0.0005);
  expect(rms(cleaned(room, { loudness: 1 }).subarray(RATE))).toBeCloseTo(rms(room), 5);
});

it('keeps peaks under the ceiling', () => {
  const samples = voice(RATE * 3, 0.02);
  for (let i = 0; i < 200; i++) samples[RATE * 2 + i] = i % 2 ? -0.9 : 0.9;
  expect(cleaned(samples, { loudness: 1 }).reduce((most, v) => Math.max(most, Math.abs(v)), 0)).toBeLessThan(0.892);
});

it('comes through silence and through full scale without a value that is none', () => {
  const all: Cleaning = { clicks: 1, lowCut: 1, highCut: 1, noise: 1, loudness: 1 };
  for (const samples of [new Float32Array(RATE), new Float32Array(RATE).fill(1), noise(RATE, 1)]) {
    expect(cleaned(samples, all).every(Number.isFinite)).toBe(true);
  }
});
