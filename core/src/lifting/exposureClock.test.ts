import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { batchIn, COVER_FROM, exposureAt, exposureStates } from './exposureClock';

const START = 1_700_000_000_000;
const after = (minutes: number, stand: number | null) => exposureAt(START, START + minutes * 60_000, stand);

describe('the exposure clock', () => {
  it('warns from three quarters of what roots stand, and says when it is past', () => {
    expect(exposureAt(null, START, 40)).toEqual({ state: 'covered', minutes: 0, left: 40 });
    expect(after(29, 40)).toMatchObject({ state: 'out', left: 11 });
    expect(after(30, 40)).toMatchObject({ state: 'soon', left: 10 });
    expect(after(40, 40)).toMatchObject({ state: 'over', left: 0 });
    expect(after(55, 40)).toMatchObject({ state: 'over', left: -15 });
  });
  it('counts and gives no warning where the air is not known', () => {
    expect(after(500, null)).toEqual({ state: 'out', minutes: 500, left: null });
  });
  it('is not below nothing when the clock was set back', () => {
    expect(exposureAt(START, START - 3_600_000, 40)).toMatchObject({ state: 'out', minutes: 0, left: 40 });
  });
  it('only ever gets worse while roots are out', () => {
    const minutes = fc.double({ min: 0, max: 600, noNaN: true });
    fc.assert(
      fc.property(minutes, minutes, fc.double({ min: 1, max: 120, noNaN: true }), (a, b, stand) => {
        const rank = (m: number) => exposureStates.indexOf(after(m, stand).state);
        expect(rank(Math.min(a, b))).toBeLessThanOrEqual(rank(Math.max(a, b)));
      }),
    );
  });
  it('makes batches that are covered before the warning', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 120, noNaN: true }),
        fc.double({ min: 0.05, max: 5, noNaN: true }),
        (stand, each) => {
          const trees = batchIn(stand, each);
          if (trees > 1) expect(trees * each).toBeLessThanOrEqual(COVER_FROM * stand + 1e-9);
          expect(trees).toBeGreaterThanOrEqual(1);
        },
      ),
    );
  });
});
