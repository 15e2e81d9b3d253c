import { say } from '../speech/say';
import { cellMlOf, type Home } from '../home/home';
import { addYears, dayOfYear, type EpochDay } from '../calendar/day';
import { autumnStart, growthStop, heatStart, seasonStrip } from '../calendar/season';
import { quantileSorted } from '../chance/quantile';
import { sineAbove } from './degreeDays';
import type { Site } from './ensemble';
import { extraterrestrialRadiation, hargreaves } from './evapotranspiration';
import { hoursBetween } from './hoursBetween';
import { lastDay, type WeatherSeries } from './series';
import { GROWTH_BASE_C } from './sums';

export const seasonSums = ['warmth', 'chill', 'rain', 'evaporation'] as const;
export type SeasonSum = (typeof seasonSums)[number];

/** A sum over the season so far beside what past years had come to by the same day. */
export interface SeasonCourse {
  what: SeasonSum;
  unit: '°C·d' | 'h' | 'mm';
  from: EpochDay;
  /** Day by day from `from`; ends on the last day measured, or the day asked about. */
  sofar: number[];
  /** Past years by the same day, to the end of the season. */
  past: { low: number[]; middle: number[]; high: number[] };
  pastYears: number;
  /** Days of this season with nothing measured: they add nothing. */
  missing: number;
}

/**
 * The season’s sums up to a day, against the years before it. Warmth, rain and evaporation count from the season’s first
 * day (1 January north, 1 July south), chill from the start of autumn.
 */
export function seasonCourses(series: WeatherSeries, site: Site, asOf: EpochDay): SeasonCourse[] {
  return seasonSums.map((what) => {
    const from =
      what === 'chill' ? autumnStart(site.latitudeDeg, asOf) : seasonStrip(site.latitudeDeg, asOf).start;
    const length = 365;
    const figure = daily(series, site, what);
    const until = Math.min(asOf, lastDay(series));
    let missing = 0;
    let total = 0;
    const sofar: number[] = [];
    for (let day = from; day <= until; day++) {
      const value = figure(day);
      if (Number.isNaN(value)) missing++;
      else total += value;
      sofar.push(total);
    }
    const years: number[][] = [];
    for (let back = 1; back <= 40; back++) {
      const start = addYears(from, -back);
      if (start < series.start - 15) break;
      const course = yearCourse(figure, start, length);
      if (course) years.push(course);
    }
    const band = (q: number) =>
      Array.from({ length: years.length ? length : 0 }, (_, i) =>
        quantileSorted(
          years.map((y) => y[i]).sort((a, b) => a - b),
          q,
        ),
      );
    return {
      what,
      unit: what === 'warmth' ? '°C·d' : what === 'chill' ? 'h' : 'mm',
      from,
      sofar,
      past: { low: band(0.1), middle: band(0.5), high: band(0.9) },
      pastYears: years.length,
      missing,
    };
  });
}

/** A past year’s sum day by day; null where more than a tenth of it was not measured. Gaps take the year’s own mean. */
function yearCourse(figure: (day: EpochDay) => number, start: EpochDay, length: number): number[] | null {
  const values = Array.from({ length }, (_, i) => figure(start + i));
  const known = values.filter((v) => !Number.isNaN(v));
  if (known.length < 0.9 * length) return null;
  const mean = known.reduce((t, v) => t + v, 0) / known.length;
  let total = 0;
  return values.map((v) => (total += Number.isNaN(v) ? mean : v));
}

function daily(series: WeatherSeries, site: Site, what: SeasonSum): (day: EpochDay) => number {
  return (day) => {
    const i = day - series.start;
    const [tMinC, tMaxC] = [series.tMinC[i] ?? NaN, series.tMaxC[i] ?? NaN];
    if (what === 'rain') return series.rainMm[i] ?? NaN;
    if (!(tMinC <= tMaxC)) return NaN;
    if (what === 'warmth') return sineAbove(tMinC, tMaxC, GROWTH_BASE_C);
    if (what === 'chill') return hoursBetween({ tMinC, tMaxC });
    return hargreaves(tMinC, tMaxC, extraterrestrialRadiation(site.latitudeDeg, dayOfYear(day)));
  };
}

export const weatherEventKinds = ['late frost', 'hard frost', 'heat', 'drying wind', 'downpour'] as const;
export type WeatherEventKind = (typeof weatherEventKinds)[number];

