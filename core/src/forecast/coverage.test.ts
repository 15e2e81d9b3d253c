import { describe, expect, it } from 'vitest';
import { dayOf, type EpochDay } from '../calendar/day';
import { seededRandom, normalDraw } from '../chance/random';
import { sizeOn } from '../growth/stretches';
import { linearIn, rootClock, rootsAfter } from '../roots/rootFill';
import { DAY_SD, JUDGE_SD, SCORE_FILL, SCORE_SD, VIGOUR_SD_LOG } from '../roots/vigour';
import { startingSpecies } from '../species/startingSpecies';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { knownWeather } from '../weather/known';
import { coverageOf, disagreement, FEWEST_TO_WIDEN, pastForecasts, widening, type Held } from './coverage';
import { forecastLot } from './forecast';
import type { LotFacts } from './lotFacts';
import { plantYears, stretchesOf } from './plantYears';
import { feltWeather, pastWeather } from './underCover';
import { curveWith, middleCurve, scaleFor } from './sizeRuns';

const series = generateWeather(roughNormals(54.6, 185), dayOf('2016-11-24'), 3653, 7);
const site = { latitudeDeg: 54.6, elevationM: 185 };
const at = pastWeather(series, site);
const species = startingSpecies.find((s) => s.code === 'ALN')!.values;
const home = { kind: 'container', name: 'Tube', cellMl: 150, depthMm: 165, airShare: 0.3 } as const;
const up = dayOf('2026-05-12');
const warmth = at(dayOf('2026-11-20')).open.warmth;
const stand = { species, sownOn: dayOf('2026-04-08'), home };
const plant = plantYears(stand as LotFacts, site.latitudeDeg, warmth)(0, up);

/** A lot grown from parameters drawn as its species varies, and measured as a grower would. */
function grown(seed: number): { facts: LotFacts; vigour: number } {
  const random = seededRandom(seed);
  const curve = curveWith(
    middleCurve(species, 'height'),
    species.heightCm.sdLog * normalDraw(random),
    species.growthPerDd.sdLog * normalDraw(random),
  );
  const stretches = stretchesOf(plant, stand, scaleFor(species, 'height'));
  const vigour = Math.exp(VIGOUR_SD_LOG * normalDraw(random));
  const judge = JUDGE_SD * normalDraw(random);
  const sizes: LotFacts['sizes'] = [];
  const pulls: LotFacts['pulls'] = [];
  let rootMl = species.rootInitialMl;
  for (let day = up; day <= dayOf('2026-10-20'); day++) {
    const dd = warmth.past[day - warmth.pastStart];
    rootMl = rootsAfter(
      rootClock(home.cellMl, linearIn(species.rootLinearAtMl, home.cellMl)),
      rootMl,
      species.rootRatePerDd * vigour * dd,
    );
    const since = day - up;
    if (since > 20 && since % 30 === 0) {
      const lotMean = sizeOn(stretches, curve, day, plant.warmth.by) * (1 + 0.05 * normalDraw(random));
      const plants = Array.from({ length: 12 }, () => lotMean * (1 + species.plantCv * normalDraw(random)));
      const mean = plants.reduce((a, b) => a + b, 0) / 12;
      const sd = Math.sqrt(plants.reduce((t, x) => t + (x - mean) ** 2, 0) / 11);
      sizes.push({ day, what: 'height', n: 12, mean, sd });
    }
    if (since > 50 && since % 35 === 0) {
      const dayLuck = Math.exp(DAY_SD * normalDraw(random));
      const scores = Array.from({ length: 3 }, () => {
        const fill = (rootMl / home.cellMl) * dayLuck;
        const read = fill + judge + Math.hypot(SCORE_SD, 0.15 * fill) * normalDraw(random);
        return SCORE_FILL.reduce(
          (best, fill, score) => (Math.abs(fill - read) < Math.abs(SCORE_FILL[best] - read) ? score : best),
          0,
        );
      });
      pulls.push({ day, scores });
    }
  }
  const facts: LotFacts = {
    id: `lot-${seed}`,
    code: String(seed),
    species,
    sownOn: dayOf('2026-04-08'),
    seedState: 'ready',
    home,
    targetHeightCm: 30,
    leafFallOn: null,
    counts: [{ day: up, count: 500 }],
    sizes,
    pulls,
    movements: [],
  };
  return { facts, vigour };
}
const lots = Array.from({ length: 60 }, (_, i) => grown(i + 1));

describe('past forecasts', () => {
  const held = lots.flatMap(({ facts }) => pastForecasts(facts, at));
  it('of simulated lots hold about as often as they promise: eight times in ten', () => {
    for (const what of ['height', 'fill'] as const) {
      const { n, share, bias } = coverageOf(held.filter((h) => h.what === what));
      expect(n, what).toBeGreaterThan(100);
      expect(share, what).toBeGreaterThan(0.75);
      expect(share, what).toBeLessThan(0.95);
      expect(Math.abs(bias), what).toBeLessThan(what === 'fill' ? 0.1 : 0.08);
    }
  });
  it('know nothing of what came after they were made', () => {
    const { facts } = lots[0];
    const [first] = pastForecasts(facts, at);
    const blind = { ...facts, sizes: facts.sizes.filter((s) => s.day === first.on), pulls: [] };
    const [again] = pastForecasts(blind, at);
    expect(again).toMatchObject({ middle: first.middle, seen: first.seen });
    expect(first.madeOn).toBe(first.on - 28);
  });
  it('are made with the weather the lot felt, where it stood under a cover', () => {
    const { facts } = lots[0];
    const [open] = pastForecasts(facts, at);
    const cover = { lowC: 2, highC: 6 };
    const [under] = pastForecasts({ ...facts, home: { ...home, cover } }, at);
    expect(under.middle).toBeGreaterThan(open.middle * 1.02);
  });
  it('need no weather beyond their season, nor what is usual to the day', () => {
    const { facts } = lots[1];
    const whole = (asOf: EpochDay) => feltWeather(knownWeather(series, site, asOf));
    expect(pastForecasts(facts, at)).toEqual(pastForecasts(facts, whole));
  });
  it('are not asked of days before the lot was up, nor of one that never came up', () => {
    const { facts } = lots[0];
    expect(pastForecasts({ ...facts, counts: [] }, at)).toEqual([]);
    const early = { ...facts, sizes: [{ ...facts.sizes[0], day: up + 20 }], pulls: [] };
    expect(pastForecasts(early, at)).toEqual([]);
  });
});

