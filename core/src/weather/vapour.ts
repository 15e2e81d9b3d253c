import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** Air as roots feel it. */
export interface Air {
  tempC: number;
  relativeHumidityPct: number;
}

/**
 * How much more vapour the air would take up: the pull on bare roots and leaves.
 * @returns kPa
 * @throws Unfit for a humidity outside 0–100 %
 * @see Allen et al. 1998, FAO Irrigation and Drainage Paper 56, eq. 11
 */
export function vapourPressureDeficit({ tempC, relativeHumidityPct }: Air): number {
  if (!(relativeHumidityPct >= 0 && relativeHumidityPct <= 100))
    throw new Unfit(say`Humidity lies between 0 and 100 %.`);
  return saturated(tempC) * (1 - relativeHumidityPct / 100);
}

/** Vapour that air holds at most, kPa (FAO-56 eq. 11). */
const saturated = (tempC: number): number => 0.6108 * Math.exp((17.27 * tempC) / (tempC + 237.3));

/**
 * The air of a day's warmest hour: with the vapour of its measured humidity, or, where nobody measured it, as much as the night's
 * low holds.
 * @param humidity mean of the day, 0–1; NaN or left out where it was not measured
 * @see Allen et al. 1998, FAO Irrigation and Drainage Paper 56, eq. 48
 */
export function airAtMidday({
  tMinC,
  tMaxC,
  humidity = NaN,
}: {
  tMinC: number;
  tMaxC: number;
  humidity?: number;
}): Air {
  const vapour = Number.isNaN(humidity) ? saturated(tMinC) : humidity * saturated((tMinC + tMaxC) / 2);
  return { tempC: tMaxC, relativeHumidityPct: Math.min(100, (100 * vapour) / saturated(tMaxC)) };
}

/** Bare fine roots are taken to stand so much drying, min·kPa; a rule of thumb. */
const STANDS_MIN_KPA = 10;

/**
 * How long bare fine roots stand the air, still and in the shade; a rule of thumb. Sun and wind shorten it.
 * @returns minutes; Infinity in air that takes up no more
 */
export function dryingMinutes(air: Air): number {
  const deficit = vapourPressureDeficit(air);
  return deficit > 0 ? STANDS_MIN_KPA / deficit : Infinity;
}
