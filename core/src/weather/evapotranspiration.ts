import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

const SOLAR_CONSTANT = 0.082; // MJ m⁻² min⁻¹, FAO-56 eq. 21
const STEFAN_BOLTZMANN = 4.903e-9; // MJ K⁻⁴ m⁻² d⁻¹, FAO-56 eq. 39
const MM_PER_MJ = 0.408; // FAO-56 eq. 20
const ALBEDO = 0.23;

/**
 * Radiation on a level surface outside the atmosphere (FAO-56 eq. 21).
 * @param latitudeDeg −90 to 90, south negative
 * @param dayOfYear 1–366
 * @returns MJ m⁻² d⁻¹
 */
export function extraterrestrialRadiation(latitudeDeg: number, dayOfYear: number): number {
  if (!(Math.abs(latitudeDeg) <= 90)) throw new Unfit(say`A latitude lies between −90 and 90.`);
  const phi = (latitudeDeg * Math.PI) / 180;
  const turn = (2 * Math.PI * dayOfYear) / 365;
  const distance = 1 + 0.033 * Math.cos(turn); // eq. 23
  const declination = 0.409 * Math.sin(turn - 1.39); // eq. 24
  // eq. 25; beyond the polar circles the sun stays up or down all day.
  const sunset = Math.acos(Math.max(-1, Math.min(1, -Math.tan(phi) * Math.tan(declination))));
  return (
    ((24 * 60) / Math.PI) *
    SOLAR_CONSTANT *
    distance *
    (sunset * Math.sin(phi) * Math.sin(declination) +
      Math.cos(phi) * Math.cos(declination) * Math.sin(sunset))
  );
}

/** A day as evapotranspiration needs it; the last three only where a station measures them. */
export interface EvaporationDay {
  tMinC: number;
  tMaxC: number;
  dayOfYear: number;
  rhMeanPct?: number;
  /** At 2 m. */
  windMs?: number;
  solarMj?: number;
}

/**
 * Reference evapotranspiration of a day: Penman–Monteith (FAO-56 eq. 6) where humidity, wind and radiation
 * are given, else Hargreaves–Samani (FAO-56 eq. 52). The working says which.
 * @returns mm/d, never below 0
 */
export function referenceEvapotranspiration(
  day: EvaporationDay,
  latitudeDeg: number,
  elevationM: number,
): Worked<number> {
  const ra = extraterrestrialRadiation(latitudeDeg, day.dayOfYear);
  const mean = (day.tMinC + day.tMaxC) / 2;
  const { rhMeanPct, windMs, solarMj } = day;
  if (rhMeanPct === undefined || windMs === undefined || solarMj === undefined) {
    const value = hargreaves(day.tMinC, day.tMaxC, ra);
    return {
      value,
      working: [
        {
          what: say`Reference evapotranspiration, from temperatures alone`,
          expression: sum`max(0, 0.0023 × (${mean} + 17.8) × sqrt(${day.tMaxC} − ${day.tMinC}) × ${ra} × ${MM_PER_MJ})`,
          result: value,
          unit: 'mm/d',
          source: 'Hargreaves–Samani, FAO-56 eq. 52',
        },
      ],
    };
  }
  const saturation = (saturationKPa(day.tMinC) + saturationKPa(day.tMaxC)) / 2; // eq. 12
  const actual = (rhMeanPct / 100) * saturation; // eq. 19
  const slope = (4098 * saturationKPa(mean)) / (mean + 237.3) ** 2; // eq. 13
  const pressure = 101.3 * ((293 - 0.0065 * elevationM) / 293) ** 5.26; // eq. 7
  const gamma = 0.000665 * pressure; // eq. 8
  const clearSky = (0.75 + 2e-5 * elevationM) * ra; // eq. 37
  const kelvin4 = ((day.tMaxC + 273.16) ** 4 + (day.tMinC + 273.16) ** 4) / 2;
  const longwave =
    STEFAN_BOLTZMANN *
    kelvin4 *
    (0.34 - 0.14 * Math.sqrt(actual)) *
    (1.35 * Math.min(1, solarMj / clearSky) - 0.35); // eq. 39
  const net = (1 - ALBEDO) * solarMj - longwave; // eq. 38, 40
  const value = Math.max(
    0,
    (MM_PER_MJ * slope * net + (gamma * 900 * windMs * (saturation - actual)) / (mean + 273)) /
      (slope + gamma * (1 + 0.34 * windMs)),
  );
  return {
    value,
    working: [
      {
        what: say`Net radiation`,
        expression: sum`(1 − ${ALBEDO}) × ${solarMj} − ${longwave}`,
        result: net,
        unit: 'MJ/m²',
      },
      {
        what: say`Reference evapotranspiration, from humidity, wind and sun`,
        expression: sum`max(0, (${MM_PER_MJ} × ${slope} × ${net} + ${gamma} × 900 × ${windMs} × (${saturation} − ${actual}) ÷ (${mean} + 273)) ÷ (${slope} + ${gamma} × (1 + 0.34 × ${windMs})))`,
        result: value,
        unit: 'mm/d',
        source: 'Penman–Monteith, FAO-56 eq. 6, vapour pressure from mean humidity (eq. 19)',
      },
    ],
  };
}

/** Hargreaves–Samani without its working, for loops over years of days. @returns mm/d */
export function hargreaves(tMinC: number, tMaxC: number, extraterrestrialMj: number): number {
  const range = Math.max(0, tMaxC - tMinC);
  return Math.max(
    0,
    0.0023 * ((tMinC + tMaxC) / 2 + 17.8) * Math.sqrt(range) * extraterrestrialMj * MM_PER_MJ,
  );
}

/** Saturation vapour pressure, kPa (FAO-56 eq. 11). */
function saturationKPa(celsius: number): number {
  return 0.6108 * Math.exp((17.27 * celsius) / (celsius + 237.3));
}
