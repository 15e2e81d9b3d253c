import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { dayOfYear, type EpochDay } from '../calendar/day';
import { extraterrestrialRadiation, hargreaves } from '../weather/evapotranspiration';
import type { Site } from '../weather/ensemble';
import { lastDay, type WeatherSeries } from '../weather/series';
import { put, sum, type Worked } from '../working/working';

/** A bed or bench as a bucket of water. */
export interface Bucket {
  /** Usable depth of medium, mm. */
  depthMm: number;
  /** Share of the medium's volume that is water a plant can take, at container capacity. */
  heldShare: number;
  /** Share of the surface covered by leaves, 0 bare – 1 closed. */
  canopyCover: number;
  /** Share of the held water that may go before it is watered. */
  dryDown: number;
  /** Share of rain that reaches the medium; 0 under cover. */
  rainShare: number;
  /** Application rate of its drip, mm/h; 0 where there is none. */
  applicationMmPerH: number;
}

export const DEFAULT_DRY_DOWN = 0.5;

/** Crop coefficient of a cover: 0.3 bare to 1 closed. */
export function cropCoefficient(canopyCover: number): number {
  return 0.3 + 0.7 * Math.max(0, Math.min(1, canopyCover));
}

/** What a bucket holds and may lose. */
export function bucketHolds(
  bucket: Bucket,
): Worked<{ heldMm: number; allowedMm: number; runMinutes: number }> {
  const heldMm = bucket.depthMm * bucket.heldShare;
  const allowedMm = heldMm * bucket.dryDown;
  const runMinutes = bucket.applicationMmPerH > 0 ? (allowedMm / bucket.applicationMmPerH) * 60 : 0;
  return {
    value: { heldMm, allowedMm, runMinutes },
    working: [
      {
        what: say`Water held that plants can take`,
        expression: sum`${bucket.depthMm} × ${bucket.heldShare}`,
        result: heldMm,
        unit: 'mm',
        inputs: [{ name: say`share of water held`, value: bucket.heldShare, origin: 'starting' }],
      },
      {
        what: say`May dry down by`,
        expression: sum`${heldMm} × ${bucket.dryDown}`,
        result: allowedMm,
        unit: 'mm',
        inputs: [{ name: 'dry-down', value: bucket.dryDown, origin: 'choice' }],
      },
      ...(bucket.applicationMmPerH > 0
        ? [
            {
              what: say`Run time that fills it again`,
              expression: sum`${allowedMm} ÷ ${bucket.applicationMmPerH} × 60`,
              result: runMinutes,
              unit: 'min',
            },
          ]
        : []),
    ],
  };
}

/** Days a bucket was watered, and how dry it ever was, in one run of days. */
export interface BalanceRun {
  /** Days after the start on which water was given. */
  wateredOn: number[];
  /** Water missing at the end of each day, mm. */
  depletionMm: Float64Array;
}

/**
 * Daily balance of a bucket: what leaves go on losing against rain, watered when it passes the dry-down
 * unless `rainOnly`.
 */
export function runBalance(
  bucket: Bucket,
  et0Mm: ArrayLike<number>,
  rainMm: ArrayLike<number>,
  startDepletionMm = 0,
  rainOnly = false,
): BalanceRun {
  const held = bucket.depthMm * bucket.heldShare;
  const allowed = held * bucket.dryDown;
  const kc = cropCoefficient(bucket.canopyCover);
  const depletionMm = new Float64Array(et0Mm.length);
  const wateredOn: number[] = [];
  let missing = Math.min(held, startDepletionMm);
  for (let i = 0; i < et0Mm.length; i++) {
    missing = missing + kc * et0Mm[i] - bucket.rainShare * (rainMm[i] || 0);
    missing = Math.max(0, Math.min(held, missing));
    if (!rainOnly && missing > allowed) {
      wateredOn.push(i);
      missing = 0;
    }
    depletionMm[i] = missing;
  }
  return { wateredOn, depletionMm };
}

/** One past year's run of days from a calendar date on: evaporation and rain. */
export interface WaterYear {
  label: string;
  et0Mm: Float64Array;
  rainMm: Float64Array;
}

