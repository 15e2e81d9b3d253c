import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import { generateWeather } from '../weather/generator';
import { weatherOutlook } from '../weather/ensemble';
import { roughNormals } from '../weather/normals';
import type { WeatherSeries } from '../weather/series';
import { planTreatment } from './planTreatment';
import { protocolsFrom } from '../species/protocol';
import { coldWeight, runClock, treatmentClock, warmWeight, type TreatmentFacts } from './treatmentClock';

const north = { latitudeDeg: 54.6, elevationM: 185 };
const south = { latitudeDeg: -41.2, elevationM: 780 };

function outlookOf(site: typeof north, asOf: string, seed = 3) {
  const end = dayOf(asOf);
  const series = generateWeather(roughNormals(site.latitudeDeg, site.elevationM), end - 3650, 3651, seed);
  return weatherOutlook(series, site, end, { horizonDays: 460 });
}

const batch = (more: Partial<TreatmentFacts> = {}): TreatmentFacts => ({
  phases: protocolsFrom('cold60')[0].phases,
  startedOn: dayOf('2026-11-01'),
  store: { kind: 'fixed', warmC: 20, coldC: 3 },
  radicleDd: { median: 90, sdLog: 0.4 },
  checks: [],
  ...more,
});

describe('what a day counts for', () => {
  it.each([
    [-5, 0],
    [-1, 0],
    [0, 0.5],
    [1, 1],
    [5, 1],
    [7.5, 0.5],
    [10, 0],
    [20, 0],
  ])('%d °C counts %d in the cold', (temp, counts) => expect(coldWeight(temp)).toBeCloseTo(counts));
  it.each([
    [10, 0],
    [12.5, 0.5],
    [15, 1],
    [25, 1],
    [27.5, 0.5],
    [30, 0],
  ])('%d °C counts %d in the warm', (temp, counts) => expect(warmWeight(temp)).toBeCloseTo(counts));
});

describe('the clock', () => {
  // Ten days by hand: counts 1, 1, 0.5, 0, 0.5, 1, 1, 1 → five effective days are done on the seventh day.
  const temps = [3, 5, 0, -1, 7.5, 1, 2, 4, 4, 4];
  it.each([
    ['north', north, '2026-12-31'],
    ['south', south, '2026-06-30'],
  ])('counts as by hand, day by day, in the %s', (_, site, today) => {
    const start = dayOf(today) - temps.length + 1;
    const series: WeatherSeries = {
      start,
      tMinC: Float64Array.from(temps, (t) => t - 2),
      tMaxC: Float64Array.from(temps, (t) => t + 2),
      rainMm: new Float64Array(temps.length),
    };
    const outlook = weatherOutlook(series, site, dayOf(today), { horizonDays: 60 });
    const clock = treatmentClock(
      batch({
        phases: [{ kind: 'cold', days: 5 }],
        startedOn: start,
        store: { kind: 'outdoors', warmerByC: 0 },
      }),
      outlook,
    ).value;
    expect(clock.ready.p50).toBe(start + 6);
    expect(clock.phases[0]).toMatchObject({ state: 'done', effective: 5 });
  });

  it('in a fixed room is ready after its days, and each phase follows the last', () => {
    const outlook = outlookOf(north, '2026-11-24');
    const clock = treatmentClock(
      batch({ phases: protocolsFrom('soak1 warm28 cold98')[0].phases, startedOn: dayOf('2026-11-01') }),
      outlook,
    ).value;
    expect(clock.phases.map((p) => isoOf(p.start.p50))).toEqual(['2026-11-01', '2026-11-02', '2026-11-30']);
    expect(isoOf(clock.ready.p50)).toBe('2027-03-07');
    expect(clock.phases[1]).toMatchObject({ state: 'now', effective: 23 });
  });

  it('half-warm rooms take twice as long', () => {
    const ready = (coldC: number) => runClock(batch({ startedOn: 0 }), () => coldC, 0).ready;
    expect(ready(7.5)).toBeGreaterThanOrEqual(2 * ready(3) - 1);
    expect(ready(12)).toBe(Infinity);
  });

  it('early radicles only grow likelier, week by week, and sooner in a warmer tub', () => {
    const outlook = outlookOf(north, '2027-02-01');
    const weeks = (warmerByC: number) =>
      treatmentClock(batch({ store: { kind: 'outdoors', warmerByC } }), outlook).value.weeks.map(
        (w) => w.chance,
      );
    const cool = weeks(0);
    const mild = weeks(3);
    for (let i = 1; i < cool.length; i++) expect(cool[i]).toBeGreaterThanOrEqual(cool[i - 1] - 1e-12);
    expect(mild.reduce((a, b) => a + b)).toBeGreaterThan(cool.reduce((a, b) => a + b));
  });

  it('a clean check late in the day makes radicles less likely; one found says so', () => {
    const outlook = outlookOf(north, '2027-02-20');
    const at = (checks: TreatmentFacts['checks']) => treatmentClock(batch({ checks }), outlook).value;
    const day = dayOf('2027-02-18');
    expect(at([{ day, n: 50, radicles: 0 }]).radiclesNow).toBeLessThan(at([]).radiclesNow);
    expect(at([{ day, n: 50, radicles: 0 }]).radiclesSeenOn).toBeNull();
    expect(at([{ day, n: 50, radicles: 4 }]).radiclesSeenOn).toBe(day);
    expect(() => at([{ day, n: 5, radicles: 6 }])).toThrow(/6 radicles in 5/);
  });

  it('asks for a look before the risk, and not again the same week', () => {
    const outlook = outlookOf(north, '2026-12-20');
    const { nextCheck } = treatmentClock(
      batch({ checks: [{ day: dayOf('2026-12-19'), n: 50, radicles: 0 }] }),
      outlook,
    ).value;
    expect(nextCheck).toBeGreaterThanOrEqual(dayOf('2026-12-26'));
    expect(nextCheck).toBeLessThanOrEqual(dayOf('2027-01-16'));
  });

  it('refuses a phase of no days', () => {
    expect(() =>
      treatmentClock(batch({ phases: [{ kind: 'cold', days: 0 }] }), outlookOf(north, '2026-12-20')),
    ).toThrow(/zero days/);
  });
});

