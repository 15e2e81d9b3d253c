import { Unfit } from '../working/unfit';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { dayOf, isoOf, type EpochDay } from '../calendar/day';
import { speciesLibrary } from '../species/speciesLibrary';
import { startingSpecies } from '../species/startingSpecies';
import { wakingOf } from '../species/waking';
import { rootFill, READY_FILL } from '../roots/rootFill';
import { actsFor } from '../today/lotActs';
import { weatherOutlook, type Outlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import type { Band } from '../chance/quantile';
import type { WeatherSeries } from '../weather/series';
import { warmthOf, type Warmth } from '../weather/sums';
import { recompute } from '../working/working';
import { emergenceClock } from './emergence';
import { forecastLot } from './forecast';
import type { LotFacts } from './lotFacts';
import { standingOf } from './standing';

const LATITUDE = 54.6;
const site = { latitudeDeg: LATITUDE, elevationM: 185 };
const start = dayOf('2016-11-24');
const series: WeatherSeries = generateWeather(roughNormals(LATITUDE, 185), start, 3653, 7);
const outlooks = new Map<EpochDay, { outlook: Outlook; warmth: Warmth }>();
function at(asOf: EpochDay) {
  let known = outlooks.get(asOf);
  if (!known) {
    const outlook = weatherOutlook(series, site, asOf, { horizonDays: 460 });
    outlooks.set(asOf, (known = { outlook, warmth: warmthOf(outlook) }));
  }
  return known;
}
/** The same with a horizon of three seasons. */
function longAt(asOf: EpochDay) {
  const outlook = weatherOutlook(series, site, asOf, { horizonDays: 1150 });
  return { outlook, warmth: warmthOf(outlook) };
}
const species = (code: string) => startingSpecies.find((s) => s.code === code)!.values;

function lot(more: Partial<LotFacts> = {}): LotFacts {
  const sownOn = dayOf('2026-04-08');
  return {
    id: 'lot-1',
    code: '26-ALN-01',
    species: species('ALN'),
    sownOn,
    seedState: 'ready',
    home: { kind: 'container', name: 'Tube', cellMl: 150, depthMm: 165, airShare: 0.3 },
    targetHeightCm: 30,
    leafFallOn: null,
    counts: [{ day: dayOf('2026-05-12'), count: 700 }],
    sizes: [],
    pulls: [],
    movements: [
      { day: sownOn, from: 'supply', to: 'seed', count: 1000 },
      { day: sownOn, from: 'seed', to: 'sown', count: 1000 },
      { day: dayOf('2026-05-12'), from: 'sown', to: 'standing', count: 700 },
    ],
    ...more,
  };
}
const bed = { kind: 'bed', densityPerM2: 240, settledDepthMm: 270, airShare: 0.7, headroomCm: 40 } as const;
function look(facts: LotFacts, asOfIso: string, viewIso = asOfIso, options: { explain?: boolean } = {}) {
  const { outlook, warmth } = at(dayOf(asOfIso));
  const view = dayOf(viewIso);
  const course = { from: facts.sownOn, to: view + 200 };
  return forecastLot(facts, outlook, warmth, { view, course, ...options });
}

describe('a lot’s forecast', () => {
  it('has bands in order and a course that only grows', () => {
    const f = look(lot(), '2026-07-15');
    for (const band of [f.ready, f.bound, f.toTarget!, f.state.heightCm, f.state.fill]) {
      expect(band.p10).toBeLessThanOrEqual(band.p50);
      expect(band.p50).toBeLessThanOrEqual(band.p90);
    }
    expect(f.ready.p50).toBeLessThanOrEqual(f.bound.p50);
    const { heightCm, fill, days } = f.course!;
    for (let i = 1; i < days.length; i++) {
      expect(days[i]).toBeGreaterThan(days[i - 1]);
      expect(heightCm[i].p50).toBeGreaterThanOrEqual(heightCm[i - 1].p50 - 1e-9);
      expect(fill[i].p50).toBeGreaterThanOrEqual(fill[i - 1].p50 - 1e-9);
    }
  });

  it('runs each draw as rootFill does', () => {
    const facts = lot();
    const f = look(facts, '2026-09-01', '2026-09-01', { explain: true });
    const { warmth } = at(dayOf('2026-09-01'));
    const up = f.emergence.seen!;
    const days = warmth.past.slice(up - warmth.pastStart);
    const { rootInitialMl, rootLinearAtMl, rootRatePerDd } = facts.species;
    const vigour = f.working
      .flatMap((step) => step.inputs ?? [])
      .find((input) => input.name === 'vigour of the lot')!.value as number;
    const alone = rootFill(
      { initialMl: rootInitialMl, cellMl: 150, ratePerDd: rootRatePerDd, linearAtMl: rootLinearAtMl, vigour },
      days,
    ).value;
    expect(alone.last).toBeGreaterThanOrEqual(f.state.fill.p10);
    expect(alone.last).toBeLessThanOrEqual(f.state.fill.p90);
    expect(f.state.fill.p50).toBeCloseTo(alone.last, 1);
  });

  it('shows working that recomputes to its figures', () => {
    const f = look(lot(), '2026-09-01', '2026-10-01', { explain: true });
    const sums = f.working.filter((step) => step.expression);
    expect(sums.length).toBeGreaterThan(4);
    for (const step of sums) {
      expect(Math.abs(recompute(step.expression!) / (step.result as number) - 1), step.what).toBeLessThan(
        1e-4,
      );
    }
    const height = f.working.find((step) => step.what === 'Height of the middle run')!;
    expect(height.result).toBeCloseTo(f.state.heightCm.p50, 0);
  });

  it('is the same each time it is made', () => {
    expect(look(lot(), '2026-07-15', '2026-09-15')).toEqual(look(lot(), '2026-07-15', '2026-09-15'));
  });

  it('takes no notice of records later than its own date', () => {
    const later = lot({
      sizes: [{ day: dayOf('2026-09-01'), what: 'height', n: 12, mean: 90, sd: 9 }],
      pulls: [{ day: dayOf('2026-09-01'), scores: [4, 4, 4] }],
    });
    expect(look(later, '2026-07-15')).toEqual(look(lot(), '2026-07-15'));
  });

  it('narrows and moves with what is pulled', () => {
    const day = dayOf('2026-10-05');
    const without = look(lot(), '2026-10-05');
    const loose = look(lot({ pulls: [{ day, scores: [0, 0, 0, 1] }] }), '2026-10-05');
    const tight = look(lot({ pulls: [{ day, scores: [3, 3, 3, 4] }] }), '2026-10-05');
    expect(loose.state.fill.p50).toBeLessThan(without.state.fill.p50);
    expect(tight.state.fill.p50).toBeGreaterThan(without.state.fill.p50);
    const width = (f: typeof loose) => f.state.fill.p90 - f.state.fill.p10;
    expect(width(loose)).toBeLessThan(width(without));
    expect(loose.vigour.startingShare).toBeLessThan(without.vigour.startingShare);
    expect(tight.bound.p50).toBeLessThan(loose.bound.p50);
  });

  it('follows the heights that were measured', () => {
    const sizes = [
      { day: dayOf('2026-07-01'), what: 'height' as const, n: 15, mean: 24, sd: 5 },
      { day: dayOf('2026-08-15'), what: 'height' as const, n: 15, mean: 48, sd: 8 },
    ];
    const f = look(lot({ sizes }), '2026-08-15');
    expect(Math.abs(f.state.heightCm.p50 - 48)).toBeLessThan(5);
    expect(f.heightStartingShare).toBeLessThan(0.7);
  });

  it('fills a larger cell later', () => {
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 600 }), fc.integer({ min: 20, max: 400 }), (cellMl, more) => {
        const ready = (ml: number) =>
          look(
            lot({ home: { kind: 'container', name: 'x', cellMl: ml, depthMm: 150, airShare: 0.3 } }),
            '2026-06-20',
          ).ready.p50;
        expect(ready(cellMl + more)).toBeGreaterThanOrEqual(ready(cellMl));
      }),
      { numRuns: 12 },
    );
  });

  it('holds to what was known: half of its dates lie before what really came', () => {
    // The same lot forecast from each of eight past springs, against that year's own weather.
    let within = 0;
    const years = [2018, 2019, 2020, 2021, 2022, 2023, 2024, 2025];
    for (const year of years) {
      const sownOn = dayOf(`${year}-04-08`);
      const facts = lot({ sownOn, counts: [{ day: dayOf(`${year}-05-12`), count: 700 }], movements: [] });
      const early = look(facts, `${year}-06-10`).ready;
      const { warmth } = at(dayOf(`${year}-12-20`));
      const up = dayOf(`${year}-05-12`);
      const s = facts.species;
      const truth = rootFill(
        {
          initialMl: s.rootInitialMl,
          cellMl: 150,
          ratePerDd: s.rootRatePerDd,
          linearAtMl: s.rootLinearAtMl,
          vigour: 1,
        },
        warmth.past.slice(up - warmth.pastStart),
      ).value;
      const came = up + truth.daysToReady! - 1;
      if (came >= early.p10 && came <= early.p90) within++;
    }
    expect(within).toBeGreaterThanOrEqual(7);
  });

  it('cannot look back before its own date', () => {
    expect(() => look(lot(), '2026-07-15', '2026-07-01')).toThrow(Unfit);
  });
});

