import { Unfit } from '../working/unfit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import { degreeDays, sineAbove } from './degreeDays';
import { weatherOutlook } from './ensemble';
import { generateWeather } from './generator';
import { hoursBetween } from './hoursBetween';
import { fitNormals, nudgedNormals, roughNormals, waveAt, type Normals, type Wave } from './normals';
import { lastDay, seriesFrom, type WeatherSeries } from './series';
import { dailyOn, ribbonDays, warmthOf } from './sums';

const site = { latitudeDeg: 54.6, elevationM: 185 };
/** A day's temperatures, to a tenth of a degree; the highest at least half a degree above the lowest. */
const temps = fc
  .tuple(fc.integer({ min: -300, max: 450 }), fc.integer({ min: 5, max: 250 }))
  .map(([low, range]) => ({ tMinC: low / 10, tMaxC: (low + range) / 10 }));

/** The day's sine, cut into small steps and summed. */
function bySteps({ tMinC, tMaxC }: { tMinC: number; tMaxC: number }, figure: (t: number) => number): number {
  const n = 20_000;
  let total = 0;
  for (let i = 0; i < n; i++) {
    total +=
      figure((tMinC + tMaxC) / 2 + ((tMaxC - tMinC) / 2) * Math.sin((2 * Math.PI * (i + 0.5)) / n)) / n;
  }
  return total;
}

describe('degree-days', () => {
  it('are the area of the sine above the base, below the cut-off', () => {
    fc.assert(
      fc.property(
        temps,
        fc.double({ min: -5, max: 15, noNaN: true }),
        fc.double({ min: 16, max: 35, noNaN: true }),
        (day, base, upper) => {
          expect(degreeDays(day, base)).toBeCloseTo(
            bySteps(day, (t) => Math.max(0, t - base)),
            3,
          );
          expect(degreeDays(day, base, upper)).toBeCloseTo(
            bySteps(day, (t) => Math.max(0, Math.min(t, upper) - base)),
            3,
          );
        },
      ),
      { numRuns: 60 },
    );
  });
  it('never fall as a day warms', () => {
    fc.assert(
      fc.property(temps, fc.double({ min: 0, max: 10, noNaN: true }), (day, warmer) => {
        const later = { tMinC: day.tMinC + warmer, tMaxC: day.tMaxC + warmer };
        expect(degreeDays(later, 5)).toBeGreaterThanOrEqual(degreeDays(day, 5) - 1e-9);
      }),
    );
  });
  it('refuse a day that is the wrong way round or not a number', () => {
    expect(() => degreeDays({ tMinC: 9, tMaxC: 3 }, 5)).toThrow(/lowest/);
    expect(() => degreeDays({ tMinC: NaN, tMaxC: 3 }, 5)).toThrow(Unfit);
  });
});

describe('hours between', () => {
  it('is the time of the sine between, within 0–24, and the parts make a day', () => {
    fc.assert(
      fc.property(temps, (day) => {
        const chill = hoursBetween(day);
        expect(chill).toBeCloseTo(24 * bySteps(day, (t) => (t >= 0 && t <= 7.2 ? 1 : 0)), 1);
        const parts = hoursBetween(day, -100, 0) + hoursBetween(day, 0, 7.2) + hoursBetween(day, 7.2, 100);
        expect(parts).toBeCloseTo(24, 6);
      }),
      { numRuns: 60 },
    );
  });
});

