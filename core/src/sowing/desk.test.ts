import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { betaMean } from '../chance/beta';
import { gammaDraw, seededRandom } from '../chance/random';
import { startingSpecies } from '../species/startingSpecies';
import { dayOf } from '../calendar/day';
import { weatherOutlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { warmthOf } from '../weather/sums';
import { recompute } from '../working/working';
import { bedSowing, collarAtDensity, densityForCollar, rowSpacingFor } from './bedSowing';
import { massesOf } from './betaBinomial';
import { bestSeedsPerCell, cellOutcome, seedsPerCellTable } from './cellOutcome';
import { chanceMeanHigher, chancesBest, compareShares } from './compareTreatments';
import { emergedShare, fitEmergence, isLate, warmthToShare } from './emergenceCurve';
import { emergenceOutlook, meanWarmth } from './emergenceOutlook';
import { lotShares } from './lotShares';
import { ownShare, pooledShare } from '../chance/pooledShare';
import { seedsToSow, sowingOutlook, treesFrom } from './seedsToSow';
import { sowingPlan, type SowingAsk } from './sowingPlan';

/** How many of a tray come up whose own share lies about p as trays do (ρ = 0.03). */
function trayCount(random: () => number, p: number, n: number): number {
  const weight = 1 / 0.03 - 1;
  const x = gammaDraw(random, p * weight, 1);
  const own = x / (x + gammaDraw(random, (1 - p) * weight, 1));
  let k = 0;
  for (let i = 0; i < n; i++) if (random() < own) k++;
  return k;
}

const birch = startingSpecies[0].values;
const unit = fc.double({ min: 0.02, max: 0.98, noNaN: true });

describe('shares pooled over lots', () => {
  it('lie between the starting value and the lots, and one big lot does not speak for all', () => {
    const start = { alpha: 12, beta: 8 };
    const big = pooledShare(start, [{ k: 9000, n: 10_000 }]);
    expect(betaMean(big.beta)).toBeGreaterThan(0.6);
    expect(betaMean(big.beta)).toBeLessThan(0.85);
    const many = pooledShare(
      start,
      Array.from({ length: 20 }, () => ({ k: 90, n: 100 })),
    );
    expect(betaMean(many.beta)).toBeGreaterThan(betaMean(big.beta));
    expect(many.startingShare).toBeLessThan(big.startingShare);
    expect(pooledShare(start, [])).toMatchObject({ origin: 'starting', startingShare: 1, lots: 0 });
    expect(() => pooledShare(start, [{ k: 3, n: 2 }])).toThrow(/3 of 2/);
  });

  it('come from a lot’s ledger, takings-back taken off', () => {
    const shares = lotShares([
      { from: 'supply', to: 'seed', count: 100 },
      { from: 'seed', to: 'sown', count: 100 },
      { from: 'sown', to: 'standing', count: 70 },
      { from: 'standing', to: 'sown', count: 10 },
      { from: 'standing', to: 'out:drought', count: 6 },
      { from: 'standing', to: 'lifted', count: 45 },
      { from: 'standing', to: 'out:culled', count: 5 },
    ]);
    expect(shares).toEqual({
      sown: 100,
      up: 60,
      established: { k: 54, n: 60 },
      grade: { k: 45, n: 50 },
      emergenceOver: true,
    });
  });
});

describe('the sowing desk', () => {
  const ask = (more: Partial<SowingAsk> = {}): SowingAsk => ({
    target: 2000,
    probability: 0.9,
    chain: {
      viability: pooledShare(birch.viability, []),
      emergence: pooledShare(birch.emergence, []),
      establishment: pooledShare(birch.establishment, []),
      grade: pooledShare(birch.grade, []),
    },
    seedsPerKg: birch.seedsPerKg,
    seedsHeld: null,
    pricePerKg: 200,
    ...more,
  });

  it('gives seeds, grams and odds that hang together, and every sum recomputes', () => {
    const { value, working } = sowingPlan(ask());
    const stages = Object.values(ask().chain).map((link) => link.next);
    expect(value.seeds).toBe(seedsToSow({ target: 2000, probability: 0.9, stages }).value);
    expect(value.outlook.chance).toBeGreaterThanOrEqual(0.9);
    expect(value.grams).toBeCloseTo((value.seeds / birch.seedsPerKg) * 1000);
    expect(value.cost).toBeCloseTo((value.seeds / birch.seedsPerKg) * 200);
    for (let i = 1; i < value.curve.length; i++)
      expect(value.curve[i].chance).toBeGreaterThanOrEqual(value.curve[i - 1].chance - 1e-9);
    for (const step of working)
      if (step.expression) expect(recompute(step.expression) / (step.result as number)).toBeCloseTo(1, 5);
  });

  it('one more test saves seed where little is known, and hardly any where much is', () => {
    const unsure = sowingPlan(
      ask({ chain: { ...ask().chain, viability: ownShare({ alpha: 3, beta: 3 }, 0, 1) } }),
    );
    const sure = sowingPlan(
      ask({ chain: { ...ask().chain, viability: ownShare({ alpha: 300, beta: 300 }, 6, 0.1) } }),
    );
    expect(unsure.value.test.seeds).toBeGreaterThan(sure.value.test.seeds);
    expect(sure.value.test.seeds).toBeLessThan(0.05 * sure.value.seeds);
  });

  it('says how many are short of what is held', () => {
    const plan = sowingPlan(ask({ seedsHeld: 1000 })).value;
    expect(plan.short).toBe(plan.seeds - 1000);
    expect(sowingPlan(ask({ seedsHeld: 1e9 })).value.short).toBe(0);
  });

  it('keeps its promise in simulation: the target is met about as often as said', () => {
    const random = seededRandom(11);
    const drawBeta = ({ alpha, beta }: { alpha: number; beta: number }) => {
      const x = gammaDraw(random, alpha, 1);
      return x / (x + gammaDraw(random, beta, 1));
    };
    const stages = Object.values(ask().chain).map((link) => link.next);
    fc.assert(
      fc.property(fc.constantFrom(50, 200, 500), fc.constantFrom(0.7, 0.8, 0.9), (target, probability) => {
        const seeds = sowingPlan(ask({ target, probability })).value.seeds;
        let met = 0;
        const trials = 1500;
        for (let t = 0; t < trials; t++) {
          const p = stages.reduce((share, s) => share * drawBeta(s), 1);
          // Normal in place of the binomial: the spread between lots is far larger than within.
          const sd = Math.sqrt(seeds * p * (1 - p));
          const trees =
            seeds * p + sd * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
          if (trees >= target - 0.5) met++;
        }
        expect(Math.abs(met / trials - probability)).toBeLessThan(0.05);
      }),
      { numRuns: 9 },
    );
  });

  it('the chances of a test’s results sum to one', () => {
    fc.assert(
      fc.property(unit, fc.integer({ min: 2, max: 300 }), (mean, weight) => {
        const masses = massesOf(50, { alpha: mean * weight, beta: (1 - mean) * weight });
        expect(masses.reduce((t, m) => t + m, 0)).toBeCloseTo(1, 8);
      }),
    );
  });
});

describe('seeds in cells', () => {
  it('account for every cell and every seedling', () => {
    fc.assert(
      fc.property(unit, fc.integer({ min: 1, max: 8 }), fc.integer({ min: 1, max: 5000 }), (p, s, cells) => {
        const { value, working } = cellOutcome({ emergence: p, seedsPerCell: s, cells });
        expect(value.empty + value.single + value.multiple).toBeCloseTo(cells, 6);
        expect(value.extra + value.single + value.multiple).toBeCloseTo(cells * s * p, 5);
        for (const step of working)
          expect(Math.abs(recompute(step.expression!) - (step.result as number))).toBeLessThan(
            1e-3 * cells + 1e-6,
          );
      }),
      { numRuns: 60 },
    );
  });
  it('more seeds a cell pay when seed is cheap, one when it is dear', () => {
    const cost = { seed: 0.0001, cell: 0.25, minute: 0.3, thinSeconds: 1.5, transplantSeconds: 6 };
    const cheap = bestSeedsPerCell(seedsPerCellTable(0.5, 1000, cost, false));
    const dear = bestSeedsPerCell(seedsPerCellTable(0.9, 1000, { ...cost, seed: 1 }, false));
    expect(cheap.seedsPerCell).toBeGreaterThan(1);
    expect(dear.seedsPerCell).toBe(1);
    const [row] = seedsPerCellTable(0.5, 1000, cost, true).slice(1, 2);
    expect(row.filled).toBeGreaterThan(1000 - row.outcome.empty);
  });
  it.each([
    [{ emergence: 1.2, seedsPerCell: 1, cells: 10 }, /between 0 and 100/],
    [{ emergence: 0.5, seedsPerCell: 0, cells: 10 }, /Seeds a cell/],
    [{ emergence: 0.5, seedsPerCell: 1, cells: 0 }, /Cells/],
  ])('%j is refused', (ask, sentence) => expect(() => cellOutcome(ask)).toThrow(sentence));
});

describe('sowing a bed', () => {
  it('the density for a collar gives that collar back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.5, max: 5, noNaN: true }),
        fc.integer({ min: 150, max: 400 }),
        (mm, depth) => {
          const { value, working } = densityForCollar(birch, mm, depth);
          expect(collarAtDensity(birch, value, depth)).toBeCloseTo(mm, 6);
          for (const step of working)
            expect(recompute(step.expression!) / (step.result as number)).toBeCloseTo(1, 4);
        },
      ),
    );
    expect(() => densityForCollar(birch, 30, 300)).toThrow(/tends to/);
  });
  const bed = {
    way: 'rows' as const,
    standingPerM2: 200,
    standingShare: 0.4,
    areaM2: 2.5,
    lengthMm: 2500,
    rowSpacingMm: 100,
    thicknessMm: 3,
  };
  it('spaces the seeds over its rows', () => {
    const { value } = bedSowing(bed);
    expect(value.seeds).toBe(1250);
    expect(value.rows).toBe(10);
    expect((value.rows * 2500) / value.gapMm!).toBeCloseTo(1250);
    expect(value.depthMm).toEqual({ least: 3, most: 6 });
    expect(bedSowing({ ...bed, way: 'broadcast' }).value).toMatchObject({ rows: 0, gapMm: null });
  });
  it('refuses what cannot be sown', () => {
    expect(() => bedSowing({ ...bed, rowSpacingMm: 2000 })).toThrow(/do not fit/);
    expect(() => bedSowing({ ...bed, thicknessMm: 30 })).toThrow(/on one another/);
    expect(() => bedSowing({ ...bed, standingShare: 0 })).toThrow(/share/);
    expect(() => bedSowing({ ...bed, areaM2: 0 })).toThrow(/above 0/);
  });
});

