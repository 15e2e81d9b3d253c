/** A layer under the medium that roots must pass to reach air. */
export type OpenLayer =
  | { kind: 'mesh'; openingMm: readonly [number, number]; wireMm: number }
  | { kind: 'cloth'; shadeShare: number }
  | { kind: 'support'; coveredShare: number };

/** What stands under a bed; it decides how large the air gap must be. */
export type Ground = 'paving' | 'gravel' | 'soil' | 'weeds';

export const timberClasses = ['treated', 'durable', 'scrap'] as const;
export type TimberClass = (typeof timberClasses)[number];
export const footKinds = ['bricks', 'blocks', 'legs', 'pallet'] as const;
export type FootKind = (typeof footKinds)[number];

/** How a bed is put together; what a bed without it is taken to be is in `buildOf`. */
export interface BedBuild {
  timber: TimberClass;
  corners: 'brackets' | 'butt';
  /** Topmost tiers that lift off as a riser, so that trees can be reached at harvest. */
  riserTiers: number;
  /** Whether one long side unscrews. */
  loosenSide: boolean;
  /** Bearers across the bed under the mesh, evenly spaced, on edge. */
  crossMembers: number;
  crossBoard: string;
  /** Strips that hold the mesh's edge; without them staples alone. */
  runners: boolean;
  feet: { kind: FootKind; count: number };
}

/** A thing that was not made for a bed: a bottomless pot or tub, a crate, a stack of grates. Its walls are its own. */
export interface FoundBed {
  shape: 'round' | 'box';
  /** Of its walls. */
  heightMm: number;
  wallMm: number;
  /** Size of the floor over that of the rim, as it narrows downwards; 1 where its walls are upright. */
  taper: number;
  emptyKg: number;
  /** Seasons it is likely to last. */
  seasons: number;
}

/** An air-pruning bed as it is drawn up, SI units. A value: kept with a schema number. */
export interface BedDesign {
  schema: 1;
  /** Whether length and width are of the soil or of the frame. */
  measured: 'inside' | 'outside';
  lengthMm: number;
  widthMm: number;
  /** Board name of each tier, from the bottom up; none where the bed is something found. */
  tiers: readonly string[];
  /** Below the medium, from the top down. */
  layers: readonly OpenLayer[];
  /** How far below the rim the medium is filled, mm. */
  fillBelowRimMm: number;
  ground: Ground;
  airGapMm: number;
  /** Clearance from the rim to the lid or cage; null without one. */
  lidAboveRimMm: number | null;
  /** Left out by a design drawn up before its build was. */
  build?: BedBuild;
  /** Something found instead of boards; of a round one length and width are both its diameter at the rim. */
  found?: FoundBed;
}

/** Farthest apart bearers lie under an ordinary bed, mm. */
const USUAL_BAY_MM = 600;

/** The build of a design; where it was never said, an ordinary one for its size. */
export function buildOf(design: BedDesign): BedBuild {
  if (design.build) return design.build;
  if (design.found)
    return {
      timber: 'scrap',
      corners: 'butt',
      riserTiers: 0,
      loosenSide: false,
      crossMembers: 0,
      crossBoard: '50x75',
      runners: false,
      feet: { kind: 'bricks', count: 4 },
    };
  const inches = design.tiers[0] !== undefined && Number(design.tiers[0].split(/[x×]/i)[0]) <= 4;
  return {
    timber: 'durable',
    corners: 'brackets',
    riserTiers: Math.max(0, design.tiers.length - 1),
    loosenSide: false,
    crossMembers: Math.max(0, Math.ceil(design.lengthMm / USUAL_BAY_MM) - 1),
    crossBoard: inches ? '2x3' : '50x75',
    runners: true,
    feet: { kind: 'bricks', count: 2 * (Math.ceil(design.lengthMm / 900) + 1) },
  };
}
