import type { Spread } from '../chance/spread';
import type { Beta } from '../chance/beta';
import type { StartValues } from './startValues';

/**
 * Starting values of a species, each within ordinary published ranges and meant to be sharpened by the
 * nursery's own lots. °C·d are above its base, 5 °C where none is given.
 */
export interface SpeciesValues {
  leaf: 'deciduous' | 'evergreen';
  seedsPerKg: number;
  viability: Beta;
  emergence: Beta;
  establishment: Beta;
  grade: Beta;
  /** Winters a freshly sown seed lies before it comes up; 0 for seed that is ready. */
  winters: number;
  /** Warmth from sowing (or from the end of its last winter) to half up. */
  emergenceDd: Spread;
  /** Height a season's crowd tends to, and how fast, from which seedling. */
  heightCm: Spread;
  diameterMm: Spread;
  growthPerDd: Spread;
  /** Height a second and each later season adds in the open; from the first season's where it is not given. */
  laterHeightCm?: { second: Spread; later: Spread };
  /** Shoots and roots grow above this, and no faster than at the ceiling, °C; 5 and none where left out. */
  growthBaseC?: number;
  growthCeilingC?: number;
  seedlingHeightCm: number;
  seedlingDiameterMm: number;
  /** Coefficient of variation of height between plants of a lot. */
  plantCv: number;
  /** Density at which diameter begins to suffer (reciprocal yield law), plants per m². */
  halfDensityPerM2: number;
  rootRatePerDd: number;
  rootLinearAtMl: number;
  rootInitialMl: number;
  /** Chilling hours (0–7.2 °C) after growth stops until the lot is dormant enough to lift. */
  liftChillHours: number;
  /** Thermal time to budburst: a + b·exp(−k·chill days). */
  budburst: { a: number; b: number; k: number };
  /** How it is started; species kept before this was known take the library's, see {@link startOf}. */
  start?: StartValues;
}

export interface StartingSpecies {
  code: string;
  common: string;
  latin: string;
  values: SpeciesValues;
}
