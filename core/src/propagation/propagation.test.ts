import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf, isoOf, partsOf } from '../calendar/day';
import { pooledShare } from '../chance/pooledShare';
import { startingSpecies } from '../species/startingSpecies';
import { weatherOutlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { warmthOf } from '../weather/sums';
import { recompute } from '../working/working';
import { layerOutlook, ringDoubt, ringLength } from './airLayer';
import { cuttingDoubts, cuttingLength, cuttingPlan, rootingForecast, stockYield } from './cuttings';

const lime = startingSpecies.find((s) => s.code === 'TCO')!.values;

function under(latitudeDeg: number, elevationM: number, asOfIso: string) {
  const asOf = dayOf(asOfIso);
  const series = generateWeather(roughNormals(latitudeDeg, elevationM), asOf - 3652, 3653, 8);
  const outlook = weatherOutlook(series, { latitudeDeg, elevationM }, asOf, { horizonDays: 460 });
  return { outlook, warmth: warmthOf(outlook) };
}

const stock = { plants: 40, ageSeasons: 4, yieldPerPlant: 25, cutsInARow: 0, restShare: 0 };

describe('cuttings', () => {
  it('need two nodes, one in and one out', () => {
    const { lengthMm, inMediumMm } = cuttingLength({ nodes: 3, internodeMm: 60 });
    expect(lengthMm).toBe(140);
    expect(inMediumMm).toBeLessThan(lengthMm / 2);
    expect(() => cuttingLength({ nodes: 1, internodeMm: 60 })).toThrow(/two nodes/);
    expect(() => cuttingLength({ nodes: 2, internodeMm: 0 })).toThrow(/above 0/);
  });

  it('a stock bed grows to its yield, tires, and rests', () => {
    expect(stockYield(stock).value).toBe(1000);
    expect(stockYield({ ...stock, ageSeasons: 2 }).value).toBe(500);
    expect(stockYield({ ...stock, cutsInARow: 3 }).value).toBe(760);
    expect(stockYield({ ...stock, restShare: 0.25 }).value).toBe(750);
    for (const step of stockYield({ ...stock, cutsInARow: 3, restShare: 0.1 }).working)
      expect(recompute(step.expression!)).toBeCloseTo(step.result as number, 6);
    expect(() => stockYield({ ...stock, plants: 0 })).toThrow(/one plant/);
    expect(() => stockYield({ ...stock, restShare: 1 })).toThrow(/rest/);
  });

  it('the plan’s stock gives at least its cuttings', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3000 }), fc.integer({ min: 1, max: 60 }), (target, perPlant) => {
        const { value } = cuttingPlan({
          target,
          probability: 0.8,
          strike: pooledShare({ alpha: 14, beta: 6 }, []),
          establishment: pooledShare({ alpha: 18, beta: 2 }, []),
          held: 100,
          perPlant,
          plantsPerM: 3,
        });
        expect(value.stockPlants * perPlant).toBeGreaterThanOrEqual(value.cuttings);
        expect(value.short).toBe(Math.max(0, value.cuttings - 100));
        expect(value.stockM).toBeCloseTo(value.stockPlants / 3);
      }),
      { numRuns: 40 },
    );
  });

  it('root later in the cold, sooner on a warm bench', () => {
    const { warmth } = under(54.6, 185, '2026-11-24');
    const day = dayOf('2026-11-20');
    const cold = rootingForecast(day, { median: 180, sdLog: 0.3 }, warmth);
    const heated = rootingForecast(day, { median: 180, sdLog: 0.3 }, warmth, 13);
    expect(cold.p50).toBeGreaterThan(heated.p50 + 60);
    expect(heated.p50 - day).toBeLessThan(30);
    expect(cold.p10).toBeLessThanOrEqual(cold.p90);
  });
});

describe('cuttings that are asked about', () => {
  const on = (iso: string) => dayOf(iso);
  it('are more than the bed gives, and kinds out of their season, by hemisphere', () => {
    expect(cuttingDoubts('hard', 80, 90, on('2026-12-10'), 54)).toEqual([]);
    expect(cuttingDoubts('hard', 150, 90, on('2026-12-10'), 54)).toEqual([
      { why: 'more than it gives', gives: 90 },
    ]);
    expect(cuttingDoubts('hard', 50, 90, on('2026-09-10'), 54)).toEqual([
      { why: 'out of season', kind: 'hard' },
    ]);
    expect(cuttingDoubts('hard', 50, 90, on('2026-06-10'), -41)).toEqual([]);
    expect(cuttingDoubts('hard', 50, 90, on('2026-09-10'), 12)).toEqual([]);
    expect(cuttingDoubts('soft', 50, -5, on('2026-05-10'), 54)).toEqual([
      { why: 'more than it gives', gives: 0 },
    ]);
  });
});

describe('air layers', () => {
  it('take a ring twice as long as the branch is thick, and not longer than the branch', () => {
    expect(ringLength(18, 200).value).toBe(36);
    expect(recompute(ringLength(18, 200).working[0].expression!)).toBe(36);
    expect(() => ringLength(30, 40)).toThrow(/longer than the 40 mm/);
    expect(() => ringLength(3, 400)).toThrow(/6 to 80/);
    expect(() => ringLength(NaN, 400)).toThrow(/6 to 80/);
  });

  it('are asked about where the ring is not 1.5 to 3 times the branch', () => {
    expect(ringDoubt(20, 40)).toBeNull();
    expect(ringDoubt(20, 30)).toBeNull();
    expect(ringDoubt(20, 20)).toMatchObject({ times: 1, why: 'short' });
    expect(ringDoubt(20, 80)).toMatchObject({ times: 4, why: 'long' });
    expect(ringDoubt(NaN, 80)).toBeNull();
  });

  it.each([
    ['north', 54.6, 185, '2026-05-10', '2026-08-20', '2027-01-10', [7, 8, 9, 10]],
    ['south', -41.2, 780, '2026-11-05', '2027-02-20', '2026-07-10', [1, 2, 3, 4]],
  ] as const)('have their season in the %s', (_, latitude, height, spring, summer, winter, severMonths) => {
    const at = (iso: string) => {
      const { outlook, warmth } = under(latitude, height, iso);
      return layerOutlook(lime, lime.start!.layer!.rootDd, 20, dayOf(iso), outlook, warmth).value;
    };
    const good = at(spring);
    expect(good.season).toBe('good');
    expect(severMonths).toContain(partsOf(good.severBy).month);
    expect(good.severBy).toBeLessThan(good.firstFrost.p50);
    expect(good.potL).toBe(5);
    // Still on its branch in the spring after, it is severed in that season.
    const { outlook, warmth } = under(latitude, height, winter);
    const kept = layerOutlook(
      lime,
      lime.start!.layer!.rootDd,
      20,
      dayOf(winter) - 240,
      outlook,
      warmth,
    ).value;
    expect(kept.severBy).toBeGreaterThan(dayOf(winter) - 200);
    // Made late it is kept on until next year, and its window there is a window.
    const late = at(summer);
    expect(late.window.keptOn).toBe(late.chanceInTime < 0.9);
    expect(late.window.keptOn).toBe(true);
    expect(late.window.from).toBeGreaterThan(late.severBy + 120);
    expect(late.window.by).toBeGreaterThan(late.window.from);
    expect(late.season).toBe('late');
    expect(late.chanceInTime).toBeLessThanOrEqual(good.chanceInTime);
    expect(at(winter).season).toBe('early');
    expect(isoOf(at(winter).good.from) > isoOf(dayOf(winter))).toBe(true);
  });
});