describe('the generator', () => {
  const normals = roughNormals(54.6, 185);
  it('makes the same weather of the same seed, and other weather of another', () => {
    const start = dayOf('2026-01-01');
    expect(generateWeather(normals, start, 400, 3)).toEqual(generateWeather(normals, start, 400, 3));
    expect(generateWeather(normals, start, 400, 3).tMinC).not.toEqual(
      generateWeather(normals, start, 400, 4).tMinC,
    );
  });
  it('keeps lows below highs and rain at 0 or more', () => {
    const { tMinC, tMaxC, rainMm } = generateWeather(normals, 0, 5000, 11);
    for (let i = 0; i < 5000; i++) {
      expect(tMinC[i]).toBeLessThanOrEqual(tMaxC[i]);
      expect(rainMm[i]).toBeGreaterThanOrEqual(0);
    }
  });
  it('gives back the normals it was made from', () => {
    const fitted = fitNormals(generateWeather(normals, 0, 365 * 30, 5))!;
    for (let doy = 1; doy < 365; doy += 20) {
      expect(Math.abs(waveAt(fitted.tMaxC, doy) - waveAt(normals.tMaxC, doy))).toBeLessThan(0.6);
    }
    expect(fitted.tMaxSd).toBeGreaterThan(normals.tMaxSd * 0.9);
    expect(fitted.tMaxSd).toBeLessThan(normals.tMaxSd * 1.15);
    expect(Math.abs(fitted.persistence - normals.persistence)).toBeLessThan(0.1);
    expect(Math.abs(fitted.wetAfterWet - normals.wetAfterWet)).toBeLessThan(0.03);
    expect(fitted.origin).toBe('record');
  });
  it('cannot be fitted to less than a year', () => {
    expect(fitNormals(generateWeather(normals, 0, 200, 5))).toBeNull();
  });
  it('is warm half a year apart in the two hemispheres', () => {
    const warmest = (latitude: number) => {
      const n = roughNormals(latitude, 200);
      return Array.from({ length: 365 }, (_, i) => i + 1).reduce((a, b) =>
        waveAt(n.tMaxC, b) > waveAt(n.tMaxC, a) ? b : a,
      );
    };
    expect(Math.abs(warmest(54.6) - 204)).toBeLessThan(12);
    expect(Math.abs(warmest(-41.2) - 21)).toBeLessThan(12);
  });
});

describe('the weather-year ensemble', () => {
  const start = dayOf('2016-11-24');
  const series = generateWeather(roughNormals(54.6, 185), start, 3653, 7);
  const asOf = dayOf('2026-06-01');

  it('holds the observed past day by day', () => {
    const outlook = weatherOutlook(series, site, asOf);
    for (const back of [0, 1, 100, 1000]) {
      expect(outlook.pastMinC[outlook.pastMinC.length - 1 - back]).toBe(series.tMinC[asOf - back - start]);
    }
    expect(outlook.filledPastDays).toBe(0);
  });
  it('goes on as each past year did, from the same date', () => {
    const outlook = weatherOutlook(series, site, asOf);
    expect(outlook.recordedYears).toBe(9);
    expect(outlook.generatedYears).toBe(0);
    const yearAgo = asOf + 1 - 365;
    expect(outlook.years[0].tMinC.slice(0, 300)).toEqual(
      series.tMinC.slice(yearAgo - start, yearAgo - start + 300),
    );
  });
  it('never looks past its own date', () => {
    const altered: WeatherSeries = {
      ...series,
      tMaxC: series.tMaxC.map((t, i) => (start + i > asOf ? t + 30 : t)),
    };
    expect(weatherOutlook(altered, site, asOf)).toEqual(weatherOutlook(series, site, asOf));
  });
  it('is made up by the generator where records are few, and says so', () => {
    const one = {
      ...series,
      tMinC: series.tMinC.slice(0, 800),
      tMaxC: series.tMaxC.slice(0, 800),
      rainMm: series.rainMm.slice(0, 800),
    };
    const some = weatherOutlook(one, site, lastDay(one));
    expect(some.recordedYears).toBe(2);
    expect(some.generatedYears).toBe(8);
    expect(some.normals.origin).toBe('record');
    const none = weatherOutlook(seriesFrom([]), site, asOf);
    expect(none.recordedYears).toBe(0);
    expect(none.years).toHaveLength(10);
    expect(none.normals.origin).toBe('starting');
    expect(none.filledPastDays).toBe(none.pastMinC.length);
  });
  it('fills gaps from the normals and counts them', () => {
    const holes = { ...series, tMinC: series.tMinC.slice(), tMaxC: series.tMaxC.slice() };
    for (let i = 10; i < 20; i++) holes.tMinC[asOf - start - i] = NaN;
    const outlook = weatherOutlook(holes, site, asOf);
    expect(outlook.filledPastDays).toBe(10);
    for (const t of outlook.pastMinC) expect(Number.isFinite(t)).toBe(true);
  });
  it('gives sums a day at a time, the same in the ribbon as in a forecast', () => {
    const outlook = weatherOutlook(series, site, asOf);
    const warmth = warmthOf(outlook);
    const days = ribbonDays(outlook, asOf - 30, asOf + 30);
    expect(days[30].forecast).toBe(false);
    expect(days[31].forecast).toBe(true);
    expect(days[0].warmth).toBeCloseTo(dailyOn(warmth, warmth, 0, asOf - 30), 12);
    const ahead = outlook.years.map((_, year) => dailyOn(warmth, warmth, year, asOf + 30));
    expect(days[60].warmth).toBeCloseTo(ahead.reduce((a, b) => a + b, 0) / ahead.length, 9);
    expect(days[60].frost).toBeGreaterThanOrEqual(0);
    expect(isoOf(warmth.asOf)).toBe('2026-06-01');
  });
});

