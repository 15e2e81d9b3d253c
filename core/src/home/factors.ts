import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { cellMlOf, depthMmOf, type Home } from './home';

/** Share of the size that a settled depth of medium allows: 1 − exp(−depth/75 mm). */
export function depthFactor(settledDepthMm: number): number {
  return 1 - Math.exp(-settledDepthMm / 75);
}

/** Share of the diameter left at a density: (1 + ρ/ρ½)^−0.4 (Shinozaki & Kira 1956). */
export function densityFactor(densityPerM2: number, halfDensityPerM2: number): number {
  return (1 + densityPerM2 / halfDensityPerM2) ** -0.4;
}

/**
 * Factor of a cell's volume on lengths, 1 at a litre: doubling the pot gives 43 % more mass, V^0.52, and lengths go
 * with its cube root.
 * @param cellMl volume, mL, above 0
 * @throws Unfit for a volume that is not above 0
 * @see Poorter et al. 2012, Functional Plant Biology 39:839
 */
export function volumeFactor(cellMl: number): number {
  if (!(cellMl > 0 && Number.isFinite(cellMl))) throw new Unfit(say`A volume must be above 0.`);
  return (cellMl / 1000) ** (0.52 / 3);
}

/** Species' sizes are those of a bed of this depth, or of a litre as deep, mm. */
export const USUAL_DEPTH_MM = 250;
/** Light at which growth has lost about two thirds of what more light would add, share of the open sky. */
const LIGHT_SCALE = 0.3;

/**
 * Share of the growth in the open that a share of its light allows: (1 − e^(−L/0.3)) ÷ (1 − e^(−1/0.3)). A rule of thumb
 * after the saturating response of mass to light in Poorter et al. 2019, New Phytologist 223:1073.
 */
export function lightFactor(lightShare: number): number {
  const light = Math.max(0.02, Math.min(1, lightShare));
  return (1 - Math.exp(-light / LIGHT_SCALE)) / (1 - Math.exp(-1 / LIGHT_SCALE));
}

/** What a home makes of a season's growth in height: its depth, a cell's volume, and its light. */
export function heightFactorIn(home: Home): number {
  const depth = depthFactor(depthMmOf(home)) / depthFactor(USUAL_DEPTH_MM);
  const room = home.kind === 'container' ? volumeFactor(cellMlOf(home)) : 1;
  return depth * room * lightFactor(home.light ?? 1);
}

/** The same for its collar, which suffers from crowding too. */
export function diameterFactorIn(home: Home, halfDensityPerM2: number): number {
  const crowd = home.kind === 'bed' ? densityFactor(home.densityPerM2, halfDensityPerM2) : 1;
  return heightFactorIn(home) * crowd;
}
