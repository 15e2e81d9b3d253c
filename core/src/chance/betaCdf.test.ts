import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { betaCdf, betaQuantile, jeffreys } from './betaCdf';

const weight = fc.double({ min: 0.3, max: 400, noNaN: true });
const share = fc.double({ min: 0.001, max: 0.999, noNaN: true });

describe('the chance of a share', () => {
  it('is x for an even one, x² for Beta(2, 1), and the binomial tail for whole weights', () => {
    expect(betaCdf(0.3, { alpha: 1, beta: 1 })).toBeCloseTo(0.3, 12);
    expect(betaCdf(0.3, { alpha: 2, beta: 1 })).toBeCloseTo(0.09, 12);
    // P(Beta(3, 5) ≤ 0.4) = P(Binomial(7, 0.4) ≥ 3)
    const choose = [1, 7, 21, 35, 35, 21, 7, 1];
    const tail = choose.reduce((t, c, k) => t + (k >= 3 ? c * 0.4 ** k * 0.6 ** (7 - k) : 0), 0);
    expect(betaCdf(0.4, { alpha: 3, beta: 5 })).toBeCloseTo(tail, 12);
  });
  it('has both tails, rises, and is undone by its quantile', () => {
    fc.assert(
      fc.property(weight, weight, share, share, (alpha, beta, x, y) => {
        const at = betaCdf(x, { alpha, beta });
        expect(at + betaCdf(1 - x, { alpha: beta, beta: alpha })).toBeCloseTo(1, 9);
        expect(betaCdf(Math.max(x, y), { alpha, beta })).toBeGreaterThanOrEqual(
          betaCdf(Math.min(x, y), { alpha, beta }) - 1e-9,
        );
        const q = betaQuantile(x, { alpha, beta });
        expect(betaCdf(q, { alpha, beta })).toBeCloseTo(x, 6);
      }),
      { numRuns: 300 },
    );
  });
  it('is refused without weights, and Jeffreys starts from a half each way', () => {
    expect(() => betaCdf(0.5, { alpha: 0, beta: 1 })).toThrow(/above 0/);
    expect(jeffreys(0, 0)).toEqual({ alpha: 0.5, beta: 0.5 });
  });
});
