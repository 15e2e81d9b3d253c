import type { EpochDay } from '../calendar/day';

/** Daily weather in one unbroken run of days from `start`; NaN marks a value nobody measured. */
export interface WeatherSeries {
  start: EpochDay;
  tMinC: Float64Array;
  tMaxC: Float64Array;
  rainMm: Float64Array;
  /** Mean humidity (0–1) and wind (m/s) of the days a station gave them for. */
  humidity?: Float64Array;
  windMs?: Float64Array;
}

export interface WeatherDay {
  day: EpochDay;
  tMinC: number;
  tMaxC: number;
  rainMm: number | null;
}

export function seriesFrom(days: readonly WeatherDay[]): WeatherSeries {
  if (days.length === 0) return emptySeries(0, 0);
  let start = Infinity;
  let end = -Infinity;
  for (const { day } of days) {
    start = Math.min(start, day);
    end = Math.max(end, day);
  }
  const series = emptySeries(start, end - start + 1);
  for (const { day, tMinC, tMaxC, rainMm } of days) {
    series.tMinC[day - start] = tMinC;
    series.tMaxC[day - start] = tMaxC;
    series.rainMm[day - start] = rainMm ?? NaN;
  }
  return series;
}

function emptySeries(start: EpochDay, length: number): WeatherSeries {
  const nan = () => new Float64Array(length).fill(NaN);
  return { start, tMinC: nan(), tMaxC: nan(), rainMm: nan() };
}

/** The last day a series holds; `start − 1` when it is empty. */
export function lastDay(series: WeatherSeries): EpochDay {
  return series.start + series.tMinC.length - 1;
}

/** Days with both temperatures measured, within [from, to]. */
export function measuredDays(series: WeatherSeries, from: EpochDay, to: EpochDay): number {
  let count = 0;
  const end = Math.min(to, lastDay(series));
  for (let day = Math.max(from, series.start); day <= end; day++) {
    const i = day - series.start;
    if (series.tMinC[i] <= series.tMaxC[i]) count++;
  }
  return count;
}