/** A run of days of one kind. */
export interface WeatherEvent {
  kind: WeatherEventKind;
  from: EpochDay;
  to: EpochDay;
  /** The worst of it: °C, kPa or mm. */
  worst: number;
}

/** Where each kind begins. Usual limits for young stock, not a promise that nothing happens short of them. */
export const eventLimits = {
  lateFrostC: -1,
  hardFrostC: -6,
  heatC: 29,
  dryingKpa: 1,
  dryingWindMs: 5,
  downpourMm: 30,
} as const;

/** Vapour-pressure deficit of a day from its mean temperature and humidity, kPa (FAO-56 eq. 11). */
export function vapourDeficitKpa(meanC: number, humidity: number): number {
  return 0.6108 * Math.exp((17.27 * meanC) / (meanC + 237.3)) * (1 - humidity);
}

/** Frost, heat, drying wind and downpours between two days, oldest first. */
export function weatherEvents(
  series: WeatherSeries,
  latitudeDeg: number,
  from: EpochDay,
  to: EpochDay,
): WeatherEvent[] {
  const events: WeatherEvent[] = [];
  const add = (
    kind: WeatherEventKind,
    day: EpochDay,
    value: number,
    worse: (a: number, b: number) => number,
  ) => {
    const last = events.findLast((e) => e.kind === kind);
    if (last && day - last.to <= 1) {
      last.to = day;
      last.worst = worse(last.worst, value);
    } else events.push({ kind, from: day, to: day, worst: value });
  };
  for (let day = Math.max(from, series.start); day <= Math.min(to, lastDay(series)); day++) {
    const i = day - series.start;
    const [low, high, rain] = [series.tMinC[i], series.tMaxC[i], series.rainMm[i]];
    const spring = heatStart(latitudeDeg, autumnStart(latitudeDeg, day)) + 60;
    const inLeaf = day >= spring && growthStop(latitudeDeg, day) < spring;
    if (inLeaf && low <= eventLimits.lateFrostC) add('late frost', day, low, Math.min);
    else if (low <= eventLimits.hardFrostC) add('hard frost', day, low, Math.min);
    if (high >= eventLimits.heatC) add('heat', day, high, Math.max);
    if (rain >= eventLimits.downpourMm) add('downpour', day, rain, Math.max);
    const [humidity, wind] = [series.humidity?.[i] ?? NaN, series.windMs?.[i] ?? NaN];
    const deficit = vapourDeficitKpa((low + high) / 2, humidity);
    if (deficit >= eventLimits.dryingKpa && wind >= eventLimits.dryingWindMs)
      add('drying wind', day, deficit, Math.max);
  }
  return events.sort((a, b) => a.from - b.from || a.kind.localeCompare(b.kind));
}

/** What of a lot makes it open to the weather on a day. */
export interface ExposedLot {
  lotId: string;
  home: Home;
  standing: number;
  /** Day it came up; null if it has not. */
  upOn: EpochDay | null;
}

/** Cells this small dry out and heat through within a day, mL. */
const SMALL_CELL_ML = 250;
/** Soft for so long after coming up, days. */
const SOFT_DAYS = 60;

/** Which lots an event puts at risk, and why in a few words. Rules of thumb. */
export function lotsAtRisk(
  event: WeatherEvent,
  lots: readonly ExposedLot[],
): { lotId: string; why: string }[] {
  return lots.flatMap((lot) => {
    if (lot.standing === 0 || lot.upOn === null || lot.upOn > event.to) return [];
    const why = riskOf(event, lot, event.from - lot.upOn);
    return why === null ? [] : [{ lotId: lot.lotId, why }];
  });
}

function riskOf({ kind }: WeatherEvent, { home }: ExposedLot, age: number): string | null {
  const potted = home.kind === 'container';
  const small = potted && cellMlOf(home) <= SMALL_CELL_ML;
  switch (kind) {
    case 'late frost':
      return age <= SOFT_DAYS
        ? say`soft seedlings`
        : potted && home.cover
          ? null
          : age <= 400
            ? say`new leaves`
            : null;
    case 'hard frost':
      return potted && !home.cover ? say`roots freeze through in containers` : null;
    case 'heat':
      return small
        ? say`small cells dry out and heat through`
        : age <= SOFT_DAYS
          ? say`soft seedlings`
          : null;
    case 'drying wind':
      return small ? say`small cells dry out` : age <= SOFT_DAYS ? say`soft seedlings` : null;
    case 'downpour':
      return age <= SOFT_DAYS ? say`seedlings washed out or flattened` : null;
  }
}
