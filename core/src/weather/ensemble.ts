import { dayOfYear, partsOf, type EpochDay } from '../calendar/day';
import { generateWeather } from './generator';
import { fitNormals, nudgedNormals, waveAt, type Normals } from './normals';
import { lastDay, measuredDays, type WeatherSeries } from './series';

/** Where a nursery stands; all that weather needs to know of it. */
export interface Site {
  latitudeDeg: number;
  elevationM: number;
}

/** One way the weather may go on after a date. */
export interface WeatherYear {
  /** The past year it repeats, or «made» for generated weather. */
  label: string;
  tMinC: Float64Array;
  tMaxC: Float64Array;
  /** NaN on days whose rain nobody measured. */
  rainMm: Float64Array;
}

/**
 * Weather as known on a date: the past, day by day without gaps, and the ways it may go on. Everything
 * that depends on future weather is run once per year of this ensemble.
 */
export interface Outlook {
  site: Site;
  asOf: EpochDay;
  horizonDays: number;
  /** Past days from `pastStart` up to and including `asOf`. */
  pastStart: EpochDay;
  pastMinC: Float64Array;
  pastMaxC: Float64Array;
  years: WeatherYear[];
  /** Shares and counts that say how far this rests on own records. */
  recordedYears: number;
  generatedYears: number;
  filledPastDays: number;
  /** Last day with temperatures that were measured, not filled in; −Infinity where there is none. */
  measuredTo: EpochDay;
  normals: Normals;
}

const FEWEST_OWN_YEARS = 5;
const DAYS_PER_YEAR = 365.2425;

/**
 * Builds the weather-year ensemble: observed days up to `asOf`, then each historical year's days from
 * there on (aligned by calendar date to within a day). With fewer than five measured years the set is
 * made up to ten by the generator, from the nursery's own normals where a year of records allows.
 *
 * @param pastDays how far back the past is laid out, days
 * @param horizonDays how far ahead, days
 * @param normals as known on the date or before it; worked out where left out
 */
export function weatherOutlook(
  series: WeatherSeries,
  site: Site,
  asOf: EpochDay,
  {
    pastDays = 1600,
    horizonDays = 400,
    mostYears = 10,
    normals = normalsKnown(series, site, asOf),
  }: { pastDays?: number; horizonDays?: number; mostYears?: number; normals?: Normals } = {},
): Outlook {
  const known = upTo(series, asOf);
  const pastStart = asOf - pastDays + 1;
  const past = run(known, normals, pastStart, pastDays, 0);
  const years: WeatherYear[] = [];
  for (let back = 1; back <= 40 && years.length < mostYears; back++) {
    const first = asOf + 1 - Math.round(DAYS_PER_YEAR * back);
    if (first < known.start - 30) break;
    const last = Math.min(first + 364, asOf);
    if (measuredDays(known, first, last) < 0.9 * (last - first + 1)) continue;
    const { tMinC, tMaxC, rainMm } = run(known, normals, first, horizonDays, asOf);
    years.push({ label: String(partsOf(first).year), tMinC, tMaxC, rainMm });
  }
  const recordedYears = years.length;
  if (recordedYears < FEWEST_OWN_YEARS) {
    for (let made = 0; years.length < mostYears; made++) {
      const { tMinC, tMaxC, rainMm } = generateWeather(normals, asOf + 1, horizonDays, 7919 + made);
      years.push({ label: 'made', tMinC, tMaxC, rainMm });
    }
  }
  return {
    site,
    asOf,
    horizonDays,
    pastStart,
    pastMinC: past.tMinC,
    pastMaxC: past.tMaxC,
    years,
    recordedYears,
    generatedYears: years.length - recordedYears,
    filledPastDays: past.filled,
    measuredTo: lastMeasured(known),
    normals,
  };
}

/** What a place's weather is like by the days measured up to a date. */
export function normalsKnown(
  series: WeatherSeries,
  { latitudeDeg, elevationM }: Site,
  asOf: EpochDay,
): Normals {
  const known = upTo(series, asOf);
  return fitNormals(known) ?? nudgedNormals(known, latitudeDeg, elevationM);
}

function lastMeasured({ start, tMinC, tMaxC }: WeatherSeries): EpochDay {
  for (let i = tMinC.length - 1; i >= 0; i--) if (tMinC[i] <= tMaxC[i]) return start + i;
  return -Infinity;
}

/** What was known on a date: nothing measured later. */
function upTo(series: WeatherSeries, asOf: EpochDay): WeatherSeries {
  const length = Math.max(0, Math.min(series.tMinC.length, asOf - series.start + 1));
  return {
    start: series.start,
    tMinC: series.tMinC.subarray(0, length),
    tMaxC: series.tMaxC.subarray(0, length),
    rainMm: series.rainMm.subarray(0, length),
  };
}

/** Days from `from`; days past `limit` (if set) are taken a year earlier, gaps from the normals. */
function run(series: WeatherSeries, normals: Normals, from: EpochDay, days: number, limit: number) {
  const tMinC = new Float64Array(days);
  const tMaxC = new Float64Array(days);
  const rainMm = new Float64Array(days).fill(NaN);
  const end = lastDay(series);
  let filled = 0;
  for (let i = 0; i < days; i++) {
    let day = from + i;
    while (limit && day > Math.min(limit, end)) day -= Math.round(DAYS_PER_YEAR);
    const at = day - series.start;
    const measured = at >= 0 && at < series.tMinC.length && series.tMinC[at] <= series.tMaxC[at];
    if (measured) {
      tMinC[i] = series.tMinC[at];
      tMaxC[i] = series.tMaxC[at];
      rainMm[i] = series.rainMm[at];
    } else {
      filled++;
      const doy = dayOfYear(from + i);
      const low = waveAt(normals.tMinC, doy);
      tMinC[i] = low;
      tMaxC[i] = Math.max(low, waveAt(normals.tMaxC, doy));
    }
  }
  return { tMinC, tMaxC, rainMm, filled };
}
