import { say } from '../speech/say';
import type { MediumValues } from '../medium/medium';
import { put, sum, type Worked } from '../working/working';
import { buildOf, type BedDesign, type FootKind } from './design';
import { dressedSize } from './dressedSize';
import { bedGeometry, type BedGeometry } from './geometry';
import { bedWeight } from './weight';

const GRAVITY = 9.80665;
/** Stiffness of softwood, C16 (EN 338), taken down by a fifth for wet wood, N/mm². */
export const WET_STIFFNESS = 6400;
/** A bearer may bend by this share of its span. */
export const SAG_LIMIT = 1 / 180;
/** Widest bay of mesh that does not belly: plain mesh, and mesh on a heavy grid, mm. */
const BAY_PLAIN_MM = 350;
const BAY_GRID_MM = 700;

/** What a foot of each kind bears, kg, and the ground it presses on, m². Ordinary; a pallet within its own rating. */
export const feetBear: Record<FootKind, { kg: number; areaM2: number }> = {
  bricks: { kg: 300, areaM2: 0.022 },
  blocks: { kg: 600, areaM2: 0.044 },
  legs: { kg: 250, areaM2: 0.0042 },
  pallet: { kg: 1000, areaM2: 0.24 },
};

export interface BedSupports {
  crossSagMm: number | null;
  crossLimitMm: number | null;
  /** Of the long sides; null where the walls are not boards. */
  sideSagMm: number | null;
  sideLimitMm: number | null;
  /** Free width of mesh between bearers, and the widest that does not belly. */
  bayMm: number;
  bayLimitMm: number;
  perFootKg: number;
  footBearsKg: number;
  underFootKPa: number;
  feetNeeded: number;
  /** What sags, bellies or sinks, in sentences. */
  faults: string[];
}

/** Sag of a simply supported beam under an even load, mm: 5wL⁴/(384EI). */
export function beamSag(newtonsPerMm: number, spanMm: number, thicknessMm: number, heightMm: number): number {
  const inertia = (thicknessMm * heightMm ** 3) / 12;
  return (5 * newtonsPerMm * spanMm ** 4) / (384 * WET_STIFFNESS * inertia);
}

/** The long sides between the feet they stand on. */
function sideOf(design: BedDesign, g: BedGeometry, totalKg: number) {
  const { feet } = buildOf(design);
  const board = dressedSize(design.tiers[0]);
  const pairs = Math.max(2, Math.floor(feet.count / 2));
  const spanMm = feet.kind === 'pallet' ? 600 : g.outsideLengthMm / (pairs - 1);
  const load = (totalKg * GRAVITY) / 2 / g.outsideLengthMm;
  return {
    board,
    spanMm,
    load,
    sagMm: beamSag(load, spanMm, board.thicknessMm, board.widthMm),
    limitMm: spanMm * SAG_LIMIT,
  };
}

/**
 * Whether bearers, sides, mesh and feet carry a bed filled and watered: sag against a 180th of the span,
 * the mesh's bays, and the load on each foot.
 * @throws Unfit when the design cannot be built
 */
