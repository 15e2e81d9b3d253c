import type { SpeciesValues } from '../species/species';

/**
 * Thermal time that budburst needs after so many chill days: a + b·exp(−k·C), °C·d above 5 °C.
 * @see Cannell & Smith 1983, J. Appl. Ecol. 20:951
 */
export function budburstThermalTime({ a, b, k }: SpeciesValues['budburst'], chillDays: number): number {
  return a + b * Math.exp(-k * chillDays);
}
