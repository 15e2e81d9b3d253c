import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import { generateWeather } from '../weather/generator';
import { weatherOutlook } from '../weather/ensemble';
import { roughNormals } from '../weather/normals';
import type { WeatherSeries } from '../weather/series';
import { planTreatment } from './planTreatment';
import { normalDraw, seededRandom } from '../chance/random';
import { protocolsFrom } from '../species/protocol';
import { wakingOf } from '../species/waking';
import { radicleShare } from './waking';
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
  waking: wakingOf('Castanea sativa', []),
  taproot: true,
  alive: { alpha: 8, beta: 2 },
  seeds: 500,
  before: [],
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

const kind = (latin: string, taproot = false) => ({ waking: wakingOf(latin, []), taproot });

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
    expect(clock.phases[0]).toMatchObject({ state: 'done', effective: 5 });
  });

  it('in a fixed room each phase follows the last', () => {
    const clock = treatmentClock(
      batch({ phases: protocolsFrom('soak1 warm28 cold98')[0].phases, startedOn: dayOf('2026-11-01') }),
      outlookOf(north, '2026-11-24'),
    ).value;
    expect(clock.phases.map((p) => isoOf(p.start.p50))).toEqual(['2026-11-01', '2026-11-02', '2026-11-30']);
    expect(clock.phases[1]).toMatchObject({ state: 'now', effective: 23 });
  });

  /** Weather whose January is as warm as given, on the day it has ended. */
  const afterJanuary = (januaryC: number, asOf = '2027-02-01') => {
    const outlook = outlookOf(north, asOf);
    const [from, to] = [dayOf('2027-01-01'), dayOf('2027-01-31')];
    for (let day = from; day <= to; day++) {
      outlook.pastMinC[day - outlook.pastStart] = januaryC - 2;
      outlook.pastMaxC[day - outlook.pastStart] = januaryC + 2;
    }
    return outlook;
  };
  const tub = { kind: 'outdoors', warmerByC: 0 } as const;
  it('a mild January brings nuts forward, and never stops their clock', () => {
    for (const latin of ['Castanea sativa', 'Quercus robur', 'Juglans regia']) {
      const at = (januaryC: number) =>
        treatmentClock(batch({ store: tub, waking: wakingOf(latin, []) }), afterJanuary(januaryC)).value;
      const [cold, mild, warm] = [1, 4, 8].map(at);
      expect(mild.radiclesNow, latin).toBeGreaterThanOrEqual(cold.radiclesNow);
      expect(warm.radiclesNow, latin).toBeGreaterThan(cold.radiclesNow);
      expect(warm.weeks[3].chance, latin).toBeGreaterThan(0.3);
      expect(isoOf(mild.ready.p50), latin).toMatch(/^202[67]/);
    }
  });
  it('leaves deep-dormant seed behind in a mild winter', () => {
    const at = (januaryC: number) =>
      treatmentClock(batch({ store: tub, waking: wakingOf('Sorbus aucuparia', []) }), afterJanuary(januaryC))
        .value;
    expect(at(9).chilled.days).toBeLessThan(at(4).chilled.days);
    expect(at(9).ready.p50).toBeGreaterThan(at(4).ready.p50);
  });
  it('counts the cold a bag had before', () => {
    const outlook = outlookOf(north, '2026-11-24');
    const after = (before: TreatmentFacts['before']) => treatmentClock(batch({ before }), outlook).value;
    expect(after([[40, 3]]).chilled.days).toBeGreaterThan(after([]).chilled.days + 15);
    expect(after([[40, 3]]).ready.p50).toBeLessThan(after([]).ready.p50);
  });
  it('says when it is ready and when it has come too far, in that order', () => {
    for (const [latin, phases] of [
      ['Castanea sativa', 'cold60'],
      ['Corylus avellana', 'cold90'],
      ['Quercus robur', 'cold60'],
    ]) {
      const facts = batch({
        waking: wakingOf(latin, []),
        taproot: false,
        phases: protocolsFrom(phases)[0].phases,
      });
      const { ready, lastToSow } = treatmentClock(facts, outlookOf(north, '2026-12-01')).value;
      expect(ready.p10, latin).toBeLessThanOrEqual(ready.p50);
      expect(ready.p50, latin).toBeLessThan(lastToSow.p50);
    }
  });
  it('is told of what more than this weather explains', () => {
    const outlook = outlookOf(north, '2026-11-20');
    const look = (radicles: number) =>
      treatmentClock(batch({ checks: [{ day: dayOf('2026-11-18'), n: 50, radicles }] }), outlook).value;
    expect(look(0).surprising).toBe(false);
    expect(look(40).surprising).toBe(true);
  });
  it('holds the shares it promises: eight in ten simulated lots within the band after two looks', () => {
    const outlook = outlookOf(north, '2027-02-20');
    const waking = wakingOf('Castanea sativa', []);
    const random = seededRandom(31);
    const [first, second, then] = ['2027-01-20', '2027-02-15', '2027-03-20'].map((d) => dayOf(d));
    let within = 0;
    const lots = 120;
    for (let i = 0; i < lots; i++) {
      const [depthLog, heatLog] = [0.3 * normalDraw(random), 0.35 * normalDraw(random)];
      const out = (day: number) =>
        radicleShare({
          spells: [[day - dayOf('2026-11-01') + 1, 3]],
          waking: waking.waking,
          depthLog,
          heatLog,
        }).out * 0.8;
      const checks = [first, second].map((day) => {
        let radicles = 0;
        for (let k = 0; k < 50; k++) if (random() < out(day)) radicles++;
        return { day, n: 50, radicles };
      });
      const { ready } = treatmentClock(batch({ checks }), outlook).value;
      // The day on which its own ready share passes eight in ten.
      let day = dayOf('2026-11-01');
      const readyOn = (on: number) =>
        radicleShare({
          spells: [[on - dayOf('2026-11-01') + 1, 3]],
          waking: waking.waking,
          depthLog,
          heatLog,
        }).ready;
      while (day < then + 200 && readyOn(day) < 0.8) day += 3;
      if (day >= ready.p10 - 3 && day <= ready.p90 + 3) within++;
    }
    expect(within / lots).toBeGreaterThan(0.7);
    expect(within / lots).toBeLessThan(0.95);
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

const tubAt = (warmerByC: number) => ({ kind: 'outdoors' as const, warmerByC });

describe('backwards from a sowing day', () => {
  it('gives two days between which to begin, each keeping its promise, and one day on not', () => {
    const outlook = outlookOf(north, '2026-11-24');
    const sowOn = dayOf('2027-04-20');
    const rooms = { kind: 'fixed', warmC: 20, coldC: 3 } as const;
    const plan = planTreatment(
      protocolsFrom('cold60')[0].phases,
      rooms,
      sowOn,
      outlook,
      kind('Castanea sativa', true),
    ).value;
    expect(plan.chance).toBeGreaterThanOrEqual(0.8);
    expect(plan.notBefore).toBeLessThan(plan.begin);
    expect(plan.crosses).toBe(false);
    expect(sowOn - plan.begin).toBeGreaterThan(35);
    expect(sowOn - plan.begin).toBeLessThan(100);
    expect(plan.phases[0].start.p50).toBe(plan.begin);
    expect(plan.chanceNotTooFar).toBeGreaterThan(0.8);
  });
  it('says so where no day keeps both', () => {
    // Of limes the first are far on when the last are ready.
    const plan = planTreatment(
      protocolsFrom('warm112 cold112')[0].phases,
      { kind: 'fixed', warmC: 20, coldC: 3 },
      dayOf('2027-05-20'),
      outlookOf(north, '2026-11-24'),
      kind('Tilia cordata'),
    ).value;
    expect(plan.crosses).toBe(true);
    expect(plan.notBefore).toBeGreaterThan(plan.begin);
    expect(plan.chanceNotTooFar).toBeLessThan(0.8);
  });

  it('two winters start the summer before, and half a year on in the south', () => {
    const { phases } = protocolsFrom('tub: warm84 cold112')[0];
    const hawthorn = kind('Crataegus monogyna');
    const up = planTreatment(
      phases,
      tubAt(1),
      dayOf('2027-04-10'),
      outlookOf(north, '2026-11-24'),
      hawthorn,
    ).value;
    const down = planTreatment(
      phases,
      tubAt(1),
      dayOf('2027-10-10'),
      outlookOf(south, '2026-11-24'),
      hawthorn,
    ).value;
    expect(dayOf('2027-04-10') - up.begin).toBeGreaterThan(150);
    expect([4, 5, 6, 7, 8, 9]).toContain(Number(isoOf(up.begin).slice(5, 7)));
    expect([10, 11, 12, 1, 2, 3]).toContain(Number(isoOf(down.begin).slice(5, 7)));
  });

  it('says so when a store never counts', () => {
    expect(() =>
      planTreatment(
        [{ kind: 'cold', days: 60 }],
        { kind: 'fixed', warmC: 20, coldC: 12 },
        dayOf('2027-04-20'),
        outlookOf(north, '2026-11-24'),
        kind('Castanea sativa'),
      ),
    ).toThrow(/no day counts/);
  });
});
