import { Unfit } from '../working/unfit';
import { densityFactor, depthFactor, heightFactorIn, lightFactor, volumeFactor } from '../home/factors';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { studentQuantile, normalCdf, normalQuantile } from '../chance/normal';
import { normalDraw, seededRandom } from '../chance/random';
import { sampleSize, summarise } from './sample';
import { LATER_SHAPE, seasonShare, seasonTime, sizeAfterSeasons } from './seasons';
import { drawSizes, factorLog, sizeBelief, type SizeSample } from './sizeBelief';
import { grownOver, sizeOn, warmthToSize, type GrowthCurve, type Stretch } from './stretches';

const curveOf = fc.record({
  initial: fc.double({ min: 1, max: 5, noNaN: true }),
  firstTo: fc.double({ min: 10, max: 200, noNaN: true }),
  second: fc.double({ min: 5, max: 200, noNaN: true }),
  later: fc.double({ min: 5, max: 200, noNaN: true }),
  ratePerDd: fc.double({ min: 0.001, max: 0.008, noNaN: true }),
});
/** Three summers of warmth, the second in two homes. */
const summers = (scales: readonly [number, number, number, number]): Stretch[] => [
  { season: 0, from: 0, to: 99, warmFrom: 0, warmTo: 1000, scale: scales[0] },
  { season: 1, from: 200, to: 249, warmFrom: 0, warmTo: 500, scale: scales[1] },
  { season: 1, from: 250, to: 299, warmFrom: 500, warmTo: 1000, scale: scales[2] },
  { season: 2, from: 400, to: 499, warmFrom: 0, warmTo: 1000, scale: scales[3] },
];
const warmthBy = (day: number) => {
  const inSummer = (from: number) => Math.max(0, Math.min(100, day - from + 1)) * 10;
  return inSummer(0) + inSummer(200) + inSummer(400);
};

describe('growth', () => {
  it('in a season is a share that rises from none to all, and its time is its inverse', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 8, noNaN: true }),
        (shape, x) => {
          const share = seasonShare(shape, x);
          expect(seasonShare(shape, 0)).toBeCloseTo(0, 12);
          expect(seasonShare(shape, x + 0.1)).toBeGreaterThanOrEqual(share);
          expect(share).toBeLessThanOrEqual(1);
          if (share < 0.999) expect(seasonShare(shape, seasonTime(shape, share))).toBeCloseTo(share, 8);
        },
      ),
    );
    expect(seasonTime(LATER_SHAPE, 1)).toBe(Infinity);
    expect(() =>
      sizeAfterSeasons({ startSize: 1, seasons: [{ increment: 1, shape: 0, ratePerDd: 1, thermalTime: 1 }] }),
    ).toThrow(Unfit);
  });
  it('goes on in every season, never shrinks, and rests between', () => {
    fc.assert(
      fc.property(curveOf, (curve) => {
        const at = (day: number) => sizeOn(summers([1, 1, 1, 1]), curve, day, warmthBy);
        for (let day = 10; day < 520; day += 10) expect(at(day)).toBeGreaterThanOrEqual(at(day - 10) - 1e-9);
        expect(at(150)).toBeCloseTo(at(99), 12);
        expect(at(299)).toBeGreaterThan(at(150));
        expect(at(499)).toBeGreaterThan(at(350));
        // The first season is the Gompertz curve, the rest are added up.
        const season = (increment: number, shape: number) => ({
          increment,
          shape,
          ratePerDd: curve.ratePerDd,
          thermalTime: 1000,
        });
        const first = season(curve.firstTo - curve.initial, Math.log(curve.firstTo / curve.initial));
        const later = [season(curve.second, LATER_SHAPE), season(curve.later, LATER_SHAPE)];
        expect(at(499)).toBeCloseTo(
          sizeAfterSeasons({ startSize: curve.initial, seasons: [first, ...later] }),
          6,
        );
      }),
    );
  });
  it('takes a new home’s room from the day of the move, and a loss of height from its day', () => {
    const curve: GrowthCurve = { initial: 2.5, firstTo: 50, second: 60, later: 70, ratePerDd: 0.004 };
    const at = (stretches: Stretch[], day: number) => sizeOn(stretches, curve, day, warmthBy);
    const moved = summers([1, 1, 1.5, 1.5]);
    expect(at(moved, 249)).toBeCloseTo(at(summers([1, 1, 1, 1]), 249), 9);
    expect(at(moved, 299)).toBeGreaterThan(at(summers([1, 1, 1, 1]), 299));
    const browsed = summers([1, 1, 1, 1]).map((s, i) => (i === 1 ? { ...s, cut: { keep: 0.6 } } : s));
    expect(at(browsed, 200)).toBeLessThan(0.63 * at(summers([1, 1, 1, 1]), 199));
    const cut = summers([1, 1, 1, 1]).map((s, i) => (i === 3 ? { ...s, cut: { toCm: 30 } } : s));
    expect(at(cut, 400)).toBeLessThan(32);
  });
  it('and the warmth it takes to a size are each other’s inverse', () => {
    fc.assert(
      fc.property(
        curveOf,
        fc.integer({ min: 0, max: 3 }),
        fc.double({ min: 5, max: 300, noNaN: true }),
        (curve, i, wanted) => {
          const stretch = summers([1, 1, 1, 1])[i];
          const warm = warmthToSize(stretch, curve, 4.9, wanted);
          if (!Number.isFinite(warm)) expect(grownOver(stretch, curve, 4.9)).toBeLessThan(wanted + 1e-6);
          else expect(grownOver(stretch, curve, 4.9, warm)).toBeCloseTo(Math.max(4.9, wanted), 5);
        },
      ),
    );
  });
  it('is more in a larger pot of the same depth, and less in shade', () => {
    const pot = (cellMl: number, light?: number) =>
      heightFactorIn({ kind: 'container', name: 'x', cellMl, depthMm: 200, airShare: 0.2, light });
    expect(pot(4000) / pot(50)).toBeCloseTo(volumeFactor(4000) / volumeFactor(50), 9);
    expect(pot(4000)).toBeGreaterThan(pot(1000));
    expect(pot(1000, 0.3)).toBeLessThan(0.7 * pot(1000));
    expect(lightFactor(1)).toBe(1);
    expect(lightFactor(0)).toBeGreaterThan(0);
    expect(() => volumeFactor(0)).toThrow(Unfit);
  });
  it('suffers from shallow and crowded beds', () => {
    expect(depthFactor(75)).toBeCloseTo(1 - 1 / Math.E, 12);
    expect(depthFactor(300)).toBeGreaterThan(depthFactor(150));
    expect(densityFactor(250, 250)).toBeCloseTo(2 ** -0.4, 12);
    expect(densityFactor(400, 250)).toBeLessThan(densityFactor(100, 250));
  });
});

