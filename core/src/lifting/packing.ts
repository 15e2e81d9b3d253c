import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Step, type Worked } from '../working/working';

/** Fresh mass of a bare-root tree over its collar squared times its height, with its roots and what clings to them, g a mm²·cm; a rule of thumb. */
const FRESH_G = 0.02;
/** Height over collar of a sturdy liner where nobody measured both, cm a mm; a rule of thumb. */
const USUAL_STURDINESS = 6.5;
/** Mass of a litre of bare-root trees in bundles, with the moist packing at their roots, kg; a rule of thumb. */
const BUNDLED_KG_PER_L = 0.15;
/** Length that roots add to a bundle, cm; a rule of thumb. */
const ROOTS_CM = 20;
/** What one person lifts alone at most, kg; the usual caution, where local rules say nothing stricter. */
export const ONE_LIFTS_KG = 25;

/** Trees of one kind that travel together. */
export interface Packing {
  trees: number;
  heightCm: number;
  /** Null where nobody measured it: then as a sturdy liner of that height has. */
  collarMm: number | null;
  /** Trees of a bundle; null where they are loose. */
  bundleOf: number | null;
  /** Cells that travel in their trays; null for bare roots. */
  cells: { cellMl: number; perTray: number; wetKgPerM3: number } | null;
}

/** A crate, or whatever bundles travel in. */
export interface Crate {
  litres: number;
  /** It is packed no heavier than this, kg. */
  mostKg: number;
}

export interface Packed {
  /** A tree, with its medium where it has any, kg. */
  treeKg: number;
  /** Crates of bundles, or trays. */
  pieces: number;
  /** Trees of a full piece. */
  treesAPiece: number;
  /** A full piece, kg, without the crate's own. */
  pieceKg: number;
  kg: number;
  /** A bundle from root tip to shoot tip, or a tray's trees above it, cm. */
  longCm: number;
  /** Whether two carry it. */
  forTwo: boolean;
}

/**
 * How trees travel: what they weigh, in how many crates or trays, and what one of these weighs. Masses are rules of thumb until a
 * bundle is weighed.
 * @throws Unfit for a height, crate or count that is not above 0
 * @example packingOf({ trees: 100, heightCm: 60, collarMm: 8, bundleOf: 25, cells: null }, { litres: 90, mostKg: 20 }).value.pieces // 1
 */
export function packingOf(
  { trees, heightCm, collarMm, bundleOf, cells }: Packing,
  crate: Crate,
): Worked<Packed> {
  if (!(heightCm > 0) || !(trees > 0))
    throw new Unfit(say`What is packed has a height and a number above 0.`);
  if (!(crate.litres > 0) || !(crate.mostKg > 0))
    throw new Unfit(say`A crate holds litres and kilograms above 0.`);
  const collar = collarMm ?? heightCm / USUAL_STURDINESS;
  const shootKg = (FRESH_G * collar ** 2 * heightCm) / 1000;
  const mediumKg = cells ? (cells.cellMl * cells.wetKgPerM3) / 1e6 : 0;
  const treeKg = shootKg + mediumKg;
  const treesAPiece = cells ? cells.perTray : inACrate(treeKg, bundleOf, crate);
  const pieces = Math.ceil(trees / treesAPiece);
  const pieceKg = Math.min(trees, treesAPiece) * treeKg;
  const origin = collarMm === null ? ('starting' as const) : ('record' as const);
  const working: Step[] = [
    {
      what: say`A tree`,
      expression: sum`${FRESH_G} × ${collar} × ${collar} × ${heightCm} ÷ 1000 + ${mediumKg}`,
      result: treeKg,
      unit: 'kg',
      inputs: [
        { name: say`fresh mass, a rule of thumb`, value: FRESH_G, unit: 'g/(mm²·cm)', origin: 'starting' },
        { name: say`collar`, value: collar, unit: 'mm', origin },
        { name: say`height`, value: heightCm, unit: 'cm', origin: 'record' },
        { name: say`wet medium of its cell`, value: mediumKg, unit: 'kg', origin: 'record' },
      ],
    },
    {
      what: say`All of them`,
      expression: sum`${trees} × ${treeKg}`,
      result: trees * treeKg,
      unit: 'kg',
    },
    {
      what: cells ? say`A full tray` : say`A full crate`,
      expression: sum`${Math.min(trees, treesAPiece)} × ${treeKg}`,
      result: pieceKg,
      unit: 'kg',
    },
  ];
  return {
    value: {
      treeKg,
      pieces,
      treesAPiece,
      pieceKg,
      kg: trees * treeKg,
      longCm: cells ? heightCm : heightCm + ROOTS_CM,
      forTwo: pieceKg > ONE_LIFTS_KG,
    },
    working,
  };
}

/** Trees of a full crate: as it has room and may weigh, in whole bundles where one fits; one at least. */
function inACrate(treeKg: number, bundleOf: number | null, { litres, mostKg }: Crate): number {
  const most = Math.floor(Math.min(mostKg, litres * BUNDLED_KG_PER_L) / treeKg);
  const whole = bundleOf && most >= bundleOf ? most - (most % bundleOf) : most;
  return Math.max(1, whole);
}

/** A height that stands for a grade, cm: its middle, a little above where it is open, well below where it only ends; null without one. */
export function heightOfGrade({
  fromCm,
  toCm,
}: {
  fromCm: number | null;
  toCm: number | null;
}): number | null {
  if (fromCm !== null && toCm !== null) return (fromCm + toCm) / 2;
  if (fromCm !== null) return 1.15 * fromCm;
  return toCm === null ? null : 0.75 * toCm;
}
