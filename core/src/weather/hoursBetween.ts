import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { DayTemps } from './degreeDays';

/** Chilling hours are counted between these by default, °C. */
export const CHILL_LOW_C = 0;
export const CHILL_HIGH_C = 7.2;

/**
 * Hours of a day its temperature sine spends within [lowC, highC].
 * @returns h, 0–24
 * @throws Unfit when the day or the limits are the wrong way round
 */
export function hoursBetween(day: DayTemps, lowC = CHILL_LOW_C, highC = CHILL_HIGH_C): number {
  if (!(day.tMinC <= day.tMaxC))
    throw new Unfit(say`A day needs a lowest temperature that is not above its highest.`);
  if (!(lowC <= highC)) throw new Unfit(say`The lower limit must not be above the upper one.`);
  return hoursBelow(day, highC, true) - hoursBelow(day, lowC, false);
}

/** Hours the sine is below (or at, for a constant day) a limit. */
function hoursBelow({ tMinC, tMaxC }: DayTemps, limit: number, inclusive: boolean): number {
  if (tMinC === tMaxC) return tMinC < limit || (inclusive && tMinC === limit) ? 24 : 0;
  const s = (limit - (tMinC + tMaxC) / 2) / ((tMaxC - tMinC) / 2);
  if (s >= 1) return 24;
  if (s <= -1) return 0;
  return 24 * (0.5 + Math.asin(s) / Math.PI);
}
