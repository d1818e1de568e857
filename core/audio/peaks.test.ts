import { PeakMeter, barsOf } from './peaks';

describe('peaks for the strip', () => {
  it('keeps the loudest value of every stretch', () => {
    const meter = new PeakMeter();
    meter.push(Float32Array.from({ length: 1600 }, (_, i) => (i === 900 ? -0.75 : 0.1)));
    expect(meter.peaks()).toEqual([10, 75]);
  });

  it('is bounded whatever the length and does not depend on the portions', () => {
    const sound = Float32Array.from({ length: 3_000_000 }, (_, i) => Math.abs(Math.sin(i / 50_000)));
    const whole = new PeakMeter();
    whole.push(sound);
    const parts = new PeakMeter();
    for (let i = 0; i < sound.length; i += 7777) parts.push(sound.subarray(i, i + 7777));
    expect(whole.peaks().length).toBeLessThanOrEqual(2400);
    expect(parts.peaks()).toEqual(whole.peaks());
    expect(whole.sampleCount).toBe(3_000_000);
  });

  it('draws any number of bars', () => {
    expect(barsOf([1, 5, 2, 8], 2)).toEqual([3, 5]);
    expect(barsOf([3, 4], 4)).toEqual([3, 3, 4, 4]);
    expect(barsOf([], 3)).toEqual([0, 0, 0]);
  });
});
