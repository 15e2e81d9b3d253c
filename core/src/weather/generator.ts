import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { dayOfYear, type EpochDay } from '../calendar/day';
import { gammaDraw, normalDraw, seededRandom } from '../chance/random';
import { waveAt, type Normals } from './normals';
import type { WeatherSeries } from './series';

/**
 * Daily weather made from a place's normals: a yearly wave with lag-1 autocorrelated departures, a
 * wet/dry chain and gamma rain. Wet days are milder at night and cooler by day.
 * @param days how many days from `start`, > 0
 * @param seed same seed, same weather
 * @see Richardson 1981, Water Resour. Res. 17:182
 */
export function generateWeather(
  normals: Normals,
  start: EpochDay,
  days: number,
  seed: number,
): WeatherSeries {
  if (!(days > 0)) throw new Unfit(say`Weather can be made for one day or more.`);
  const random = seededRandom(seed);
  const series: WeatherSeries = {
    start,
    tMinC: new Float64Array(days),
    tMaxC: new Float64Array(days),
    rainMm: new Float64Array(days),
  };
  const r = normals.persistence;
  const fresh = Math.sqrt(1 - r * r);
  let low = normalDraw(random);
  let high = normalDraw(random);
  let wet = random() < 0.5;
  for (let i = 0; i < days; i++) {
    const doy = dayOfYear(start + i);
    wet = random() < (wet ? normals.wetAfterWet : normals.wetAfterDry);
    const shared = normalDraw(random);
    low = r * low + fresh * (0.8 * shared + 0.6 * normalDraw(random));
    high = r * high + fresh * (0.8 * shared + 0.6 * normalDraw(random));
    const tMin = waveAt(normals.tMinC, doy) + normals.tMinSd * low + (wet ? 0.6 : -0.6);
    const tMax = waveAt(normals.tMaxC, doy) + normals.tMaxSd * high + (wet ? -0.8 : 0.8);
    series.tMinC[i] = Math.round(Math.min(tMin, tMax - 0.5) * 10) / 10;
    series.tMaxC[i] = Math.round(Math.max(tMax, tMin + 0.5) * 10) / 10;
    series.rainMm[i] = wet
      ? Math.round(gammaDraw(random, normals.rainShape, normals.rainScaleMm) * 10) / 10
      : 0;
  }
  return series;
}