describe('facts that move a forecast', () => {
  const height = (more: Partial<LotFacts>, asOf = '2026-06-10', view = '2026-09-25') =>
    look(lot({ home: bed, ...more }), asOf, view).state.heightCm.p50;
  it('goes on growing in the second and third season, and more in a larger pot', () => {
    const { outlook, warmth } = longAt(dayOf('2026-06-10'));
    const ends = (facts: LotFacts) =>
      forecastLot(facts, outlook, warmth, { view: dayOf('2026-06-10'), seasons: true }).seasonEnds!.ends;
    const inBed = ends(lot({ home: bed }));
    expect(inBed).toHaveLength(3);
    for (let i = 1; i < 3; i++) expect(inBed[i].heightCm.p50).toBeGreaterThan(inBed[i - 1].heightCm.p50 + 20);
    const pot = (cellMl: number) =>
      ends(lot({ home: { kind: 'container', name: 'x', cellMl, depthMm: 200, airShare: 0.3 } }));
    expect(pot(4000)[2].heightCm.p50).toBeGreaterThan(1.3 * pot(50)[2].heightCm.p50);
  });
  it('stands at what was measured today, however far from its kind', () => {
    const sizes = [{ day: dayOf('2026-08-20'), what: 'height' as const, n: 20, mean: 110, sd: 12 }];
    const f = look(lot({ home: bed, sizes }), '2026-08-20');
    expect(Math.abs(f.state.heightCm.p50 / 110 - 1)).toBeLessThan(0.12);
  });
  it('widens its bands by as much as past forecasts held too seldom, and hardly moves its middle', () => {
    const sizes = [{ day: dayOf('2026-08-20'), what: 'height' as const, n: 20, mean: 30, sd: 6 }];
    const state = (bandWidths?: LotFacts['bandWidths']) =>
      look(
        lot({ sizes, pulls: [{ day: dayOf('2026-08-20'), scores: [2, 2, 3] }], bandWidths }),
        '2026-08-22',
        '2026-09-20',
      ).state;
    const [usual, wider, narrower] = [
      state(),
      state({ height: 1.5, fill: 1.5 }),
      state({ height: 0.7, fill: 0.7 }),
    ];
    const width = ({ p10, p90 }: Band) => p90 - p10;
    for (const what of ['heightCm', 'fill'] as const) {
      expect(width(wider[what])).toBeGreaterThan(1.15 * width(usual[what]));
      expect(width(narrower[what])).toBeLessThan(0.95 * width(usual[what]));
      expect(Math.abs(wider[what].p50 / usual[what].p50 - 1)).toBeLessThan(0.06);
    }
  });
  it('grows less in shade', () => {
    expect(height({ home: { ...bed, light: 0.3 } })).toBeLessThan(0.8 * height({}));
  });
  it('loses what was browsed, asks to be measured again, and does not once it was', () => {
    const day = dayOf('2026-08-01');
    const losses = [{ day, what: 'browsing' as const, share: 0.8 }];
    expect(height({ losses }, '2026-08-02', '2026-08-02')).toBeLessThan(
      0.8 * height({}, '2026-08-02', '2026-08-02'),
    );
    const rules = (facts: LotFacts) => {
      const f = look(facts, '2026-08-10');
      return actsFor(facts, f, standingOf(facts, f)!, LATITUDE).map((a) => a.rule);
    };
    const browsed = lot({ home: bed, losses });
    expect(rules(browsed)).toContain('remeasure');
    const sizes = [{ day: day + 5, what: 'height' as const, n: 12, mean: 20, sd: 4 }];
    expect(rules({ ...browsed, sizes })).not.toContain('remeasure');
  });
  it('says which winter a bed lot stood through', () => {
    const held = lot({
      home: { ...bed, headroomCm: null },
      sownOn: dayOf('2025-04-08'),
      counts: [{ day: dayOf('2025-05-12'), count: 700 }],
      movements: lot().movements.map((m) => ({ ...m, day: m.day - 365 })),
    });
    const f = look(held, '2026-06-01');
    expect(isoOf(f.missedLift!)).toMatch(/^2026-0[345]/);
    expect(standingOf(held, f)!.decision).toMatchObject({ kind: 'grow-on', missed: f.missedLift });
    expect(look(lot({ home: bed }), '2026-09-01').missedLift).toBeNull();
  });
  it('asks for a flat to be pricked out, and never to be left to fill', () => {
    const flat = lot({
      home: { kind: 'container', name: 'Flat', cellMl: 9000, depthMm: 60, airShare: 0.1, pitchMm: null },
    });
    const kinds = ['2026-05-14', '2026-06-05', '2026-08-01'].map(
      (iso) => standingOf(flat, look(flat, iso))!.decision.kind,
    );
    expect(kinds).toEqual(['await-leaves', 'prick-out', 'prick-out']);
    const f = look(flat, '2026-06-05');
    expect(actsFor(flat, f, standingOf(flat, f)!, LATITUDE).map((a) => a.rule)).toContain('prick-out');
  });
});

