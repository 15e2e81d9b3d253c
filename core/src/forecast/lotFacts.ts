import type { EpochDay } from '../calendar/day';
import type { CareDone } from '../growing/care';
import type { Movement } from '../ledger/ledger';
import type { SpeciesValues } from '../species/species';

/** Where a lot's roots are: a cell of its own, or a share of a bed. */
export type Home =
  | {
      kind: 'container';
      name: string;
      cellMl: number;
      depthMm: number;
      airShare: number;
      /** Distance between neighbours when packed tight, mm; null for an open flat. */
      pitchMm?: number | null;
      /** Single cells that can be set apart. */
      spaceable?: boolean;
      /** What stands over it, against the open. */
      cover?: Cover;
    }
  | {
      kind: 'bed';
      densityPerM2: number;
      settledDepthMm: number;
      airShare: number;
      /** Room for shoots under the lid, cm; null without one. */
      headroomCm: number | null;
      cover?: Cover;
    };

/** How much warmer the nights' lowest and the days' highest are under a cover than in the open, °C. */
export interface Cover {
  lowC: number;
  highC: number;
}

/** A home from a day on. */
export interface HomeSpell {
  from: EpochDay;
  home: Home;
}

/** All a forecast needs to know of a lot. Records later than the date of a forecast are not looked at. */
export interface LotFacts {
  id: string;
  code: string;
  species: SpeciesValues;
  sownOn: EpochDay;
  /** Seed ready to grow, or fresh seed that winters will wake. */
  seedState: 'ready' | 'fresh';
  /** Winters more than its species lies, for a lot kept on though nothing came up. */
  extraWinters?: number;
  /** Where it stands now, or stood on the date looked at. */
  home: Home;
  /** Every home in turn, the last the present one; absent for a lot that never moved. */
  homes?: HomeSpell[];
  targetHeightCm: number | null;
  leafFallOn: EpochDay | null;
  counts: { day: EpochDay; count: number }[];
  sizes: { day: EpochDay; what: 'height' | 'diameter'; n: number; mean: number; sd: number }[];
  pulls: { day: EpochDay; scores: number[] }[];
  movements: Movement[];
  /** Work done to it that a forecast reads: spreading, feeding, pruning, inoculum. */
  care?: { day: EpochDay; done: CareDone }[];
  /** Spread of ln vigour the nursery's own lots left; the usual one where they taught nothing. */
  vigourSdLog?: number;
  /** Whether its roots should carry nodules. */
  nodules?: boolean;
}

/** Medium a plant's roots have to themselves, mL. */
export function cellMlOf(home: Home): number {
  return home.kind === 'container' ? home.cellMl : (1e3 / home.densityPerM2) * home.settledDepthMm;
}

export function depthMmOf(home: Home): number {
  return home.kind === 'container' ? home.depthMm : home.settledDepthMm;
}
