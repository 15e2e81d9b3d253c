import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** A day's temperatures. */
export interface DayTemps {
  tMinC: number;
  tMaxC: number;
}

/**
 * Degree-days of one day above a base, single sine, with a horizontal upper cut-off.
 *
 * @param day lowest and highest air temperature, °C
 * @param baseC lower threshold, °C
 * @param upperC upper threshold, °C; warmth above it counts no further
 * @returns °C·d, ≥ 0
 * @throws Unfit when a temperature is missing or the lowest exceeds the highest
 * @see Baskerville & Emin 1969, Ecology 50:514; Allen 1976, Environ. Entomol. 5:388
 */
export function degreeDays(day: DayTemps, baseC: number, upperC?: number): number {
  const { tMinC, tMaxC } = day;
  if (!(tMinC <= tMaxC))
    throw new Unfit(say`A day needs a lowest temperature that is not above its highest.`);
  const above = sineAbove(tMinC, tMaxC, baseC);
  return upperC === undefined ? above : above - sineAbove(tMinC, tMaxC, upperC);
}

/** Mean excess of the day's sine over a threshold, °C·d. */
export function sineAbove(tMinC: number, tMaxC: number, threshold: number): number {
  const mean = (tMinC + tMaxC) / 2;
  if (tMinC >= threshold) return mean - threshold;
  if (tMaxC <= threshold) return 0;
  const halfRange = (tMaxC - tMinC) / 2;
  const theta = Math.asin((threshold - mean) / halfRange);
  return ((mean - threshold) * (Math.PI / 2 - theta) + halfRange * Math.cos(theta)) / Math.PI;
}
