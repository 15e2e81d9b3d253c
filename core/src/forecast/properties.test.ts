import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { startingSpecies } from '../species/startingSpecies';
import { actsFor } from '../today/lotActs';
import { weatherOutlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { warmthOf } from '../weather/sums';
import { recompute } from '../working/working';
import { forecastLot } from './forecast';
import type { LotFacts } from './lotFacts';
import { standingOf } from './standing';

/* Any lot a grower could keep, on any date, in either hemisphere: nothing impossible comes out. */
const DRAWS = 9;
const sites = [54.6, -41.2].flatMap((latitudeDeg) =>
  ['2026-02-10', '2026-05-20', '2026-08-05', '2026-11-24'].map((iso) => {
    const asOf = dayOf(iso);
    const site = { latitudeDeg, elevationM: 200 };
    const series = generateWeather(roughNormals(latitudeDeg, 200), asOf - 2400, 2401, 5);
    const outlook = weatherOutlook(series, site, asOf, { horizonDays: 430 });
    return { latitudeDeg, asOf, outlook, warmth: warmthOf(outlook) };
  }),
);

const home: fc.Arbitrary<LotFacts['home']> = fc.oneof(
  fc.record({
    kind: fc.constant('container' as const),
    name: fc.constant('Cell'),
    cellMl: fc.integer({ min: 20, max: 5000 }),
    depthMm: fc.integer({ min: 40, max: 400 }),
    airShare: fc.double({ min: 0, max: 1, noNaN: true }),
  }),
  fc.record({
    kind: fc.constant('bed' as const),
    densityPerM2: fc.integer({ min: 20, max: 900 }),
    settledDepthMm: fc.integer({ min: 40, max: 450 }),
    airShare: fc.double({ min: 0, max: 1, noNaN: true }),
    headroomCm: fc.option(fc.integer({ min: 5, max: 120 })),
  }),
);

const situation = fc
  .record({
    site: fc.constantFrom(...sites),
    species: fc.constantFrom(...startingSpecies),
    home,
    sownAgo: fc.integer({ min: 0, max: 900 }),
    seedState: fc.constantFrom('ready' as const, 'fresh' as const),
    upAfter: fc.option(fc.integer({ min: 10, max: 200 })),
    heights: fc.array(
      fc.tuple(fc.integer({ min: 0, max: 900 }), fc.double({ min: 0.5, max: 250, noNaN: true })),
      { maxLength: 4 },
    ),
    pulls: fc.array(
      fc.tuple(
        fc.integer({ min: 0, max: 900 }),
        fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 1, maxLength: 5 }),
      ),
      { maxLength: 3 },
    ),
    target: fc.option(fc.integer({ min: 5, max: 150 })),
    ahead: fc.integer({ min: 0, max: 380 }),
    lifted: fc.integer({ min: 0, max: 70 }),
  })
  .map(({ site, species, sownAgo, upAfter, heights, pulls, target, ahead, lifted, ...rest }) => {
    const sownOn = site.asOf - sownAgo;
    const up = upAfter === null ? null : sownOn + upAfter;
    const facts: LotFacts = {
      id: 'lot',
      code: '26-XXX-01',
      species: species.values,
      sownOn,
      ...rest,
      targetHeightCm: target,
      leafFallOn: null,
      counts: up === null ? [] : [{ day: up, count: 70 }],
      sizes: heights.map(([ago, mean]) => ({
        day: site.asOf - ago,
        what: 'height' as const,
        n: 10,
        mean,
        sd: mean * 0.2,
      })),
      pulls: pulls.map(([ago, scores]) => ({ day: site.asOf - ago, scores })),
      movements: [
        { day: sownOn, from: 'supply', to: 'sown', count: 100 },
        ...(up === null
          ? []
          : [
              { day: up, from: 'sown' as const, to: 'standing' as const, count: 70 },
              ...(lifted
                ? [{ day: up + 200, from: 'standing' as const, to: 'lifted' as const, count: lifted }]
                : []),
            ]),
      ],
    };
    return { site, facts, view: site.asOf + ahead };
  });

const inOrder = (band: { p10: number; p50: number; p90: number }) => {
  expect(band.p10).not.toBeNaN();
  expect(band.p10).toBeLessThanOrEqual(band.p50);
  expect(band.p50).toBeLessThanOrEqual(band.p90);
};
const share = (value: number) => {
  expect(value).toBeGreaterThanOrEqual(-1e-9);
  expect(value).toBeLessThanOrEqual(1 + 1e-9);
};

describe('any lot’s forecast', () => {
  it('has bands in order, shares between none and all, and dates that follow from one another', () => {
    fc.assert(
      fc.property(situation, ({ site, facts, view }) => {
        const f = forecastLot(facts, site.outlook, site.warmth, { view, draws: DRAWS });
        for (const band of [
          f.emergence.band,
          f.ready,
          f.bound,
          f.toTarget,
          f.lid,
          f.state.heightCm,
          f.state.diameterMm,
          f.state.fill,
        ]) {
          if (band) inOrder(band);
        }
        for (const value of [
          f.state.chanceReady,
          f.state.chanceBound,
          f.state.shareToSize ?? 0,
          f.vigour.startingShare,
          f.heightStartingShare,
        ])
          share(value);
        expect(f.state.chanceBound).toBeLessThanOrEqual(f.state.chanceReady + 1e-9);
        for (const p of ['p10', 'p50', 'p90'] as const) expect(f.ready[p]).toBeLessThanOrEqual(f.bound[p]);
        expect(f.state.fill.p90).toBeLessThanOrEqual(1.3 + 1e-6);
        expect(f.lifting.bestBefore).toBeLessThanOrEqual(f.lifting.until);
      }),
      { numRuns: 150 },
    );
  });

  it('is judged, and asks for acts with dates and figures that are numbers', () => {
    fc.assert(
      fc.property(situation, ({ site, facts, view }) => {
        const f = forecastLot(facts, site.outlook, site.warmth, { view, draws: DRAWS });
        const standing = standingOf(facts, f);
        if (view < facts.sownOn) return void expect(standing).toBeNull();
        expect(standing!.tally.balances).toBe(true);
        for (const figure of Object.values(standing!.decision)) expect(figure).not.toBeNaN();
        for (const act of actsFor(facts, f, standing!, site.latitudeDeg)) {
          expect(act.trees).toBeGreaterThan(0);
          for (const figure of Object.values(act.figures)) expect(figure).not.toBeNaN();
        }
      }),
      { numRuns: 150 },
    );
  });

  it('shows sums that can be done again', () => {
    fc.assert(
      fc.property(situation, ({ site, facts, view }) => {
        const f = forecastLot(facts, site.outlook, site.warmth, { view, draws: DRAWS, explain: true });
        for (const step of f.working) {
          if (!step.expression) continue;
          const again = recompute(step.expression);
          expect(Math.abs(again - (step.result as number)), step.what).toBeLessThanOrEqual(
            2e-4 * Math.max(1e-3, Math.abs(again)),
          );
        }
      }),
      { numRuns: 100 },
    );
  });
});
