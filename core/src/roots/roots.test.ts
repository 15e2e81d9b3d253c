import { Unfit } from '../working/unfit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { speciesLibrary } from '../species/speciesLibrary';
import { recompute } from '../working/working';
import { BOUND_FILL, FULLEST_FILL, linearIn, READY_FILL, rootClock, rootFill } from './rootFill';
import { plugScores, SCORE_FILL, shootsFromRoots, vigourPosterior, vigoursBeside } from './vigour';

const base = { initialMl: 1.5, cellMl: 150, ratePerDd: 0.0068, linearAtMl: 60, vigour: 1 };
const warmth = fc.array(fc.double({ min: 0, max: 18, noNaN: true }), { minLength: 1, maxLength: 300 });

describe('root fill', () => {
  it('rises day by day and never passes the fullest', () => {
    fc.assert(
      fc.property(
        warmth,
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        fc.integer({ min: 30, max: 3000 }),
        (days, vigour, cellMl) => {
          const { fill, daysToReady, daysToBound } = rootFill({ ...base, vigour, cellMl }, days).value;
          let before = base.initialMl / cellMl;
          for (const f of fill) {
            // To the last digit but one.
            expect(f).toBeGreaterThanOrEqual(before * (1 - 1e-12));
            expect(f).toBeLessThanOrEqual(FULLEST_FILL + 1e-9);
            before = f;
          }
          if (daysToReady !== null) expect(fill[daysToReady - 1]).toBeGreaterThanOrEqual(READY_FILL);
          if (daysToBound !== null) {
            expect(fill[daysToBound - 1]).toBeGreaterThanOrEqual(BOUND_FILL);
            expect(daysToReady).toBeLessThanOrEqual(daysToBound);
          }
        },
      ),
    );
  });
  it('is what very small steps of its equation come to', () => {
    const { initialMl, cellMl, linearAtMl } = base;
    const steps = 200_000;
    const heat = 5;
    let r = initialMl;
    for (let i = 0; i < steps; i++)
      r += ((heat / steps) * r * (1 - r / (FULLEST_FILL * cellMl))) / (1 + r / linearAtMl);
    const clock = rootClock(cellMl, linearAtMl);
    expect(clock.rootsAt(clock.at(initialMl) + heat) / r).toBeCloseTo(1, 4);
  });
  it('finds the roots that any warmth brings, from a speck to a cell full', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-6, max: 0.999999, noNaN: true }),
        fc.double({ min: 5, max: 20_000, noNaN: true }),
        fc.double({ min: 1, max: 2_000, noNaN: true }),
        (share, cellMl, linearAtMl) => {
          const clock = rootClock(cellMl, linearAtMl);
          const rootMl = share * FULLEST_FILL * cellMl;
          expect(clock.rootsAt(clock.at(rootMl)) / rootMl).toBeCloseTo(1, 8);
        },
      ),
    );
  });
  it('comes sooner with vigour and later in a larger cell', () => {
    const days = new Array<number>(400).fill(9);
    const ready = (p: Partial<typeof base>) => rootFill({ ...base, ...p }, days).value.daysToReady!;
    expect(ready({ vigour: 1.3 })).toBeLessThan(ready({}));
    expect(ready({ cellMl: 350 })).toBeGreaterThan(ready({}));
  });
  it('does not grow on days without warmth', () => {
    const { fill } = rootFill(base, [0, 0, 0]).value;
    expect([...fill]).toEqual([0.01, 0.01, 0.01]);
  });
  it('shows a last day that anyone can do again', () => {
    const { working, value } = rootFill(base, new Array<number>(90).fill(8));
    for (const step of working)
      if (step.expression) expect(recompute(step.expression)).toBeCloseTo(step.result as number, 4);
    expect(working.at(-1)!.result).toBe(value.last);
  });
  it('needs every figure above 0', () => {
    for (const key of ['initialMl', 'cellMl', 'ratePerDd', 'linearAtMl', 'vigour'] as const) {
      expect(() => rootFill({ ...base, [key]: 0 }, [1])).toThrow(Unfit);
      expect(() => rootFill({ ...base, [key]: NaN }, [1])).toThrow(Unfit);
    }
  });
});