describe('treatments compared', () => {
  it('says of A and B what it says of B and A, turned round', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 300 }),
        unit,
        fc.integer({ min: 1, max: 300 }),
        unit,
        (n, p, m, q) => {
          const a = { name: 'A', n, k: Math.round(n * p) };
          const b = { name: 'B', n: m, k: Math.round(m * q) };
          const ab = compareShares(a, b).value;
          const ba = compareShares(b, a).value;
          expect(ab.chanceABetter + ba.chanceABetter).toBeCloseTo(1, 6);
          expect(ab.difference.mean).toBeCloseTo(-ba.difference.mean, 6);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('is calibrated: over 2 000 pairs its nine-in-ten band holds the true difference 87 to 93 % of the time', () => {
    const random = seededRandom(2000);
    const drawn = (p: number, n: number) => trayCount(random, p, n);
    let held = 0;
    let sure = 0;
    let right = 0;
    for (let t = 0; t < 2000; t++) {
      const [p, q] = [random(), random()];
      const n = 30 + Math.floor(random() * 170);
      const { difference, chanceABetter } = compareShares(
        { name: 'A', n, k: drawn(p, n) },
        { name: 'B', n, k: drawn(q, n) },
      ).value;
      if (difference.p5 <= p - q && p - q <= difference.p95) held++;
      if (chanceABetter > 0.85 && chanceABetter < 0.95) {
        sure++;
        if (p > q) right++;
      }
    }
    expect(held / 2000).toBeGreaterThan(0.87);
    expect(held / 2000).toBeLessThan(0.93);
    // Those called about nine in ten are right about nine times in ten.
    expect(sure).toBeGreaterThan(20);
    expect(right / sure).toBeGreaterThan(0.75);
  }, 60_000);

  it('calls no more than one in ten of equal pairs different, one tray each', () => {
    const random = seededRandom(77);
    let called = 0;
    for (let t = 0; t < 1500; t++) {
      const p = 0.2 + 0.6 * random();
      const [k, m] = [trayCount(random, p, 200), trayCount(random, p, 200)];
      const { verdict } = compareShares({ name: 'A', n: 200, k }, { name: 'B', n: 200, k: m }).value;
      if (verdict === 'A' || verdict === 'B') called++;
    }
    expect(called / 1500).toBeLessThan(0.1);
  });
  it('a second tray of each tells more than as much more seed in the first', () => {
    const wide = (n: number, trays: number) => {
      const arm = { name: 'x', n, k: n * 0.6, trays };
      const { p5, p95 } = compareShares(arm, arm).value.difference;
      return p95 - p5;
    };
    expect(wide(400, 2)).toBeLessThan(wide(400, 1));
    expect(wide(400, 2)).toBeLessThan(0.8 * wide(200, 1));
  });
  it('tells the chance to be the best of several at once', () => {
    const arm = (name: string, k: number) => ({ name, n: 200, k, trays: 4 });
    const alike = chancesBest([arm('a', 100), arm('b', 100), arm('c', 100)]);
    for (const chance of alike) expect(chance).toBeCloseTo(1 / 3, 6);
    const [first, second] = chancesBest([arm('a', 150), arm('b', 140), arm('c', 60)]);
    expect(first).toBeGreaterThan(second);
    // Against two others it is less sure than against the one.
    expect(first).toBeLessThanOrEqual(compareShares(arm('a', 150), arm('b', 140)).value.chanceABetter + 1e-3);
  });

  it('does not call small samples, calls plain ones, and says how many more seeds would settle it', () => {
    const few = compareShares({ name: 'A', n: 8, k: 8 }, { name: 'B', n: 8, k: 1 }).value;
    expect(few.verdict).toBe('leans to A');
    const plain = compareShares({ name: 'A', n: 100, k: 20 }, { name: 'B', n: 100, k: 85 }).value;
    expect(plain).toMatchObject({ verdict: 'B', moreTrays: 0 });
    const close = compareShares({ name: 'A', n: 40, k: 22 }, { name: 'B', n: 40, k: 18 }).value;
    expect(close.verdict).toMatch(/leans|telling/);
    expect(close.moreTrays).toBeGreaterThan(0);
    const same = compareShares(
      { name: 'A', n: 20_000, k: 10_000, trays: 100 },
      { name: 'B', n: 20_000, k: 10_050, trays: 100 },
    ).value;
    expect(same.verdict).toBe('no real difference');
  });

  it('refuses counts that cannot be', () => {
    expect(() => compareShares({ name: 'A', n: 0, k: 0 }, { name: 'B', n: 5, k: 1 })).toThrow(/A: nothing/);
    expect(() => compareShares({ name: 'A', n: 5, k: 6 }, { name: 'B', n: 5, k: 1 })).toThrow(/6 of 5/);
  });

  it('compares heights by their means and errors', () => {
    const a = { n: 20, mean: 30, sd: 5 };
    expect(chanceMeanHigher(a, { ...a, mean: 25 })!.chance).toBeGreaterThan(0.99);
    expect(chanceMeanHigher(a, a)!.chance).toBeCloseTo(0.5);
    expect(chanceMeanHigher(a, null)).toBeNull();
  });
});

