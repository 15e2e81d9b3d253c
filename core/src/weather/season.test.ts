import type { Home } from '../home/home';
import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import { generateWeather } from './generator';
import { roughNormals } from './normals';
import { lotsAtRisk, seasonCourses, vapourDeficitKpa, weatherEvents, type WeatherEvent } from './season';
import type { WeatherSeries } from './series';
import { sineAbove } from './degreeDays';
import { seasonsOf } from './growingPeriods';

const north = { latitudeDeg: 54.6, elevationM: 185 };
const south = { latitudeDeg: -41.2, elevationM: 780 };
const record = (site: typeof north, seed = 7) =>
  generateWeather(roughNormals(site.latitudeDeg, site.elevationM), dayOf('2016-11-26'), 3653, seed);

/** A year of mild days, with some changed. */
function mild(
  changes: Record<string, Partial<Record<'tMinC' | 'tMaxC' | 'rainMm' | 'humidity' | 'windMs', number>>>,
) {
  const start = dayOf('2026-01-01');
  const of = (value: number) => new Float64Array(365).fill(value);
  const series: Required<WeatherSeries> = {
    start,
    tMinC: of(8),
    tMaxC: of(16),
    rainMm: of(0),
    humidity: of(0.7),
    windMs: of(2),
  };
  for (const [date, change] of Object.entries(changes))
    for (const [what, value] of Object.entries(change)) series[what as 'tMinC'][dayOf(date) - start] = value!;
  return series;
}

describe('the season so far', () => {
  it('adds warmth up from the season’s first day, and stands among past years', () => {
    const series = record(north);
    const asOf = dayOf('2026-08-15');
    const [warmth, chill, rain] = seasonCourses(series, north, asOf);
    expect(isoOf(warmth.from)).toBe('2026-01-01');
    expect(isoOf(chill.from)).toBe('2025-11-01');
    let sum = 0;
    for (let day = warmth.from; day <= asOf; day++)
      sum += sineAbove(series.tMinC[day - series.start], series.tMaxC[day - series.start], 5);
    expect(warmth.sofar.at(-1)).toBeCloseTo(sum, 6);
    expect(warmth.pastYears).toBeGreaterThanOrEqual(8);
    const i = warmth.sofar.length - 1;
    expect(warmth.past.low[i]).toBeLessThan(warmth.past.high[i]);
    expect(warmth.past.middle[i] / warmth.sofar[i]).toBeGreaterThan(0.7);
    expect(rain.missing).toBe(0);
  });
  it('begins in July in the south', () => {
    const [warmth, chill] = seasonCourses(record(south), south, dayOf('2026-11-20'));
    expect(isoOf(warmth.from)).toBe('2026-07-01');
    expect(isoOf(chill.from)).toBe('2026-05-01');
  });
  it('counts days nobody measured, and adds nothing for them', () => {
    const series = record(north);
    const asOf = dayOf('2026-08-15');
    const whole = seasonCourses(series, north, asOf)[0].sofar.at(-1)!;
    for (let day = dayOf('2026-07-01'); day <= dayOf('2026-07-10'); day++)
      series.tMinC[day - series.start] = NaN;
    const holed = seasonCourses(series, north, asOf)[0];
    expect(holed.missing).toBe(10);
    expect(holed.sofar.at(-1)!).toBeLessThan(whole);
  });
});