export function bedSupports(design: BedDesign, medium: MediumValues): Worked<BedSupports> {
  const build = buildOf(design);
  const g = bedGeometry(design, medium.settling).value;
  const weight = bedWeight(design, medium).value;
  const faults: string[] = [];
  const narrowMm = Math.min(g.insideLengthMm, g.insideWidthMm);
  const bayMm = design.found ? narrowMm : g.insideLengthMm / (build.crossMembers + 1);
  const heavyGrid = design.layers.some((l) => l.kind === 'mesh' && l.wireMm >= 3);
  const bayLimitMm = heavyGrid ? BAY_GRID_MM : BAY_PLAIN_MM;
  const meshed = design.layers.some((l) => l.kind === 'mesh');
  if (design.found && meshed && bayMm > bayLimitMm + 0.5)
    faults.push(
      say`The mesh spans ${Math.round(bayMm)} mm and will belly: a welded grid under it carries ${BAY_GRID_MM} mm.`,
    );
  else if (!design.found && bayMm > bayLimitMm + 0.5)
    faults.push(
      say`The mesh spans ${Math.round(bayMm)} mm between bearers and will belly: ${Math.ceil(g.insideLengthMm / bayLimitMm) - 1} bearers keep it within ${bayLimitMm} mm.`,
    );
  let crossSagMm: number | null = null;
  let crossLimitMm: number | null = null;
  let perCross = 0;
  const cross = dressedSize(build.crossBoard);
  if (build.crossMembers > 0 && cross.widthMm > design.airGapMm)
    faults.push(
      say`Bearers of ${build.crossBoard} are ${Math.round(cross.widthMm)} mm deep and the gap is ${Math.round(design.airGapMm)} mm: they would stand on the ground.`,
    );
  if (build.crossMembers > 0) {
    // Each bearer carries its bay of medium over the width.
    perCross = (weight.mediumWetKg * GRAVITY) / (build.crossMembers + 1) / g.insideWidthMm;
    crossSagMm = beamSag(perCross, g.insideWidthMm, cross.thicknessMm, cross.widthMm);
    crossLimitMm = g.insideWidthMm * SAG_LIMIT;
    if (crossSagMm > crossLimitMm)
      faults.push(
        say`Bearers of ${build.crossBoard} sag ${crossSagMm.toFixed(1)} mm over ${Math.round(g.insideWidthMm)} mm; ${crossLimitMm.toFixed(1)} mm is the most. Take a deeper board or more of them.`,
      );
  }
  const side = design.found ? null : sideOf(design, g, weight.totalKg);
  if (side && side.sagMm > side.limitMm)
    faults.push(
      say`The long sides sag ${side.sagMm.toFixed(1)} mm between feet ${Math.round(side.spanMm)} mm apart: add feet along the sides.`,
    );
  const bears = feetBear[build.feet.kind];
  const perFootKg = weight.totalKg / build.feet.count;
  const feetNeeded = Math.max(build.feet.kind === 'pallet' ? 1 : 4, Math.ceil(weight.totalKg / bears.kg));
  if (perFootKg > bears.kg)
    faults.push(
      say`Each foot carries ${Math.round(perFootKg)} kg and bears ${bears.kg} kg: ${feetNeeded} feet are needed, not ${build.feet.count}.`,
    );
  const underFootKPa = (perFootKg * GRAVITY) / bears.areaM2 / 1000;
  return {
    value: {
      crossSagMm,
      crossLimitMm,
      sideSagMm: side?.sagMm ?? null,
      sideLimitMm: side?.limitMm ?? null,
      bayMm,
      bayLimitMm,
      perFootKg,
      footBearsKg: bears.kg,
      underFootKPa,
      feetNeeded,
      faults,
    },
    working: [
      design.found
        ? { what: say`Mesh across`, how: say`Between its walls.`, result: bayMm, unit: 'mm' }
        : {
            what: say`Mesh between bearers`,
            expression: sum`${g.insideLengthMm} ÷ (${build.crossMembers} + 1)`,
            result: bayMm,
            unit: 'mm',
          },
      ...(crossSagMm === null
        ? []
        : [
            {
              what: say`Sag of a bearer, watered`,
              expression: `5 × ${put(perCross)} × ${put(g.insideWidthMm)}^4 ÷ (384 × ${WET_STIFFNESS} × ${put(cross.thicknessMm)} × ${put(cross.widthMm)}^3 ÷ 12)`,
              result: crossSagMm,
              unit: 'mm',
              inputs: [
                { name: 'load', value: perCross, unit: 'N/mm', origin: 'choice' as const },
                {
                  name: say`stiffness of wet softwood`,
                  value: WET_STIFFNESS,
                  unit: 'N/mm²',
                  origin: 'standard' as const,
                },
              ],
              source: 'Simply supported beam; C16, EN 338; limit a 180th of the span',
            },
          ]),
      ...(side
        ? [
            {
              what: say`Sag of a long side between feet`,
              expression: `5 × ${put(side.load)} × ${put(side.spanMm)}^4 ÷ (384 × ${WET_STIFFNESS} × ${put(side.board.thicknessMm)} × ${put(side.board.widthMm)}^3 ÷ 12)`,
              result: side.sagMm,
              unit: 'mm',
            },
          ]
        : []),
      {
        what: say`On each foot`,
        expression: sum`${weight.totalKg} ÷ ${build.feet.count}`,
        result: perFootKg,
        unit: 'kg',
      },
      {
        what: say`Under each foot`,
        expression: sum`${perFootKg} × ${GRAVITY} ÷ ${bears.areaM2} ÷ 1000`,
        result: underFootKPa,
        unit: 'kPa',
      },
    ],
  };
}
