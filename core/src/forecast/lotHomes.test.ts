import { cellMlAt, homeAt, type Home } from '../home/home';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { vigourPosterior } from '../roots/vigour';
import { startingSpecies } from '../species/startingSpecies';
import { actsFor } from '../today/lotActs';
import { weatherOutlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { warmthOf } from '../weather/sums';
import { recompute } from '../working/working';
import { forecastLot, type ForecastOptions } from './forecast';
import { factsAt, homesOf } from './lotHomes';
import type { LotFacts } from './lotFacts';
import { standingOf } from './standing';

const series = generateWeather(roughNormals(54.6, 185), dayOf('2016-11-24'), 3653, 7);
const site = { latitudeDeg: 54.6, elevationM: 185 };
const tube: Home = { kind: 'container', name: 'Tube', cellMl: 150, depthMm: 165, airShare: 0.3 };
const pot: Home = { kind: 'container', name: 'Pot', cellMl: 2000, depthMm: 240, airShare: 0.5 };
const sownOn = dayOf('2026-04-08');
const moved = dayOf('2026-08-10');
const lot: LotFacts = {
  id: 'lot-1',
  code: '26-ALN-01',
  species: startingSpecies.find((s) => s.code === 'ALN')!.values,
  sownOn,
  seedState: 'ready',
  home: tube,
  targetHeightCm: 30,
  leafFallOn: null,
  counts: [{ day: dayOf('2026-05-12'), count: 700 }],
  sizes: [{ day: dayOf('2026-07-20'), what: 'height', n: 12, mean: 14, sd: 3 }],
  pulls: [{ day: dayOf('2026-08-01'), scores: [2, 2, 3] }],
  movements: [
    { day: sownOn, from: 'supply', to: 'seed', count: 1000 },
    { day: sownOn, from: 'seed', to: 'sown', count: 1000 },
    { day: dayOf('2026-05-12'), from: 'sown', to: 'standing', count: 700 },
  ],
};
const shifted = (home: Home, day = moved): LotFacts => ({
  ...lot,
  home,
  homes: [
    { from: sownOn, home: tube },
    { from: day, home },
  ],
});
const outlooks = new Map<string, ReturnType<typeof weatherOutlook>>();
function look(facts: LotFacts, asOfIso: string, viewIso = asOfIso, more: Partial<ForecastOptions> = {}) {
  const asOf = dayOf(asOfIso);
  const outlook = outlooks.get(asOfIso) ?? weatherOutlook(series, site, asOf, { horizonDays: 460 });
  outlooks.set(asOfIso, outlook);
  const view = dayOf(viewIso);
  return forecastLot(facts, outlook, warmthOf(outlook), {
    view,
    course: { from: sownOn, to: view + 120 },
    ...more,
  });
}

describe('a lot’s homes', () => {
  it('are the one it has, or all in turn', () => {
    expect(homesOf(lot)).toEqual([{ from: sownOn, home: tube }]);
    const spells = homesOf(shifted(pot));
    expect(homeAt(spells, moved - 1)).toBe(tube);
    expect(homeAt(spells, moved)).toBe(pot);
    expect(homeAt(spells, sownOn - 9)).toBe(tube);
    expect(cellMlAt(spells, moved)).toBe(2000);
  });
  it('are known up to a date; a supposed move comes after it', () => {
    expect(factsAt(shifted(pot), moved - 1).home).toBe(tube);
    expect(factsAt(shifted(pot), moved - 1).homes).toHaveLength(1);
    expect(factsAt(lot, moved, { from: 0, home: pot })).toMatchObject({
      home: tube,
      homes: [{ home: tube }, { from: moved + 1, home: pot }],
    });
  });
});

describe('a lot that was moved', () => {
  it('into the same home goes on as if it had not been', () => {
    const stayed = look(lot, '2026-09-15', '2026-10-20');
    const same = look(shifted(tube), '2026-09-15', '2026-10-20');
    for (const q of ['p10', 'p50', 'p90'] as const) {
      expect(same.state.heightCm[q]).toBeCloseTo(stayed.state.heightCm[q], 6);
      expect(same.state.fill[q]).toBeCloseTo(stayed.state.fill[q], 9);
      // Runs full before the move count as full from it on.
      expect(same.bound[q]).toBeGreaterThanOrEqual(stayed.bound[q]);
    }
    expect(same.bound.p90).toBe(stayed.bound.p90);
  });
  it('into a larger pot carries its roots over, fills it later and grows on from its height', () => {
    const stayed = look(lot, '2026-08-20');
    const big = look(shifted(pot), '2026-08-20');
    const at = big.course!.days.findIndex((day) => day >= moved);
    const fillBefore = big.course!.fill[at - 1].p50;
    const fillAfter = big.course!.fill[at].p50;
    expect(fillBefore).toBeGreaterThan(0.4);
    expect(fillAfter * 2000).toBeGreaterThan(fillBefore * 150);
    expect(fillAfter).toBeLessThan(0.3);
    expect(big.bound.p50).toBeGreaterThan(stayed.bound.p50);
    expect(big.ready.p50).toBeGreaterThan(moved);
    const heights = big.course!.heightCm.map((h) => h.p50);
    for (let i = 1; i < heights.length; i++) {
      expect(heights[i]).toBeGreaterThanOrEqual(heights[i - 1] - 1e-9);
      expect(heights[i] - heights[i - 1]).toBeLessThan(6);
    }
  });
  it('was still in its old home on an earlier date', () => {
    const before = look(shifted(pot), '2026-08-05');
    const never = look(lot, '2026-08-05');
    expect(before.ready).toEqual(never.ready);
    expect(before.state.fill).toEqual(never.state.fill);
  });
  it('shows working that recomputes to its figures', () => {
    const { working } = look(shifted(pot), '2026-09-15', '2026-10-01', { explain: true });
    const height = working.find((step) => step.what.endsWith('since it was moved'))!;
    expect(height.inputs!.map((i) => i.name)).toContain('height when it was moved');
    for (const step of working)
      if (step.expression && typeof step.result === 'number')
        expect(recompute(step.expression), step.what).toBeCloseTo(step.result, 1);
  });
  it('begins its seasons anew: no second season is warned of', () => {
    const rules = (facts: LotFacts) => {
      const forecast = look(facts, '2027-01-10');
      return actsFor(facts, forecast, standingOf(facts, forecast)!, 54.6).map((a) => a.rule);
    };
    const large: Home = { ...pot, cellMl: 20_000 };
    expect(rules({ ...lot, home: large, pulls: [] })).toContain('second-season');
    expect(rules(shifted(large, dayOf('2026-12-01')))).not.toContain('second-season');
  });
  it('has plugs of its old cell read in its old cell', () => {
    const p = { initialMl: 1, cellMl: 100, ratePerDd: 0.02, linearAtMl: 30 };
    const days = new Float64Array(120).fill(8);
    const pulls = [{ dayIndex: 60, scores: [3, 3, 3] }];
    const stayed = vigourPosterior(p, days, pulls).mean;
    expect(vigourPosterior(p, days, pulls, [{ dayIndex: 80, cellMl: 900 }]).mean).toBe(stayed);
    expect(vigourPosterior(p, days, pulls, [{ dayIndex: 20, cellMl: 900 }]).mean).toBeGreaterThan(stayed);
  });
});

describe('a move that is only supposed', () => {
  it('puts the hold date off, today or on a date, and leaves the lot as it was until then', () => {
    const stay = look(lot, '2026-08-12');
    const now = look(lot, '2026-08-12', '2026-08-12', { move: { from: 0, home: pot } });
    const later = look(lot, '2026-08-12', '2026-08-12', {
      move: { from: dayOf('2026-09-10'), home: pot },
    });
    expect(later.state.fill).toEqual(stay.state.fill);
    expect(now.bound.p50).toBeGreaterThan(stay.bound.p50);
    expect(later.bound.p50).toBeGreaterThan(stay.bound.p50);
    expect(later.bound.p50).toBeGreaterThanOrEqual(now.bound.p50);
  });
  it('agrees with the forecast once it was made', () => {
    const supposed = look(lot, '2026-08-12', '2026-10-20', {
      move: { from: dayOf('2026-08-13'), home: pot },
    });
    const made = look(shifted(pot, dayOf('2026-08-12')), '2026-08-12', '2026-10-20');
    // A day apart: the fills agree to within a day's growth.
    expect(supposed.state.fill.p50 / made.state.fill.p50).toBeGreaterThan(0.93);
    expect(supposed.state.fill.p50 / made.state.fill.p50).toBeLessThan(1.02);
  });
});
