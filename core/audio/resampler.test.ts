import { Resampler } from './resampler';

const sine = (hertz: number, rate: number, seconds: number) =>
  Float32Array.from({ length: rate * seconds }, (_, i) => Math.sin((2 * Math.PI * hertz * i) / rate));

function inChunks(resampler: Resampler, sound: Float32Array, size: number): Float32Array {
  const parts: number[] = [];
  for (let at = 0; at < sound.length; at += size) parts.push(...resampler.push(sound.subarray(at, at + size)));
  return Float32Array.from(parts);
}

const rms = (values: Float32Array) => Math.sqrt(values.reduce((sum, v) => sum + v * v, 0) / values.length);

describe('the resampler', () => {
  it.each([48_000, 44_100, 22_050, 8000])('keeps a tone of 440 Hz from %i Hz as it is', (rate) => {
    const output = inChunks(new Resampler(rate, 16_000), sine(440, rate, 1), 1000);
    const wanted = sine(440, 16_000, 1);
    const from = 200;
    const differences = output.slice(from).map((v, i) => v - wanted[from + i]!);
    expect(rms(differences)).toBeLessThan(0.01);
    expect(output.length).toBeGreaterThan(16_000 - 60);
    expect(output.length).toBeLessThanOrEqual(16_000);
  });

  it('lets nothing through that the lower rate cannot hold (Nyquist: 8 kHz at 16 kHz)', () => {
    const output = inChunks(new Resampler(48_000, 16_000), sine(11_000, 48_000, 1), 777);
    expect(rms(output.slice(200))).toBeLessThan(0.01);
  });

  it('gives the same whatever the size of the chunks', () => {
    const sound = sine(700, 44_100, 0.5);
    const whole = new Resampler(44_100, 16_000).push(sound);
    const small = inChunks(new Resampler(44_100, 16_000), sound, 128);
    expect(small.length).toBe(whole.length);
    expect(Math.max(...small.map((v, i) => Math.abs(v - whole[i]!)))).toBeLessThan(1e-4);
  });

  it('hands sound on untouched when the rates are the same', () => {
    expect([...new Resampler(16_000, 16_000).push(Float32Array.of(0.5, -0.5))]).toEqual([0.5, -0.5]);
  });
});
