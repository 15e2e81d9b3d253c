import { say } from '../speech/say';
import type { MediumValues } from '../medium/medium';
import { sum, type Worked } from '../working/working';
import type { BedDesign } from './design';
import { dressedSize } from './dressedSize';
import { bedGeometry } from './geometry';

/** Softwood at outdoor moisture, kg/m³ (C16–C24 mean density, EN 338, rounded up for wet wood). */
export const TIMBER_DENSITY = 520;
const STEEL_DENSITY = 7850;
const GRAVITY = 9.80665;

/** Above this a load is for two people or a machine, kg. */
export const CARRY_LIMIT_KG = 25;

export interface BedWeight {
  /** The frame's: its boards, or what a thing found weighs empty. */
  timberKg: number;
  meshKg: number;
  mediumWetKg: number;
  totalKg: number;
  /** On the surface under the whole footprint. */
  surfaceKPa: number;
  overCarryLimit: boolean;
}

/**
 * Weight of a filled, watered bed: timber, mesh and medium at container capacity.
 * @throws Unfit when the design cannot be built
 */
export function bedWeight(design: BedDesign, medium: MediumValues): Worked<BedWeight> {
  const g = bedGeometry(design, medium.settling).value;
  const { found } = design;
  let timberM3 = 0;
  for (const name of design.tiers) {
    const b = dressedSize(name);
    const run = 2 * g.outsideLengthMm + 2 * (g.outsideWidthMm - 2 * b.thicknessMm);
    timberM3 += (run * b.thicknessMm * b.widthMm) / 1e9;
  }
  const timberKg = found ? found.emptyKg : timberM3 * TIMBER_DENSITY;
  let meshKg = 0;
  for (const layer of design.layers) {
    if (layer.kind !== 'mesh') continue;
    const d = layer.wireMm / 1000;
    const wirePerM2 = 1 / (layer.openingMm[0] / 1000 + d) + 1 / (layer.openingMm[1] / 1000 + d);
    meshKg += wirePerM2 * ((Math.PI * d * d) / 4) * STEEL_DENSITY * g.insideAreaM2;
  }
  // Fresh fill is the same dry mass in more room; after settling it is denser, so mass is counted loose.
  const mediumWetKg = ((g.insideAreaM2 * g.looseDepthMm) / 1000) * medium.wetKgPerM3;
  const totalKg = timberKg + meshKg + mediumWetKg;
  const footprint =
    ((found ? found.taper ** 2 * (found.shape === 'round' ? Math.PI / 4 : 1) : 1) *
      (g.outsideLengthMm * g.outsideWidthMm)) /
    1e6;
  return {
    value: {
      timberKg,
      meshKg,
      mediumWetKg,
      totalKg,
      surfaceKPa: (totalKg * GRAVITY) / footprint / 1000,
      overCarryLimit: totalKg > CARRY_LIMIT_KG,
    },
    working: [
      {
        what: say`Medium, wet`,
        expression: sum`${g.insideAreaM2} × ${g.looseDepthMm} ÷ 1000 × ${medium.wetKgPerM3}`,
        result: mediumWetKg,
        unit: 'kg',
        inputs: [
          {
            name: say`wet bulk density, ${medium.name}`,
            value: medium.wetKgPerM3,
            unit: 'kg/m³',
            origin: 'starting',
          },
        ],
      },
      found
        ? { what: say`Its own weight, empty`, how: say`As typed.`, result: timberKg, unit: 'kg' }
        : {
            what: say`Timber`,
            expression: sum`${timberM3} × ${TIMBER_DENSITY}`,
            result: timberKg,
            unit: 'kg',
          },
      {
        what: say`Mesh`,
        how: say`Length of wire by its section and the density of steel.`,
        result: meshKg,
        unit: 'kg',
      },
      {
        what: say`Whole bed, watered`,
        expression: sum`${mediumWetKg} + ${timberKg} + ${meshKg}`,
        result: totalKg,
        unit: 'kg',
      },
      {
        what: say`On the surface beneath`,
        expression: sum`${totalKg} × ${GRAVITY} ÷ ${footprint} ÷ 1000`,
        result: (totalKg * GRAVITY) / footprint / 1000,
        unit: 'kPa',
      },
    ],
  };
}
