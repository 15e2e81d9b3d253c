/** A layer under the medium that roots must pass to reach air. */
export type OpenLayer =
  | { kind: 'mesh'; openingMm: readonly [number, number]; wireMm: number }
  | { kind: 'cloth'; shadeShare: number }
  | { kind: 'support'; coveredShare: number };

/** What stands under a bed; it decides how large the air gap must be. */
export type Ground = 'paving' | 'gravel' | 'soil' | 'weeds';

/** A rectangular air-pruning bed as it is drawn up, SI units. A value: kept with a schema number. */
export interface BedDesign {
  schema: 1;
  /** Whether length and width are of the soil or of the frame. */
  measured: 'inside' | 'outside';
  lengthMm: number;
  widthMm: number;
  /** Board name of each tier, from the bottom up. */
  tiers: readonly string[];
  /** Below the medium, from the top down. */
  layers: readonly OpenLayer[];
  /** How far below the rim the medium is filled, mm. */
  fillBelowRimMm: number;
  ground: Ground;
  airGapMm: number;
  /** Clearance from the rim to the lid or cage; null without one. */
  lidAboveRimMm: number | null;
}