describe('a lot’s coming up through the spring', () => {
  const asOf = dayOf('2026-05-20');
  const site = { latitudeDeg: 54.6, elevationM: 185 };
  const series = generateWeather(roughNormals(54.6, 185), asOf - 3650, 3651, 4);
  const warmth = warmthOf(weatherOutlook(series, site, asOf, { horizonDays: 460 }));
  const prior = { final: { alpha: 12, beta: 8 }, half: { median: 110, sdLog: 0.25 } };
  const since = dayOf('2026-04-01');

  it('sums warmth day by day, as recorded so far and as the years go on', () => {
    const sums = meanWarmth(warmth, since, asOf + 30);
    let past = 0;
    for (let day = since; day <= asOf; day++) past += warmth.past[day - warmth.pastStart];
    expect(sums[asOf - since]).toBeCloseTo(past, 8);
    for (let i = 1; i < sums.length; i++) expect(sums[i]).toBeGreaterThanOrEqual(sums[i - 1]);
  });

  it('forecasts the final number and the day to count last, and never forecasts fewer than are up', () => {
    const { value } = emergenceOutlook(
      [
        { day: asOf - 14, up: 60 },
        { day: asOf - 4, up: 180 },
      ],
      400,
      since,
      prior,
      warmth,
    );
    expect(value.upNow).toBe(180);
    expect(value.final.p10).toBeGreaterThanOrEqual(180);
    expect(value.final.p10).toBeLessThanOrEqual(value.final.p50);
    expect(value.final.p50).toBeLessThanOrEqual(value.final.p90);
    expect(value.countLastOn).toBeGreaterThan(value.halfOn);
    expect(value.course[0]).toEqual({ day: since, up: expect.closeTo(0, 0) });
    expect(value.late).toBe(false);
  });

  it('calls a lot with nothing up late once its warmth has gone, and leaves later counts out', () => {
    const early = dayOf('2025-09-01');
    expect(emergenceOutlook([], 400, early, prior, warmth).value.late).toBe(true);
    expect(emergenceOutlook([{ day: asOf + 5, up: 300 }], 400, since, prior, warmth).value.upNow).toBe(0);
  });
});

