import { say } from '../speech/say';
import type { MediumValues } from '../medium/medium';
import { heldByOf } from '../medium/mix';
import type { BedDesign } from './design';

/** Cloth denser than this stops tips instead of letting them through. */
const DENSEST_CLOTH = 0.6;
/** A tip needs at least this opening, mm. */
const TIP_MM = 2;

export interface Retaining {
  holds: boolean;
  tipsPass: boolean;
  sentence: string;
}

/** Whether what lies under the medium holds it, and lets root tips through to the air. */
export function retaining(design: Pick<BedDesign, 'layers'>, medium: MediumValues): Retaining {
  const finest = Math.min(
    ...design.layers.map((l) => (l.kind === 'mesh' ? Math.min(...l.openingMm) : Infinity)),
  );
  const cloth = design.layers.find((l) => l.kind === 'cloth');
  const grainMm = heldByOf(medium);
  const holds = cloth !== undefined || finest <= grainMm;
  const tipsPass =
    (cloth === undefined || (cloth.kind === 'cloth' && cloth.shadeShare <= DENSEST_CLOTH)) &&
    finest >= TIP_MM;
  const sentence = !holds
    ? say`This medium falls through ${finest === Infinity ? say`an open floor` : say`a ${Math.round(finest)} mm mesh`}: lay cloth, a mesh of ${grainMm} mm or finer, or coarse chips first.`
    : !tipsPass
      ? say`The cloth is so dense that tips mat on it instead of meeting air: 60 % shade at most.`
      : say`Holds the medium and lets tips through to the air.`;
  return { holds, tipsPass, sentence };
}

/** Depth of medium at a share of the season, mm: it settles fast at first, by the whole share at the end. */
export function depthThrough(looseDepthMm: number, settling: number, seasonShare: number): number {
  const run = (1 - Math.exp(-3 * seasonShare)) / (1 - Math.exp(-3));
  return looseDepthMm * (1 - settling * run);
}
