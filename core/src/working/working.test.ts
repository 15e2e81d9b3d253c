import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { put, recompute, sum } from './working';

describe('working', () => {
  it.each([
    ['2 + 3 × 4', 14],
    ['(2 + 3) × 4', 20],
    ['2 ^ 3 ^ 2', 512],
    ['10 − 4 − 3', 3],
    ['12 ÷ 4 ÷ 3', 1],
    ['(−2) × 3', -6],
    ['exp(ln(5))', 5],
    ['max(0, 1 − 3)', 0],
    ['min(4, 2) + floor(3.9) + sqrt(16)', 9],
    ['1.5e-3 × 1000', 1.5],
  ])('%s = %f', (text, value) => expect(recompute(text)).toBeCloseTo(value, 12));

  it.each(['', '2 +', '(2', 'two', '2 2', 'system(1)', '1;2'])('refuses “%s”', (text) => {
    expect(() => recompute(text)).toThrow();
  });

  it('writes numbers so that they read back to seven figures', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e8, max: 1e8, noNaN: true }), (x) => {
        expect(Math.abs(recompute(put(x)) - x)).toBeLessThanOrEqual(1e-6 * Math.abs(x));
      }),
    );
  });

  it('puts numbers into a sum', () => {
    expect(sum`${2} × ${-3} + ${0.1 + 0.2}`).toBe('2 × (−3) + 0.3');
  });
});