describe('what is believed of a lot’s size', () => {
  const middle: GrowthCurve = { initial: 2.5, firstTo: 40, second: 48, later: 60, ratePerDd: 0.003 };
  const size = (f: number, k: number, warm: number) =>
    grownOver(
      { season: 0, from: 0, to: 200, warmFrom: 0, warmTo: warm, scale: 1 },
      { ...middle, firstTo: 40 * Math.exp(f), ratePerDd: 0.003 * Math.exp(k) },
      2.5,
    );
  const warms = [600, 1000, 1500];
  const samples = (factor: number, n = 15): SizeSample[] =>
    warms.map((warm, i) => ({
      mean: size(factor, 0, warm),
      n,
      sd: 0.25 * size(factor, 0, warm),
      grown: 60 + 40 * i,
      luck: [],
    }));
  const at = (k: number) => (f: number) => warms.map((warm) => Math.log(size(f, k, warm)));
  it('rests wholly on the starting value before any sample', () => {
    const p = sizeBelief(0.3, 0.25, [], 0.25, at);
    expect(p.startingShare).toBe(1);
    expect(p.weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    expect(factorLog(p).mean).toBeCloseTo(0, 9);
  });
  it('moves to what was measured, and narrows', () => {
    const p = sizeBelief(0.3, 0.25, samples(0.4), 0.25, at);
    expect(p.startingShare).toBeLessThan(0.6);
    expect(Math.abs(factorLog(p).mean - 0.4)).toBeLessThan(0.12);
    const few = sizeBelief(0.3, 0.25, samples(0.4, 2), 0.25, at);
    expect(few.startingShare).toBeGreaterThan(p.startingShare);
  });
  it('follows a lot far from its kind: the start has heavy tails', () => {
    const p = sizeBelief(0.3, 0.25, samples(1.1), 0.25, at);
    expect(factorLog(p).mean).toBeGreaterThan(0.8);
  });
  it('draws that stand for it, repeatable', () => {
    const p = sizeBelief(0.3, 0.25, samples(0.2), 0.25, at);
    const a = drawSizes(p, 60);
    expect(a).toEqual(drawSizes(p, 60));
    const mean = a.factor.reduce((t, x) => t + x, 0) / 60;
    expect(Math.abs(mean - factorLog(p).mean)).toBeLessThan(0.05);
  });
});

describe('a sample', () => {
  it('has the mean and spread of its values', () => {
    const s = summarise([10, 12, 14]);
    expect(s).toMatchObject({ n: 3, mean: 12, sd: 2 });
    expect(s.margin).toBeCloseTo((2.92 * 2) / Math.sqrt(3), 2);
    expect(summarise([10]).margin).toBe(Infinity);
  });
  it.each([[[]], [[0]], [[-1, 2]], [[NaN]], [[Infinity]]])('%j is refused', (values) => {
    expect(() => summarise(values)).toThrow(Unfit);
  });
  it('of the advised size has the margin wanted, one smaller has not', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.8, noNaN: true }),
        fc.double({ min: 0.03, max: 0.3, noNaN: true }),
        (cv, margin) => {
          const n = sampleSize(cv, margin);
          const reach = (m: number) => (studentQuantile(0.95, m - 1) * cv) / Math.sqrt(m);
          expect(reach(n)).toBeLessThanOrEqual(margin);
          if (n > 3) expect(reach(n - 2)).toBeGreaterThan(margin * 0.9);
        },
      ),
    );
  });
  it('holds its mean within the margin nine times in ten', () => {
    const random = seededRandom(9);
    let held = 0;
    for (let i = 0; i < 600; i++) {
      const s = summarise(Array.from({ length: 12 }, () => 30 + 6 * normalDraw(random)));
      if (Math.abs(s.mean - 30) <= s.margin) held++;
    }
    expect(held / 600).toBeGreaterThan(0.86);
    expect(held / 600).toBeLessThan(0.94);
  });
});

describe('the normal', () => {
  it('and its quantile are each other’s inverse', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 1 - 1e-6, noNaN: true }), (p) => {
        expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 9);
      }),
    );
    expect(normalQuantile(0.975)).toBeCloseTo(1.959963985, 8);
    expect(studentQuantile(0.95, 11)).toBeCloseTo(1.7959, 3);
    expect(() => normalQuantile(1)).toThrow(Unfit);
  });
});