describe('vigour from pulled plugs', () => {
  const days = new Array<number>(180).fill(9);
  const { vigour: _, ...parameters } = base;
  const scoreAt = (vigour: number, day: number) => {
    const { fill } = rootFill({ ...base, vigour }, days.slice(0, day + 1)).value;
    const at = fill[day];
    return SCORE_FILL.reduce(
      (best, f, score) => (Math.abs(f - at) < Math.abs(SCORE_FILL[best] - at) ? score : best),
      0,
    );
  };
  it('is the starting value before any is pulled', () => {
    const p = vigourPosterior(parameters, days, []);
    expect(p.startingShare).toBe(1);
    // A Student t's tails lift the mean a little over a normal's.
    expect(p.mean).toBeGreaterThan(Math.exp(0.35 ** 2 / 2));
    expect(p.mean).toBeLessThan(1.1);
  });
  it.each([0.7, 1, 1.4])('finds a lot of vigour %f', (truth) => {
    const pulls = [70, 90, 110].map((dayIndex) => ({
      dayIndex,
      scores: [scoreAt(truth, dayIndex), scoreAt(truth, dayIndex)],
    }));
    const p = vigourPosterior(parameters, days, pulls);
    expect(Math.abs(p.mean - truth)).toBeLessThan(0.18);
    // A slow lot's early plugs are loose, which says little; and one judge's eye is in all of them.
    expect(p.startingShare).toBeLessThan(0.85);
  });
  it('falls with looser plugs and rises with tighter ones', () => {
    const mean = (score: number) =>
      vigourPosterior(parameters, days, [{ dayIndex: 90, scores: [score, score, score] }]).mean;
    for (let score = 1; score < plugScores.length; score++)
      expect(mean(score)).toBeGreaterThan(mean(score - 1));
  });
  it('is drawn beside the shoots: taller lots have faster roots, plugs or none', () => {
    const shoots = Float64Array.from({ length: 40 }, (_, d) => (d < 20 ? -1 : 1));
    const order = Array.from({ length: 40 }, (_, d) => (d * 7) % 40);
    const half = (draws: Float64Array, from: number) =>
      draws.slice(from, from + 20).reduce((t, x) => t + Math.log(x), 0) / 20;
    for (const pulls of [[], [{ dayIndex: 90, scores: [2, 2, 3] }]]) {
      const draws = vigoursBeside(vigourPosterior(parameters, days, pulls), shoots, order);
      expect(half(draws, 20)).toBeGreaterThan(half(draws, 0));
    }
    const p = vigourPosterior(parameters, days, [{ dayIndex: 90, scores: [2, 2, 3] }]);
    const draws = vigoursBeside(p, new Float64Array(40), order);
    expect(draws.reduce((a, b) => a + b, 0) / 40).toBeCloseTo(p.mean, 1);
    expect(shootsFromRoots(vigourPosterior(parameters, days, []))).toBeNull();
    const said = shootsFromRoots(vigourPosterior(parameters, days, [{ dayIndex: 60, scores: [4, 4, 4] }]))!;
    expect(said(1)).toBeGreaterThan(said(-1));
  });
  it('is not overturned by one plug that fits nothing', () => {
    const usual = [70, 90, 110].map((dayIndex) => ({
      dayIndex,
      scores: [scoreAt(1, dayIndex), scoreAt(1, dayIndex)],
    }));
    const odd = vigourPosterior(parameters, days, [...usual, { dayIndex: 30, scores: [4] }]);
    expect(odd.mean / vigourPosterior(parameters, days, usual).mean).toBeLessThan(1.25);
  });
  it('takes no notice of pulls before it came up', () => {
    expect(vigourPosterior(parameters, days, [{ dayIndex: -3, scores: [4] }]).mean).toBe(
      vigourPosterior(parameters, days, []).mean,
    );
  });
});

describe('plugs pulled on the day of a move', () => {
  const days = new Array<number>(120).fill(9);
  const moved = [{ dayIndex: 100, cellMl: 2 * base.cellMl }];
  const mean = (before: boolean) =>
    vigourPosterior(base, days, [{ dayIndex: 100, scores: [3, 3, 3], before }], moved).mean;
  it('are read in the cell they were pulled from', () => {
    // Tight plugs of a small cell are ordinary; of a large one they would be a wonder.
    expect(mean(true)).toBeLessThan(mean(false));
    expect(mean(true)).toBeCloseTo(
      vigourPosterior(base, days, [{ dayIndex: 100, scores: [3, 3, 3] }]).mean,
      6,
    );
  });
});

describe('root fill at a steady 22 °C', () => {
  const days = (n: number, base = 5) => new Array<number>(n).fill(22 - base);
  const fillOf = (code: string, cellMl: number, n: number) => {
    const { values: v } = speciesLibrary.find((s) => s.code === code)!;
    return rootFill(
      {
        initialMl: v.rootInitialMl,
        cellMl,
        ratePerDd: v.rootRatePerDd,
        linearAtMl: linearIn(v.rootLinearAtMl, cellMl),
        vigour: 1,
      },
      days(n, v.growthBaseC),
    ).value;
  };
  it('is as growers of warm countries find it', () => {
    // A fast legume fills a tube near four months, holds about two more; smaller ones are root-bound by six.
    const tube = fillOf('AML', 160, 400);
    expect(tube.daysToReady! / 30.4).toBeGreaterThan(3.2);
    expect(tube.daysToReady! / 30.4).toBeLessThan(4.8);
    expect((tube.daysToBound! - tube.daysToReady!) / 30.4).toBeGreaterThan(1.2);
    expect(fillOf('AML', 120, 400).daysToBound! / 30.4).toBeLessThan(6);
    // A vigorous seedling in a small slit cell: near ten weeks.
    expect(fillOf('ALN', 65, 200).daysToReady! / 7).toBeGreaterThan(7.5);
    expect(fillOf('ALN', 65, 200).daysToReady! / 7).toBeLessThan(12);
    // Slow kinds take the better part of a year in a litre.
    expect(fillOf('MIN', 1000, 900).daysToReady! / 30.4).toBeGreaterThan(8);
    expect(fillOf('MIN', 1000, 900).daysToReady! / 30.4).toBeLessThan(13);
  });
  it('of a large pot takes about a season after a shift, not several', () => {
    const { values: v } = speciesLibrary.find((s) => s.code === 'ALN')!;
    // A season of a cool country, from a plug that filled its tube.
    const season = new Array<number>(150).fill(9.5);
    const after = (seasons: number) =>
      rootFill(
        {
          initialMl: 150,
          cellMl: 4000,
          ratePerDd: v.rootRatePerDd,
          linearAtMl: linearIn(v.rootLinearAtMl, 4000),
          vigour: 1,
        },
        Array.from({ length: seasons }, () => season).flat(),
      ).value.last;
    expect(after(1)).toBeGreaterThan(0.35);
    expect(after(2)).toBeGreaterThan(READY_FILL);
  });
});