describe('a nursery with hardly any weather of its own', () => {
  /** Climates unlike the rough rule: yearly mean, half swing, latitude, height. */
  const climates = [
    ['inland, 42° N', 10, 14, 42, 250],
    ['coast, 47° N', 10.5, 6, 47, 20],
    ['far north, 65° N', 2, 12, 65, 50],
    ['south, 41° S', 11, 6, -41, 100],
    ['highland, 5° N', 18.5, 0.8, 5, 1800],
    ['lowland, 20° N', 25, 4, 20, 50],
  ] as const;
  const warmthOfYear = (normals: Normals) => {
    let total = 0;
    for (let doy = 1; doy <= 365; doy++) {
      const [low, high] = [waveAt(normals.tMinC, doy), waveAt(normals.tMaxC, doy)];
      total += sineAbove(low, Math.max(low, high), 5);
    }
    return total;
  };
  const trueNormals = (mean: number, swing: number, latitude: number): Normals => {
    const rough = roughNormals(latitude, 0);
    const warmest = latitude >= 0 ? 204 : 21;
    const x = (2 * Math.PI * warmest) / 365.25;
    const wave = (m: number): Wave => [m, swing * Math.cos(x), swing * Math.sin(x), 0, 0];
    return { ...rough, tMinC: wave(mean - 5), tMaxC: wave(mean + 5) };
  };
  it('is brought near its warmth by a month of records, most of all where the rule was furthest off', () => {
    const errors = climates.map(([name, mean, swing, latitude, height]) => {
      const truth = trueNormals(mean, swing, latitude);
      const wanted = warmthOfYear(truth);
      // A month of spring, as when a nursery begins.
      const start = dayOf(latitude >= 0 ? '2026-05-01' : '2026-11-01');
      const off = (normals: Normals) => Math.abs(warmthOfYear(normals) / wanted - 1);
      const month = generateWeather(truth, start, 31, 5);
      const rough = roughNormals(latitude, height);
      expect(nudgedNormals(generateWeather(truth, start, 5, 5), latitude, height), name).toEqual(rough);
      return { name, before: off(rough), after: off(nudgedNormals(month, latitude, height)) };
    });
    const mean = (of: 'before' | 'after') => errors.reduce((t, e) => t + e[of], 0) / errors.length;
    expect(mean('after')).toBeLessThan(0.8 * mean('before'));
    // Inland in the far north one spring month does not tell the summer.
    for (const { name, after } of errors)
      expect(after, name).toBeLessThan(name.startsWith('far north') ? 0.4 : 0.15);
  });
});