describe('coming up', () => {
  const prior = { final: { alpha: 12, beta: 8 }, half: { median: 110, sdLog: 0.25 } };
  const truth = { final: 0.5, half: 130, shape: 3.4 };
  const counts = (last: number) =>
    [60, 90, 120, 150, 200, 260]
      .filter((w) => w <= last)
      .map((warmth) => ({ warmth, up: Math.round(400 * emergedShare(truth, warmth)) }));

  it('a curve’s shares and warmths are each other’s inverse', () => {
    fc.assert(
      fc.property(unit, (share) => {
        expect(emergedShare(truth, warmthToShare(truth, share)) / truth.final).toBeCloseTo(share, 8);
      }),
    );
    expect(emergedShare(truth, truth.half)).toBeCloseTo(truth.final / 2);
  });

  it('closes in on the truth as counts come', () => {
    const early = fitEmergence(counts(90), 400, prior);
    const late = fitEmergence(counts(260), 400, prior);
    expect(late.final.p90 - late.final.p10).toBeLessThan(early.final.p90 - early.final.p10);
    expect(late.final.p50).toBeGreaterThan(0.45);
    expect(late.final.p50).toBeLessThan(0.56);
    expect(Math.abs(late.half.p50 - 130)).toBeLessThan(15);
    expect(late.last.p50).toBeGreaterThan(late.half.p50);
  });

  it('never forecasts fewer than are up', () => {
    const fit = fitEmergence([{ warmth: 200, up: 390 }], 400, prior);
    expect(fit.final.p50).toBeGreaterThanOrEqual(390 / 400);
    expect(() => fitEmergence([{ warmth: 200, up: 401 }], 400, prior)).toThrow(/401 up of 400/);
    expect(() => fitEmergence([], 0, prior)).toThrow(/Nothing was sown/);
  });

  it('raises the alarm for nothing up long after it was to be, not before', () => {
    expect(isLate({ warmth: 40, up: 0 }, 400, prior).late).toBe(false);
    expect(isLate({ warmth: 300, up: 0 }, 400, prior).late).toBe(true);
    expect(isLate({ warmth: 300, up: 230 }, 400, prior).late).toBe(false);
  });
});