/** Past years' evaporation and rain from a calendar date on: the ensemble that watering is planned with. */
export function waterYears(
  series: WeatherSeries,
  site: Site,
  from: EpochDay,
  days: number,
  mostYears = 10,
): WaterYear[] {
  const end = lastDay(series);
  const years: WaterYear[] = [];
  for (let back = 0; back <= 40 && years.length < mostYears; back++) {
    const first = from - Math.round(365.2425 * back);
    if (first + days - 1 > end) continue;
    if (first < series.start) break;
    const et0Mm = new Float64Array(days);
    const rainMm = new Float64Array(days);
    let missing = 0;
    for (let i = 0; i < days; i++) {
      const at = first + i - series.start;
      const [low, high] = [series.tMinC[at], series.tMaxC[at]];
      if (!(low <= high)) missing++;
      else
        et0Mm[i] = hargreaves(low, high, extraterrestrialRadiation(site.latitudeDeg, dayOfYear(first + i)));
      rainMm[i] = series.rainMm[at] || 0;
    }
    if (missing <= days * 0.1) years.push({ label: say`${back} years ago`, et0Mm, rainMm });
  }
  return years;
}

/** One week of a watering programme. */
export interface ProgrammeWeek {
  monday: EpochDay;
  /** Waterings in the week, mean over the years and in the driest year of ten. */
  times: number;
  timesDry: number;
  /** Days between waterings in a mean year; Infinity when rain does it. */
  everyDays: number;
}

/** A bucket's season: its programme by weeks and what rain alone would do. */
export interface WaterPlan {
  weeks: ProgrammeWeek[];
  years: number;
  /** Share of years in which rain alone keeps it above the dry-down. */
  rainOnlyShare: number;
  /** Share of years in which rain alone leaves it wholly dry at some time. */
  rainOnlyDries: number;
  /** First day it needs water without rain to come, from full, days; Infinity beyond the run. */
  firstNeedDays: number;
}

/**
 * Plans watering week by week over past years.
 * @throws Unfit when there is no year of weather to plan with
 */
export function waterPlan(
  bucket: Bucket,
  years: readonly WaterYear[],
  firstMonday: EpochDay,
): Worked<WaterPlan> {
  if (!years.length) throw new Unfit(say`Watering is planned from past years of weather: import some.`);
  if (!(bucket.depthMm > 0 && bucket.heldShare > 0))
    throw new Unfit(say`A bed needs a depth and a medium that holds water.`);
  const days = years[0].et0Mm.length;
  const count = Math.floor(days / 7);
  const times = years.map((year) => {
    const weekly = new Array<number>(count).fill(0);
    for (const day of runBalance(bucket, year.et0Mm, year.rainMm).wateredOn)
      if (day < count * 7) weekly[Math.floor(day / 7)]++;
    return weekly;
  });
  const weeks = Array.from({ length: count }, (_, w) => {
    const all = times.map((t) => t[w]).sort((a, b) => a - b);
    const mean = all.reduce((a, b) => a + b, 0) / all.length;
    return {
      monday: firstMonday + 7 * w,
      times: mean,
      timesDry: all[Math.min(all.length - 1, Math.floor(all.length * 0.9))],
      everyDays: mean > 0 ? 7 / mean : Infinity,
    };
  });
  const held = bucket.depthMm * bucket.heldShare;
  const allowed = held * bucket.dryDown;
  const dry = years.map((y) => Math.max(...runBalance(bucket, y.et0Mm, y.rainMm, 0, true).depletionMm));
  const rainOnlyShare = dry.filter((d) => d <= allowed).length / years.length;
  const rainOnlyDries = dry.filter((d) => d >= held * 0.95).length / years.length;
  const none = new Float64Array(days);
  const meanEt = Float64Array.from({ length: days }, (_, i) =>
    years.reduce((total, y) => total + y.et0Mm[i] / years.length, 0),
  );
  const first = runBalance(bucket, meanEt, none).wateredOn[0];
  const holds = bucketHolds(bucket);
  return {
    value: { weeks, years: years.length, rainOnlyShare, rainOnlyDries, firstNeedDays: first ?? Infinity },
    working: [
      ...holds.working,
      {
        what: say`Crop coefficient`,
        expression: sum`0.3 + 0.7 × ${bucket.canopyCover}`,
        result: cropCoefficient(bucket.canopyCover),
        source: 'FAO-56: 0.3 bare to 1.0 closed',
      },
      {
        what: say`Waterings over the season, mean of the years`,
        how: say`Day by day over ${years.length} past years: yesterday’s lack + coefficient × evaporation − rain, watered when it passes the dry-down.`,
        result: weeks.reduce((total, w) => total + w.times, 0),
        source: 'Hargreaves–Samani evapotranspiration (FAO-56 eq. 52)',
      },
      {
        what: say`Years in which rain alone is enough`,
        expression: `${put(rainOnlyShare * years.length)} ÷ ${years.length}`,
        result: rainOnlyShare,
      },
    ],
  };
}
