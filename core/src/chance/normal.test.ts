import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normalCdf, normalCdfFast, normalQuantile } from './normal';

describe('the normal distribution', () => {
  it('from a table is what it is from its series, to a millionth', () => {
    fc.assert(
      fc.property(fc.double({ min: -9, max: 9, noNaN: true }), (z) => {
        expect(Math.abs(normalCdfFast(z) - normalCdf(z))).toBeLessThan(1e-6);
      }),
    );
  });
  it('has its quantile for an inverse', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-4, max: 1 - 1e-4, noNaN: true }), (p) => {
        expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 6);
      }),
    );
  });
});
