import { dayOfYear, type EpochDay } from '../calendar/day';
import type { Outlook } from '../weather/ensemble';
import { extraterrestrialRadiation, hargreaves } from '../weather/evapotranspiration';

/** Evapotranspiration from a day on, summed up: after so many days, mm. */
export interface EvaporationAhead {
  from: EpochDay;
  sums: Float64Array;
}

/** Reference evapotranspiration to be expected ahead, summed up day by day: the mean of the weather years (Hargreaves). */
export function evaporationAhead({
  years,
  asOf,
  horizonDays,
  site,
}: Pick<Outlook, 'years' | 'asOf' | 'horizonDays' | 'site'>): EvaporationAhead {
  const sums = new Float64Array(horizonDays + 1);
  for (let i = 0; i < horizonDays; i++) {
    const radiation = extraterrestrialRadiation(site.latitudeDeg, dayOfYear(asOf + 1 + i));
    let [mm, n] = [0, 0];
    for (const { tMinC, tMaxC } of years)
      if (tMinC[i] <= tMaxC[i]) {
        mm += hargreaves(tMinC[i], tMaxC[i], radiation);
        n++;
      }
    sums[i + 1] = sums[i] + (n ? mm / n : 0);
  }
  return { from: asOf + 1, sums };
}

/** Evapotranspiration from a day until the day before another, mm. Days before what is known, or beyond it, count as nothing. */
export function evaporationBetween(
  { from: first, sums }: EvaporationAhead,
  from: EpochDay,
  until: EpochDay,
): number {
  const upTo = (day: EpochDay) => sums[Math.min(sums.length - 1, Math.max(0, day - first))];
  return Math.max(0, upTo(until) - upTo(from));
}
