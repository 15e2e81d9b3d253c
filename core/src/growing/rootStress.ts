import type { EpochDay } from '../calendar/day';
import { cellMlOf, type Home } from '../home/home';
import { freezeThroughHours } from '../weather/freezing';

/**
 * What frost or heat does to the roots of a lot on a day. Limits are starting values within ordinary ranges for the young
 * roots of hardy trees (Havis 1976, HortScience 11:402; Studer et al. 1978, J. Am. Soc. Hort. Sci. 103:217), not a
 * species' own.
 */
export interface RootStress {
  kind: 'frost' | 'heat';
  /** Temperature the medium is thought to have come to, °C. */
  mediumC: number;
  /** Young roots begin to die there, °C. */
  limitC: number;
  /** Lowest of the night, or highest of the day, °C. */
  airC: number;
  /** Share of the medium frozen, 0–1; 0 for heat. */
  frozen: number;
  /** What is to be expected of another such night or day: harm now, harm if it goes on, or only watch. */
  risk: 'harm' | 'near' | 'watch';
}

const FROST_LIMIT_C = -6;
const HEAT_LIMIT_C = 46;
const HEAT_HARMS_C = 40;
/** Moist peat or bark: water by volume, and conductivity frozen, W m⁻¹ K⁻¹. */
const WATER_SHARE = 0.4;
const FROZEN_W_MK = 1;
/** A dark cell in full sun is warmer than the air by about this on its sunny side, °C; a large pot's middle by less. */
const SUN_RISE_C = 8;
const SMALL_CELL_ML = 1000;
/** Days back over which frost adds up. */
const FROST_DAYS = 21;

/** Thickness that frost has to go through from two sides, mm: a bed and packed trays from above and below, a pot across. */
function thicknessOf(home: Home): number {
  if (home.kind === 'bed') return home.settledDepthMm;
  const across = Math.sqrt((4e3 * cellMlOf(home)) / (Math.PI * home.depthMm));
  return home.spaceable && home.cellMl >= SMALL_CELL_ML ? Math.min(across, home.depthMm) : home.depthMm;
}

/**
 * Frost and heat at the roots, from the days up to one: degree-hours below freezing are added up and thaws taken off
 * (Stefan's formula), heat is the day's alone.
 * @param minC of each day, the last the day asked about; `maxC` likewise, °C
 */
export function rootStress(home: Home, minC: ArrayLike<number>, maxC: ArrayLike<number>): RootStress | null {
  const days = Math.min(minC.length, maxC.length);
  if (days === 0) return null;
  const [low, high] = [minC[days - 1], maxC[days - 1]];
  // Hours at −1 °C that freeze it through; frost grows with degree-hours.
  const need = freezeThroughHours({
    thicknessMm: thicknessOf(home),
    airC: -1,
    waterShare: WATER_SHARE,
    conductivityWmK: FROZEN_W_MK,
  })!;
  let sofar = 0;
  for (let i = Math.max(0, days - FROST_DAYS); i < days; i++)
    sofar = Math.max(0, Math.min(need * 1.2, sofar - 24 * meanBelow(minC[i], maxC[i])));
  const frozen = Math.min(1, sofar / need);
  if (low < 0 && frozen > 0.15) {
    const mediumC = frozen >= 1 ? 0.7 * low + 0.3 * Math.min(0, (low + high) / 2) : 0;
    const again = Math.min(1, (sofar - 24 * meanBelow(low, high)) / need);
    const risk =
      mediumC <= FROST_LIMIT_C
        ? 'harm'
        : again >= 1 && low <= FROST_LIMIT_C - 1
          ? 'near'
          : frozen > 0.5
            ? 'watch'
            : null;
    if (risk) return { kind: 'frost', mediumC, limitC: FROST_LIMIT_C, airC: low, frozen, risk };
  }
  if (home.kind === 'container') {
    const rise = SUN_RISE_C * (home.light ?? 1) * (home.cellMl >= SMALL_CELL_ML ? 0.6 : 1);
    const mediumC = high + rise;
    if (mediumC >= HEAT_HARMS_C)
      return {
        kind: 'heat',
        mediumC,
        limitC: HEAT_LIMIT_C,
        airC: high,
        frozen: 0,
        risk: mediumC >= HEAT_LIMIT_C ? 'harm' : mediumC >= HEAT_LIMIT_C - 3 ? 'near' : 'watch',
      };
  }
  return null;
}

/** Mean of a day's sine as it freezes (negative) or thaws (positive), °C; thaw works from both sides as frost does. */
function meanBelow(low: number, high: number): number {
  return (low + high) / 2;
}

/** Days of the past up to one, for {@link rootStress}. */
export function lastDays(values: Float64Array, start: EpochDay, until: EpochDay): Float64Array {
  const end = Math.max(0, Math.min(values.length, until - start + 1));
  return values.subarray(Math.max(0, end - FROST_DAYS), end);
}