describe('frost at the roots', () => {
  const asOf = dayOf('2027-01-20');
  const cold = (days: number): WeatherSeries => ({
    start: asOf - days + 1,
    tMinC: new Float64Array(days).fill(-15),
    tMaxC: new Float64Array(days).fill(-6),
    rainMm: new Float64Array(days),
  });
  const stress = (weather: WeatherSeries) => {
    const outlook = weatherOutlook(weather, site, asOf, { horizonDays: 60 });
    return forecastLot(lot(), outlook, warmthOf(outlook), { view: asOf }).rootStress;
  };
  it('is told of nights that were measured', () => {
    expect(stress(cold(6))).toMatchObject({ kind: 'frost', risk: 'harm', airC: -15 });
  });
  it('is never told of nights that were only filled in from averages', () => {
    expect(stress({ ...cold(1), tMinC: Float64Array.of(NaN), tMaxC: Float64Array.of(NaN) })).toBeNull();
    // Measured a week ago, and not since.
    expect(stress({ ...cold(6), start: asOf - 12 })).toBeNull();
  });
});

describe('a place without winters', () => {
  it('grows on through the year, rests never, and is told to lift by size', () => {
    const tropics = { latitudeDeg: 12, elevationM: 50 };
    const asOf = dayOf('2026-12-15');
    const warm = generateWeather(roughNormals(12, 50), asOf - 2500, 2501, 3);
    const outlook = weatherOutlook(warm, tropics, asOf, { horizonDays: 460 });
    const facts = lot({
      home: { ...bed, headroomCm: null },
      species: speciesLibrary.find((s) => s.code === 'AML')!.values,
    });
    const f = forecastLot(facts, outlook, warmthOf(outlook), { view: asOf });
    expect([f.growing, f.rests]).toEqual([true, false]);
    expect(standingOf(facts, f)!.decision).toMatchObject({ kind: 'grow-on', rests: false });
    expect(f.state.heightCm.p50).toBeGreaterThan(50);
    // The same lot in a country with winters has stopped.
    expect(look(lot({ home: bed }), '2026-12-15').growing).toBe(false);
  });
});

