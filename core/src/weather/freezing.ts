import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** Heat that a cubic metre of water gives up as it freezes, J (334 kJ/kg). */
const FREEZING_J_PER_M3 = 3.34e8;

/**
 * Hours of frost until a mass of moist medium is frozen through, from two sides that meet in the middle.
 * @param thicknessMm across the pot, or twice the depth where frost comes from above alone, mm
 * @param airC air outside, °C
 * @param waterShare water by volume, 0–1
 * @param conductivityWmK of the frozen medium, W m⁻¹ K⁻¹ (about 1 for wet peat or bark)
 * @returns null at or above 0 °C: it never freezes
 * @throws Unfit for a thickness, water or conductivity that is not above 0
 * @see Stefan 1891, Ann. Phys. 278:269
 */
export function freezeThroughHours({
  thicknessMm,
  airC,
  waterShare,
  conductivityWmK,
}: {
  thicknessMm: number;
  airC: number;
  waterShare: number;
  conductivityWmK: number;
}): number | null {
  if (!(thicknessMm > 0 && waterShare > 0 && conductivityWmK > 0 && Number.isFinite(airC)))
    throw new Unfit(say`Thickness, water and conductivity must be above 0.`);
  if (airC >= 0) return null;
  const half = thicknessMm / 2000;
  return (FREEZING_J_PER_M3 * waterShare * half ** 2) / (2 * conductivityWmK * -airC) / 3600;
}
