import { say } from '../speech/say';
import { extraterrestrialRadiation } from '../weather/evapotranspiration';
import { dayOfYear, type EpochDay } from '../calendar/day';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';
import { guards, type Guard } from './trees';

/** Sun at which a guard's excess is stated, W/m². */
const FULL_SUN = 800;

/**
 * How much warmer the air inside a guard is than outside: k·(S ÷ 800) ÷ (1 + 0.3·u). A rule of thumb; own readings refine k.
 * @param sun on the level, W/m²
 * @param windMs at the guard, m/s
 * @param excessC k, the excess at 800 W/m² and calm, °C
 * @returns °C
 * @throws Unfit for sun or wind below 0
 * @example collarExcess({ sun: 800, windMs: 0, excessC: 12 }).value // 12
 */
export function collarExcess({
  sun,
  windMs,
  excessC,
}: {
  sun: number;
  windMs: number;
  excessC: number;
}): Worked<number> {
  if (!(sun >= 0 && windMs >= 0)) throw new Unfit(say`Sun and wind are 0 or more.`);
  const value = (excessC * (sun / FULL_SUN)) / (1 + 0.3 * windMs);
  return {
    value,
    working: [
      {
        what: say`Air in the guard above the air outside`,
        expression: sum`${excessC} × (${sun} ÷ ${FULL_SUN}) ÷ (1 + 0.3 × ${windMs})`,
        result: value,
        unit: '°C',
        inputs: [
          { name: say`excess at full sun and calm`, value: excessC, unit: '°C', origin: 'starting' },
          { name: 'sun', value: Math.round(sun), unit: 'W/m²', origin: 'standard' },
          { name: 'wind', value: windMs, unit: 'm/s', origin: 'standard' },
        ],
        source: 'rule of thumb',
      },
    ],
  };
}

/** Hours are counted above these, °C. */
export const heatLimitsC = [35, 40, 45] as const;
/** From here on leaders of broad-leaved and conifer seedlings are scorched within hours, °C; a rule of thumb. */
export const SCORCH_C = 45;
/** Wind where no station measured it, m/s: a light air between trees, as heat waves bring. */
const STILL_MS = 1;
/** Share of the sun above the air that reaches the ground by the day's span of temperature (Hargreaves & Samani 1982). */
const HARGREAVES = 0.16;
const CLEAR_SHARE = 0.77;

export interface HeatDay {
  day: EpochDay;
  tMinC: number;
  tMaxC: number;
  /** Mean wind of the day, m/s; left out where nobody measured it. */
  windMs?: number;
}

export interface GuardHeat {
  /** Warmest hour inside, °C, and outside. */
  highestC: number;
  airC: number;
  /** Hours above each of {@link heatLimitsC}. */
  hours: [number, number, number];
  /** Sun at its highest, W/m²; wind reckoned with, m/s, and whether a station measured it. */
  sun: number;
  windMs: number;
  windMeasured: boolean;
}

/**
 * Heat in a guard through a day, hour by hour: the air by a sine warmest at 15 h, the sun by its course with the day's total
 * after Hargreaves, the excess by {@link collarExcess}.
 * @param latitudeDeg −90 to 90
 * @throws Unfit for a day whose lowest is above its highest
 */
export function guardHeat(day: HeatDay, latitudeDeg: number, guard: Guard): GuardHeat {
  if (!(day.tMinC <= day.tMaxC))
    throw new Unfit(say`A day needs a lowest temperature that is not above its highest.`);
  const aloft = extraterrestrialRadiation(latitudeDeg, dayOfYear(day.day));
  const total = Math.min(CLEAR_SHARE, HARGREAVES * Math.sqrt(day.tMaxC - day.tMinC)) * aloft;
  const course = sunCourse(latitudeDeg, dayOfYear(day.day));
  const all = course.reduce((t, s) => t + s, 0);
  const windMeasured = day.windMs !== undefined && Number.isFinite(day.windMs);
  const windMs = windMeasured ? day.windMs! : STILL_MS;
  const hours: [number, number, number] = [0, 0, 0];
  let [highestC, highestSun] = [-Infinity, 0];
  for (let h = 0; h < 24; h++) {
    const sun = all > 0 ? (total * 1e6 * course[h]) / all / 3600 : 0;
    const air =
      (day.tMinC + day.tMaxC) / 2 +
      ((day.tMaxC - day.tMinC) / 2) * Math.cos((2 * Math.PI * (h + 0.5 - 15)) / 24);
    const inside = air + collarExcess({ sun, windMs, excessC: guards[guard].excessC }).value;
    highestC = Math.max(highestC, inside);
    highestSun = Math.max(highestSun, sun);
    for (const [i, limit] of heatLimitsC.entries()) if (inside > limit) hours[i]++;
  }
  return { highestC, airC: day.tMaxC, hours, sun: highestSun, windMs, windMeasured };
}

/** Sine of the sun's height at the middle of each hour of a day, by solar time; 0 while it is down. */
function sunCourse(latitudeDeg: number, doy: number): number[] {
  const latitude = (latitudeDeg * Math.PI) / 180;
  const declination = 0.409 * Math.sin((2 * Math.PI * doy) / 365 - 1.39);
  return Array.from({ length: 24 }, (_, h) => {
    const angle = (Math.PI / 12) * (h + 0.5 - 12);
    const height =
      Math.sin(latitude) * Math.sin(declination) +
      Math.cos(latitude) * Math.cos(declination) * Math.cos(angle);
    return Math.max(0, height);
  });
}

/** How far a guard's heat has come: scorching now, near it, or no matter. */
export function heatRisk({ highestC, hours }: GuardHeat): 'scorch' | 'near' | null {
  if (highestC >= SCORCH_C) return 'scorch';
  return hours[1] > 0 ? 'near' : null;
}