describe('coming up', () => {
  it('is forecast from warmth, and settled by the first count above none', () => {
    const before = look(lot({ counts: [] }), '2026-04-20');
    expect(before.emergence.seen).toBeNull();
    expect(before.emergence.band.p10).toBeGreaterThan(dayOf('2026-04-20'));
    const after = look(lot(), '2026-06-01');
    expect(after.emergence).toMatchObject({ seen: dayOf('2026-05-12') });
  });
  it('is not before a count of none', () => {
    const none = look(lot({ counts: [{ day: dayOf('2026-05-20'), count: 0 }] }), '2026-05-20');
    expect(none.emergence.band.p10).toBeGreaterThan(dayOf('2026-05-20'));
  });
  const fresh = (code: string, sown: string, more: Partial<LotFacts> = {}) => {
    const kind = speciesLibrary.find((s) => s.code === code)!;
    return lot({
      species: kind.values,
      waking: wakingOf(kind.latin, kind.values.start!.protocols).waking,
      seedState: 'fresh',
      sownOn: dayOf(sown),
      counts: [],
      movements: [
        { day: dayOf(sown), from: 'supply', to: 'seed', count: 100 },
        { day: dayOf(sown), from: 'seed', to: 'sown', count: 100 },
      ],
      ...more,
    });
  };
  it('waits for the cold that fresh seed needs: the coming spring, or the one after two winters', () => {
    expect(isoOf(look(fresh('QPE', '2025-10-20'), '2025-11-01').emergence.band.p50)).toMatch(/^2026-0[456]/);
    expect(isoOf(look(fresh('CRA', '2025-10-28'), '2026-06-10').emergence.band.p50)).toMatch(/^2027-0[456]/);
    expect(emergenceClock(lot({ species: species('CRA') }), at(dayOf('2026-05-01')).warmth)).toBe(
      dayOf('2026-04-08'),
    );
  });
  it('of fresh seed sown after midwinter waits for the next winter, and is not written off before', () => {
    const late = fresh('CAV', '2026-03-15', {
      counts: ['2026-05-25', '2026-06-25', '2026-07-20'].map((iso) => ({ day: dayOf(iso), count: 0 })),
    });
    const f = look(late, '2026-07-21');
    expect(isoOf(f.emergence.band.p50)).toMatch(/^2027-0[456]/);
    expect(standingOf(late, f)!.status).toBe('waiting');
  });
  it('learns from a count of none: only lots that would still be asleep are left', () => {
    const quiet = fresh('QPE', '2025-10-20', { counts: [{ day: dayOf('2026-05-25'), count: 0 }] });
    const before = look(fresh('QPE', '2025-10-20'), '2026-05-26').emergence.band;
    const after = look(quiet, '2026-05-26').emergence;
    expect(after.band.p10).toBeGreaterThan(dayOf('2026-05-25'));
    expect(after.band.p50).toBeGreaterThan(before.p50);
    expect(after.usual).toEqual(before);
  });
});