describe('what pulled plugs teach', () => {
  it('brings the day a lot is root-bound nearer the truth with each pull', () => {
    const asOf = dayOf('2026-10-20');
    const errors = [0, 1, 2, 3].map((pulls) => {
      let total = 0;
      for (const { facts, vigour } of lots) {
        const { outlook, warmth: w } = at(asOf).open;
        const some = { ...facts, pulls: facts.pulls.slice(0, pulls) };
        const forecast = forecastLot(some, outlook, w, { view: asOf });
        total += Math.abs(Math.log(forecast.vigour.mean / vigour));
      }
      return total / lots.length;
    });
    // One judge's eye is in all of them: the first tells most.
    expect(errors[1]).toBeLessThan(errors[0] * 0.9);
    expect(errors[2]).toBeLessThan(errors[1] * 1.02);
    expect(errors[3]).toBeLessThan(errors[2] * 1.02);
  });
});

describe('a second look', () => {
  const h = (on: number, seen: number, what: Held['what'] = 'height'): Held => ({
    lotId: 'a',
    what,
    on,
    madeOn: on - 28,
    seen,
    middle: 10,
    low: 9,
    high: 11,
    sd: 1 / 1.2816,
    error: 0,
    inside: seen >= 9 && seen <= 11,
  });
  it('is asked for where two running fall outside to the same side, and not otherwise', () => {
    expect(disagreement([])).toBeNull();
    expect(disagreement([h(1, 15)])).toBeNull();
    expect(disagreement([h(1, 15), h(2, 10)])).toBeNull();
    expect(disagreement([h(1, 15), h(2, 5)])).toBeNull();
    expect(disagreement([h(3, 15), h(1, 10), h(2, 14)])).toMatchObject({ what: 'height', above: true });
    expect(disagreement([h(1, 5, 'fill'), h(2, 6, 'fill'), h(2, 10)])).toMatchObject({
      what: 'fill',
      above: false,
    });
  });
});

describe('bands widened by how past forecasts held', () => {
  /** Measurements that spread so many times as far as their bands promise. */
  const spread = (n: number, times: number): Held[] => {
    const random = seededRandom(5);
    return Array.from({ length: n }, (_, i) => {
      const seen = 10 + (times * normalDraw(random)) / 1.2816;
      return {
        lotId: 'a',
        what: 'height',
        on: i,
        madeOn: i - 28,
        seen,
        middle: 10,
        low: 9,
        high: 11,
        sd: 1 / 1.2816,
        error: 0,
        inside: seen >= 9 && seen <= 11,
      };
    });
  };
  it('follow what was measured, the more the more of it there is', () => {
    const wide = [40, 400].map((n) => widening(spread(n, 1.6))!.width);
    expect(wide[0]).toBeGreaterThan(1.1);
    expect(wide[1]).toBeGreaterThan(wide[0]);
    expect(wide[1]).toBeLessThan(1.75);
    expect(widening(spread(400, 0.6))!.width).toBeLessThan(0.8);
    const after = widening(spread(400, 1.6))!;
    expect(after.then).toBeGreaterThan(0.74);
    expect(after.share).toBeLessThan(0.7);
  });
  it('are left alone where they hold as promised, or too little was measured', () => {
    expect(widening(spread(200, 1))).toBeNull();
    expect(widening(spread(FEWEST_TO_WIDEN - 1, 3))).toBeNull();
  });
  it('cannot be narrowed past what a measurement strays by', () => {
    const sure = spread(200, 0.3).map((h) => ({ ...h, sd: 0.05, error: 0.78 }));
    expect(widening(sure)!.then).toBeGreaterThan(0.95);
  });
  it('never are widened without bound by a wild record', () => {
    expect(widening(spread(200, 50))!.width).toBeLessThanOrEqual(1.8);
    expect(widening(spread(200, 0.001))!.width).toBeGreaterThanOrEqual(0.7);
  });
});

describe('coverage', () => {
  const one = (inside: boolean): Held => ({
    lotId: 'a',
    what: 'height',
    on: 10,
    madeOn: 0,
    seen: inside ? 10 : 15,
    middle: 10,
    low: 9,
    high: 11,
    sd: 1 / 1.2816,
    error: 0,
    inside,
  });
  it('counts what held, with its doubt, and how far off it was on the whole', () => {
    const c = coverageOf([one(true), one(true), one(true), one(false)]);
    expect(c).toMatchObject({ n: 4, inside: 3, share: 0.75 });
    expect(c.bias).toBeCloseTo(1.5 ** 0.25 - 1, 9);
    expect(c.p10).toBeLessThan(0.75);
    expect(c.width).toBeCloseTo(0.2, 9);
    expect(coverageOf([])).toMatchObject({ n: 0, share: 0, bias: 0 });
  });
});