describe('backwards from a sowing day', () => {
  it('in fixed rooms begins so that the last effective day is the sowing day', () => {
    const outlook = outlookOf(north, '2026-11-24');
    const sowOn = dayOf('2027-04-20');
    const plan = planTreatment(
      protocolsFrom('warm28 cold98')[0].phases,
      { kind: 'fixed', warmC: 20, coldC: 3 },
      sowOn,
      outlook,
    ).value;
    expect(plan.ready.p50).toBe(sowOn);
    expect(plan.begin).toBe(sowOn - 28 - 98 + 1);
    expect(plan.phases[1].start.p50).toBe(plan.begin + 28);
  });

  it('out of doors is ready in time in at least the share asked, and a day later is not', () => {
    const outlook = outlookOf(north, '2026-11-24');
    fc.assert(
      fc.property(fc.constantFrom('2027-03-20', '2027-04-20'), fc.constantFrom(40, 60, 80), (day, days) => {
        const plan = planTreatment(
          [{ kind: 'cold', days }],
          { kind: 'outdoors', warmerByC: 0 },
          dayOf(day),
          outlook,
          0.8,
        ).value;
        expect(plan.chance).toBeGreaterThanOrEqual(0.8);
        expect(plan.begin).toBeLessThan(dayOf(day) - days + 2);
      }),
      { numRuns: 6 },
    );
  });

  it('two winters start the summer before, and half a year on in the south', () => {
    const { phases } = protocolsFrom('tub: warm84 cold112')[0];
    const tub = { kind: 'outdoors' as const, warmerByC: 1 };
    const up = planTreatment(phases, tub, dayOf('2027-04-10'), outlookOf(north, '2026-11-24')).value;
    const down = planTreatment(phases, tub, dayOf('2027-10-10'), outlookOf(south, '2026-11-24')).value;
    expect(dayOf('2027-04-10') - up.begin).toBeGreaterThan(196);
    expect([4, 5, 6, 7, 8]).toContain(Number(isoOf(up.begin).slice(5, 7)));
    expect([10, 11, 12, 1, 2]).toContain(Number(isoOf(down.begin).slice(5, 7)));
  });

  it('says so when a store never counts', () => {
    expect(() =>
      planTreatment(
        [{ kind: 'cold', days: 60 }],
        { kind: 'fixed', warmC: 20, coldC: 12 },
        dayOf('2027-04-20'),
        outlookOf(north, '2026-11-24'),
      ),
    ).toThrow(/no day counts/);
  });
});