describe('what a lot is, and what to do', () => {
  let views: Record<string, { status: string; kind: string }>;
  const judge = (facts: LotFacts, asOf: string) => {
    const forecast = look(facts, asOf);
    const standing = standingOf(facts, forecast);
    return { forecast, standing, acts: standing ? actsFor(facts, forecast, standing, LATITUDE) : [] };
  };
  beforeAll(() => {
    const short = (facts: LotFacts, asOf: string) => {
      const s = judge(facts, asOf).standing!;
      return { status: s.status, kind: s.decision.kind };
    };
    views = {
      young: short(lot(), '2026-06-10'),
      autumn: short(lot(), '2026-11-20'),
      inBed: short(lot({ home: bed, targetHeightCm: 40 }), '2026-06-20'),
      dormant: short(lot({ home: bed }), '2026-11-22'),
    };
  });
  it('goes from filling to a plug that has to move', () => {
    expect(views.young).toEqual({ status: 'filling', kind: 'let-fill' });
    expect(['holding', 'bound']).toContain(views.autumn.status);
    expect(views.inBed).toEqual({ status: 'growing', kind: 'grow-on' });
    expect(views.dormant.status).toBe('lift');
  });
  it('is nothing before it was sown', () => {
    expect(judge(lot(), '2026-04-01').standing).toBeNull();
  });
  it('is lifted, or ended, when nothing stands', () => {
    const gone = (to: 'lifted' | 'out:browsed') =>
      lot({
        movements: [
          ...lot().movements,
          { day: dayOf('2026-10-01'), from: 'standing', to, count: 700 },
          { day: dayOf('2026-10-01'), from: 'sown', to: 'out:not-emerged', count: 300 },
        ],
      });
    expect(judge(gone('lifted'), '2026-11-01').standing!.status).toBe('lifted');
    expect(judge(gone('out:browsed'), '2026-11-01').standing!.status).toBe('ended');
    expect(judge(gone('lifted'), '2026-11-01').acts).toEqual([]);
    // On a date before that it still stands.
    expect(judge(gone('lifted'), '2026-09-01').standing!.tally.standing).toBe(700);
  });
  it('has failed when it was looked for over weeks and none came', () => {
    const none = lot({
      counts: [dayOf('2026-05-20'), dayOf('2026-06-20'), dayOf('2026-07-20')].map((day) => ({
        day,
        count: 0,
      })),
      movements: lot().movements.slice(0, 2),
    });
    const { standing, acts } = judge(none, '2026-07-21');
    expect(standing).toMatchObject({ status: 'failed', urgent: true });
    expect(acts.map((act) => act.rule)).toContain('write-off');
    expect(judge(none, '2026-06-21').standing!.status).toBe('waiting');
  });
  it('warns of the lid before it is reached', () => {
    const sizes = [{ day: dayOf('2026-07-10'), what: 'height' as const, n: 15, mean: 30, sd: 6 }];
    const { forecast, acts } = judge(lot({ home: bed, sizes }), '2026-07-10');
    expect(forecast.lid!.p50).toBeLessThan(dayOf('2026-09-30'));
    expect(acts.map((act) => act.rule)).toContain('lid-reached');
  });
  it('asks for a lift in the window, with the date it is best before', () => {
    const { acts, forecast } = judge(lot({ home: bed }), '2026-11-22');
    expect(acts.find((act) => act.rule === 'lift')).toMatchObject({
      by: forecast.lifting.bestBefore,
      trees: 700,
    });
  });
  it('asks for plugs where they would settle a doubt, and once', () => {
    const doubtful = [...Array(30).keys()]
      .map((i) => judge(lot(), `2026-09-${String(i + 1).padStart(2, '0')}`))
      .find((j) => j.forecast.state.chanceReady > 0.3 && j.forecast.state.chanceReady < 0.7)!;
    expect(doubtful.acts.map((act) => act.rule)).toContain('pull-plug');
    const pulled = lot({ pulls: [{ day: doubtful.forecast.asOf, scores: [2] }] });
    const { outlook, warmth } = at(doubtful.forecast.asOf);
    const forecast = forecastLot(pulled, outlook, warmth, { view: doubtful.forecast.asOf });
    expect(
      actsFor(pulled, forecast, standingOf(pulled, forecast)!, LATITUDE).map((act) => act.rule),
    ).not.toContain('pull-plug');
  });
  it('warns of a second season in one container, once a root-bound lot is not asked for already', () => {
    const slow = lot({
      species: { ...species('ALN'), rootRatePerDd: 0.0015 },
      sownOn: dayOf('2025-04-08'),
      counts: [{ day: dayOf('2025-05-12'), count: 700 }],
    });
    const moved = { ...slow, movements: slow.movements.map((m) => ({ ...m, day: m.day - 365 })) };
    expect(judge(moved, '2026-12-01').acts.find((act) => act.rule === 'second-season')).toMatchObject({
      figures: { seasons: 2 },
    });
    const fast = { ...moved, species: species('ALN') };
    const rules = judge(fast, '2026-11-20').acts.map((act) => act.rule);
    expect(rules).toContain('root-bound');
    expect(rules).not.toContain('second-season');
  });
  it('is ready where most runs hold', () => {
    const f = look(lot({ pulls: [{ day: dayOf('2026-09-01'), scores: [3, 3, 2] }] }), '2026-09-01');
    expect(f.state.fill.p50).toBeGreaterThan(READY_FILL * 0.95);
    expect(f.state.chanceReady).toBeGreaterThan(0.5);
  });
});