describe('the desk turned round', () => {
  const stages = [
    { alpha: 8, beta: 3 },
    { alpha: 12, beta: 4 },
    { alpha: 9, beta: 2 },
  ];
  it('says the most trees that some seed gives with a chance, and no tree more', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 4000 }),
        fc.constantFrom(0.5, 0.8, 0.9, 0.97),
        (seeds, chance) => {
          const trees = treesFrom(seeds, chance, stages);
          if (trees > 0) expect(sowingOutlook(seeds, trees, stages).chance).toBeGreaterThanOrEqual(chance);
          if (trees < seeds) expect(sowingOutlook(seeds, trees + 1, stages).chance).toBeLessThan(chance);
        },
      ),
      { numRuns: 60 },
    );
    expect(treesFrom(0, 0.9, stages)).toBe(0);
  });
});

describe('rows that the desk proposes', () => {
  it('leave every seed its room, at the usual distance where that will do', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('rows' as const, 'drills' as const),
        fc.integer({ min: 20, max: 600 }),
        fc.double({ min: 0.2, max: 0.9, noNaN: true }),
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        (way, standingPerM2, standingShare, thicknessMm) => {
          const ask = { way, standingPerM2, standingShare, thicknessMm };
          const rowSpacingMm = rowSpacingFor(ask);
          expect(rowSpacingMm).toBeLessThanOrEqual(120);
          // Where even the closest rows are too few, the sowing itself says so.
          fc.pre(rowSpacingMm > 30);
          const plan = bedSowing({ ...ask, rowSpacingMm, areaM2: 3, lengthMm: 3000 }).value;
          expect(plan.rows).toBeGreaterThan(0);
        },
      ),
    );
    expect(rowSpacingFor({ way: 'rows', standingPerM2: 100, standingShare: 0.5, thicknessMm: 3 })).toBe(120);
  });
});
