import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { densityFactor, depthFactor } from '../home/factors';
import type { SpeciesValues } from '../species/species';
import { sum, type Worked } from '../working/working';

export const sowingWays = ['rows', 'drills', 'broadcast'] as const;
export type SowingWay = (typeof sowingWays)[number];

/** Collar a season's crowd tends to at a density and settled depth, mm. */
export function collarAtDensity(
  { diameterMm, halfDensityPerM2 }: Pick<SpeciesValues, 'diameterMm' | 'halfDensityPerM2'>,
  densityPerM2: number,
  settledDepthMm: number,
): number {
  return diameterMm.median * depthFactor(settledDepthMm) * densityFactor(densityPerM2, halfDensityPerM2);
}

/**
 * The closest standing that still gives a collar: the reciprocal yield law turned round,
 * ρ = ρ½((D₁ ÷ D)^2.5 − 1).
 * @returns plants per m²
 * @throws Unfit with a sentence when even a lone plant would not reach it in a season
 * @see Shinozaki & Kira 1956
 */
export function densityForCollar(
  species: Pick<SpeciesValues, 'diameterMm' | 'halfDensityPerM2'>,
  collarMm: number,
  settledDepthMm: number,
): Worked<number> {
  if (!(collarMm > 0)) throw new Unfit(say`The collar wanted is above 0 mm.`);
  const alone = species.diameterMm.median * depthFactor(settledDepthMm);
  if (collarMm >= alone)
    throw new Unfit(
      say`Alone and in this depth it tends to ${alone.toFixed(1)} mm in a season; ask for less, or for two seasons.`,
    );
  const half = species.halfDensityPerM2;
  const density = half * ((alone / collarMm) ** 2.5 - 1);
  return {
    value: density,
    working: [
      {
        what: say`Collar of one standing alone`,
        expression: sum`${species.diameterMm.median} × (1 − exp(0 − ${settledDepthMm} ÷ 75))`,
        result: alone,
        unit: 'mm',
        inputs: [
          { name: say`collar it tends to`, value: species.diameterMm.median, unit: 'mm', origin: 'starting' },
        ],
      },
      {
        what: say`Closest standing for the collar wanted`,
        expression: sum`${half} × ((${alone} ÷ ${collarMm}) ^ 2.5 − 1)`,
        result: density,
        unit: 'per m²',
        inputs: [
          {
            name: say`density at which collars begin to suffer`,
            value: half,
            unit: 'per m²',
            origin: 'starting',
          },
        ],
        source: 'Shinozaki & Kira 1956',
      },
    ],
  };
}

export interface BedSowing {
  way: SowingWay;
  /** Trees wanted to stand, per m². */
  standingPerM2: number;
  /** Share of sown seed that stands in the end. */
  standingShare: number;
  areaM2: number;
  lengthMm: number;
  rowSpacingMm: number;
  thicknessMm: number;
}

export interface BedSowingPlan {
  seeds: number;
  seedsPerM2: number;
  /** Rows along the bed; 0 when broadcast. */
  rows: number;
  /** Gap between seeds in a row, mm; null when broadcast. */
  gapMm: number | null;
  depthMm: { least: number; most: number };
  mulchMm: number;
}

/** Lanes of seed to a row: a drill is a band three seeds wide. */
const lanesOf = (way: SowingWay): number => (way === 'drills' ? 3 : 1);
/** Rows this far apart leave room for a hand and a hoe; they are drawn together only where seeds would lie too close. */
const USUAL_ROW_MM = 120;
const CLOSEST_ROW_MM = 30;
/** Seeds keep one and a half times their thickness from one to the next. */
const SEED_ROOM = 1.5;

/** Row spacing at which the seeds of a standing density find room in their rows, to the centimetre, mm. */
export function rowSpacingFor({
  way,
  standingPerM2,
  standingShare,
  thicknessMm,
}: Pick<BedSowing, 'way' | 'standingPerM2' | 'standingShare' | 'thicknessMm'>): number {
  const widest = (lanesOf(way) * standingShare * 1e6) / (standingPerM2 * SEED_ROOM * thicknessMm);
  return Math.max(CLOSEST_ROW_MM, Math.min(USUAL_ROW_MM, Math.floor(widest / 10) * 10));
}

/**
 * How a bed is sown for a standing density: seeds a square metre, rows and the gap in them, depth (one to two
 * times the seed's thickness) and mulch to cover it.
 * @throws Unfit with a sentence for rows wider apart than the bed, or seeds that would lie on each other
 */
export function bedSowing(ask: BedSowing): Worked<BedSowingPlan> {
  const { way, standingPerM2, standingShare, areaM2, lengthMm, rowSpacingMm, thicknessMm } = ask;
  if (!(standingPerM2 > 0 && areaM2 > 0 && lengthMm > 0))
    throw new Unfit(say`Density, area and length are all above 0.`);
  if (!(standingShare > 0 && standingShare <= 1))
    throw new Unfit(say`The share that stands in the end lies above 0 and at most 100 %.`);
  const seedsPerM2 = standingPerM2 / standingShare;
  const widthMm = (areaM2 * 1e6) / lengthMm;
  const rows = way === 'broadcast' ? 0 : Math.floor(widthMm / rowSpacingMm);
  if (way !== 'broadcast' && rows < 1)
    throw new Unfit(say`Rows ${rowSpacingMm} mm apart do not fit a strip ${Math.round(widthMm)} mm wide.`);
  const seeds = Math.ceil(seedsPerM2 * areaM2 - 1e-9);
  const gapMm = rows ? (rows * lengthMm) / seeds : null;
  const lanes = lanesOf(way);
  if (gapMm !== null && gapMm * lanes < thicknessMm)
    throw new Unfit(
      say`Seeds would lie on one another: ${gapMm.toFixed(1)} mm apart for seed ${thicknessMm} mm thick. Take more rows, drills, or a wider standing.`,
    );
  return {
    value: {
      seeds,
      seedsPerM2,
      rows,
      gapMm,
      depthMm: { least: thicknessMm, most: 2 * thicknessMm },
      mulchMm: Math.max(5, Math.min(25, Math.round(thicknessMm * 1.5))),
    },
    working: [
      {
        what: say`Seeds a square metre`,
        expression: sum`${standingPerM2} ÷ ${standingShare}`,
        result: seedsPerM2,
      },
      {
        what: say`Seeds for the area`,
        expression: sum`${seedsPerM2} × ${areaM2}`,
        result: seedsPerM2 * areaM2,
      },
      ...(gapMm === null
        ? []
        : [
            {
              what: say`Gap between seeds in a row`,
              expression: sum`${rows} × ${lengthMm} ÷ ${seeds}`,
              result: gapMm,
              unit: 'mm',
            },
          ]),
    ],
  };
}
