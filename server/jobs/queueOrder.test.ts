import fc from 'fast-check';
import { type Candidate, byTurn, soundLength, yieldsTo } from './queueOrder';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const of = (soundMs: number, more: Partial<Candidate> = {}): Candidate => ({
  ...{ soundMs, doneShare: 0, waitedMs: 0, frontAt: null, ...more },
});

describe('the order of transcriptions', () => {
  it('has short recordings before long ones', () => {
    const all = [of(5 * HOUR), of(MINUTE / 2), of(HOUR)];
    expect(all.sort(byTurn).map((c) => c.soundMs)).toEqual([MINUTE / 2, HOUR, 5 * HOUR]);
  });

  it('counts what is left, not what is done', () => {
    expect(byTurn(of(HOUR, { doneShare: 0.95 }), of(10 * MINUTE))).toBeLessThan(0);
  });

  it('puts nothing off for ever', () => {
    expect(byTurn(of(5 * HOUR, { waitedMs: 2.6 * HOUR }), of(MINUTE))).toBeLessThan(0);
  });

  it('has what a person moved to the front first, the latest of them before the others', () => {
    const all = [of(MINUTE), of(HOUR, { frontAt: 1000 }), of(2 * HOUR, { frontAt: 2000 })];
    expect(all.sort(byTurn).map((c) => c.soundMs)).toEqual([2 * HOUR, HOUR, MINUTE]);
  });

  it('is an order: the same whichever way two are compared', () => {
    const candidate = fc.record({
      soundMs: fc.integer({ min: 0, max: 10 * HOUR }),
      doneShare: fc.double({ min: 0, max: 1, noNaN: true }),
      waitedMs: fc.integer({ min: 0, max: 10 * HOUR }),
      frontAt: fc.option(fc.integer({ min: 1, max: 3 })),
    });
    fc.assert(
      fc.property(candidate, candidate, (a, b) => {
        expect(Math.sign(byTurn(a, b)) + Math.sign(byTurn(b, a))).toBe(0);
        // Two that pause for each other would never end.
        expect(yieldsTo(a, b) && yieldsTo(b, a)).toBe(false);
      }),
      { seed: 7 },
    );
  });

  it('lets a memo interrupt a lecture, and not the other way round', () => {
    expect(yieldsTo(of(5 * HOUR), of(MINUTE / 2))).toBe(true);
    expect(yieldsTo(of(MINUTE / 2), of(5 * HOUR))).toBe(false);
    expect(yieldsTo(of(5 * HOUR), of(HOUR))).toBe(false);
    // What is nearly done is not interrupted.
    expect(yieldsTo(of(HOUR, { doneShare: 0.99 }), of(MINUTE / 2))).toBe(false);
  });

  it('guesses the length of a sound from its size where nobody has said it', () => {
    expect(soundLength({ durationMs: 1234, sizeBytes: 1e9 })).toBe(1234);
    expect(soundLength({ durationMs: null, sizeBytes: 480_000 })).toBe(60_000);
  });
});
