import { say, inWords } from '../speech/say';
import { sum, type Worked } from '../working/working';
import { buildOf, type BedDesign, type Ground, type TimberClass } from './design';

export interface Life {
  /** Seasons to the first replacement of the frame. */
  early: number;
  median: number;
  late: number;
}

/** Seasons of a frame full of wet medium, out of ground contact (starting values; EN 335 use class 3–4). */
const SEASONS: Record<TimberClass, number> = { treated: 15, durable: 9, scrap: 3 };
/** Damp and soil reach a frame sooner over living ground. */
const GROUND_FACTOR: Record<Ground, number> = { paving: 1, gravel: 0.95, soil: 0.85, weeds: 0.8 };
/** Mesh and cloth rust and tear before a good frame rots, seasons. */
export const MESH_SEASONS = 6;

/** What each timber asks of whoever works with it. */
export const timberCautions: Record<TimberClass, string> = inWords({
  treated:
    'Preservative-treated: gloves and mask; never burn or compost offcuts. Whether it may touch medium for food plants depends on the product and the place.',
  durable: 'Untreated durable wood: splinters and dust of some species irritate; mask when sawing.',
  scrap:
    'Scrap: look for nails, old paint and unknown treatment; wood of unknown history keeps away from medium.',
});

/** How long a bed's frame will last where it stands. */
export function serviceLife(design: BedDesign): Worked<Life> {
  const { found } = design;
  if (found)
    return {
      value: { early: found.seasons * 0.7, median: found.seasons, late: found.seasons * 1.4 },
      working: [{ what: say`Seasons it lasts`, how: say`As typed.`, result: found.seasons, unit: 'seasons' }],
    };
  const { timber, feet } = buildOf(design);
  const base = SEASONS[timber];
  const ground =
    GROUND_FACTOR[design.ground] * (feet.kind === 'legs' && design.ground !== 'paving' ? 0.8 : 1);
  const median = base * ground;
  return {
    value: { early: median * 0.7, median, late: median * 1.4 },
    working: [
      {
        what: say`Seasons the frame lasts`,
        expression: sum`${base} × ${ground}`,
        result: median,
        unit: 'seasons',
        inputs: [
          { name: say`${timber} timber, filled and wet`, value: base, unit: 'seasons', origin: 'starting' },
          { name: say`over ${design.ground}`, value: ground, origin: 'starting' },
        ],
        source: 'Ordinary ranges for outdoor timber, use class 3–4 (EN 335)',
      },
    ],
  };
}