describe('weather events', () => {
  it('tells late frost from winter’s, and joins days that follow one another', () => {
    const series = mild({
      '2026-01-20': { tMinC: -8 },
      '2026-05-10': { tMinC: -2 },
      '2026-05-11': { tMinC: -3 },
      '2026-07-18': { tMaxC: 33 },
      '2026-08-02': { rainMm: 44 },
    });
    const events = weatherEvents(series, 54.6, dayOf('2026-01-01'), dayOf('2026-12-31'));
    expect(events.map((e) => [e.kind, isoOf(e.from), isoOf(e.to), e.worst])).toEqual([
      ['hard frost', '2026-01-20', '2026-01-20', -8],
      ['late frost', '2026-05-10', '2026-05-11', -3],
      ['heat', '2026-07-18', '2026-07-18', 33],
      ['downpour', '2026-08-02', '2026-08-02', 44],
    ]);
  });
  it('puts the late frost in November where spring comes then', () => {
    const series = mild({ '2026-11-10': { tMinC: -2 } });
    const kinds = (lat: number) =>
      weatherEvents(series, lat, dayOf('2026-11-01'), dayOf('2026-11-30')).map((e) => e.kind);
    expect(kinds(-41.2)).toEqual(['late frost']);
    expect(kinds(54.6)).toEqual([]);
  });
  it('needs humidity and wind to call a wind drying', () => {
    const day = { tMinC: 12, tMaxC: 26, humidity: 0.35, windMs: 8 };
    expect(vapourDeficitKpa(19, 0.35)).toBeCloseTo(1.43, 1);
    const from = dayOf('2026-06-01');
    expect(weatherEvents(mild({ '2026-06-05': day }), 54.6, from, from + 20).map((e) => e.kind)).toEqual([
      'drying wind',
    ]);
    expect(weatherEvents(mild({ '2026-06-05': { ...day, windMs: NaN } }), 54.6, from, from + 20)).toEqual([]);
  });
});

describe('lots at risk', () => {
  const tube: Home = { kind: 'container', name: 'Tube', cellMl: 150, depthMm: 165, airShare: 0.3 };
  const pot: Home = { ...tube, name: 'Pot', cellMl: 3000 };
  const bed: Home = { kind: 'bed', densityPerM2: 150, settledDepthMm: 240, airShare: 0.5, headroomCm: null };
  const event = (kind: WeatherEvent['kind']): WeatherEvent => ({ kind, from: 1000, to: 1001, worst: 0 });
  const lot = (lotId: string, home: Home, upOn: number | null, standing = 100) => ({
    lotId,
    home,
    upOn,
    standing,
  });
  const hit = (kind: WeatherEvent['kind'], ...lots: ReturnType<typeof lot>[]) =>
    lotsAtRisk(event(kind), lots).map((l) => l.lotId);
  it('are the soft ones in a late frost, the potted ones in a hard one, the small cells in heat', () => {
    const lots = [lot('young', bed, 970), lot('old', bed, 500), lot('tube', tube, 500), lot('pot', pot, 500)];
    expect(hit('late frost', ...lots)).toEqual(['young']);
    expect(hit('hard frost', ...lots)).toEqual(['tube', 'pot']);
    expect(hit('heat', ...lots)).toEqual(['young', 'tube']);
  });
  it('are none that are not up, gone, or under a cover in a frost', () => {
    expect(hit('late frost', lot('a', bed, null), lot('b', bed, 1010), lot('c', bed, 990, 0))).toEqual([]);
    expect(hit('hard frost', lot('t', { ...tube, cover: { lowC: 3, highC: 4 } }, 500))).toEqual([]);
  });
});

describe('seasons of a plant', () => {
  const year = (y: number) => ({ from: dayOf(`${y}-04-20`), to: dayOf(`${y}-09-30`) });
  const periods = [year(2026), year(2027), year(2028)];
  const of = (up: string) =>
    seasonsOf(periods, dayOf(up), dayOf('2028-12-31')).map(({ season, from, to }) => [
      season,
      isoOf(from),
      isoOf(to),
    ]);
  it('are its own summer and those after', () => {
    expect(of('2026-05-10')[0]).toEqual([0, '2026-05-10', '2026-09-30']);
    expect(of('2026-05-10')[1]).toEqual([1, '2027-04-20', '2027-09-30']);
  });
  it('rest through the winter where it came up just before it, and the first goes on next summer', () => {
    expect(of('2026-09-05')).toEqual([
      [0, '2026-09-05', '2026-09-30'],
      [0, '2027-04-20', '2027-09-30'],
      [1, '2028-04-20', '2028-09-30'],
    ]);
  });
  it('begin at once where it came up in winter, under cover', () => {
    expect(of('2026-12-20')[0]).toEqual([0, '2026-12-20', '2027-09-30']);
  });
});
