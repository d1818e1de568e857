import { Biquad } from './biquad';
import { LoudnessMeter, kWeighting } from './loudness';

const RATE = 48_000;
/** Peak of full scale decibels of a sine wave. */
const peakOf = (decibels: number) => 10 ** (decibels / 20);

type Stretch = [decibels: number, seconds: number];

function measured(stretches: readonly Stretch[], { hertz = 1000, channels = 2, rate = RATE } = {}): number {
  const meter = new LoudnessMeter(rate, channels);
  let at = 0;
  for (const [decibels, seconds] of stretches) {
    const sine = Float32Array.from(
      { length: Math.round(seconds * rate) },
      (_, i) => peakOf(decibels) * Math.sin((2 * Math.PI * hertz * (at + i)) / rate),
    );
    at += sine.length;
    meter.push(Array.from({ length: channels }, () => sine));
  }
  return meter.integrated();
}

// Tables 1 and 2 of ITU-R BS.1770-4, annex 1 (noted from memory): the filters at 48 kHz.
it('has the filters that the standard prints for 48 kHz', () => {
  const [shelf, highPass] = kWeighting(RATE);
  expect(shelf.b0).toBeCloseTo(1.53512485958697, 8);
  expect(shelf.b1).toBeCloseTo(-2.69169618940638, 8);
  expect(shelf.b2).toBeCloseTo(1.19839281085285, 8);
  expect(shelf.a1).toBeCloseTo(-1.69065929318241, 8);
  expect(shelf.a2).toBeCloseTo(0.73248077421585, 8);
  expect(highPass.a1).toBeCloseTo(-1.99004745483398, 8);
  expect(highPass.a2).toBeCloseTo(0.99007225036621, 8);
});

// ITU-R BS.1770-4, annex 1: 997 Hz at 0 dB of full scale in one channel reads -3.01 LKFS.
it('reads -3.01 for a full sine wave in one channel', () => {
  expect(measured([[0, 5]], { hertz: 997, channels: 1 })).toBeCloseTo(-3.01, 2);
});

// EBU Tech 3341, "Minimum requirements test signals", cases 1 to 5 (noted from memory): 1 kHz in both channels, ±0.1 LU.
it.each<[string, Stretch[], number]>([
  ['1', [[-23, 20]], -23],
  ['2', [[-33, 20]], -33],
  ['3', [[-36, 10], [-23, 60], [-36, 10]], -23], // prettier-ignore
  ['4', [[-72, 10], [-36, 10], [-23, 60], [-36, 10], [-72, 10]], -23], // prettier-ignore
  ['5', [[-26, 20], [-20, 20.1], [-26, 20]], -23], // prettier-ignore
])('measures signal %s of EBU Tech 3341', (_, stretches, expected) => {
  expect(Math.abs(measured(stretches) - expected)).toBeLessThan(0.1);
});

it.each([16_000, 44_100])('measures the same at %i samples per second', (rate) => {
  expect(Math.abs(measured([[-23, 10]], { rate }) + 23)).toBeLessThan(0.1);
});

it('says so when there is nothing to measure', () => {
  expect(new LoudnessMeter(RATE).integrated()).toBe(-Infinity);
  expect(measured([[-90, 3]])).toBe(-Infinity);
});

it('does not let a filter drift on silence', () => {
  const filter = new Biquad(kWeighting(RATE)[1]);
  filter.step(1);
  let last = 1;
  for (let i = 0; i < RATE; i++) last = filter.step(0);
  expect(Math.abs(last)).toBeLessThan(1e-6);
});
