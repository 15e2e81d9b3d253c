import type { EpochDay } from '../calendar/day';
import type { Foretold } from './foretold';
import type { CareDone } from '../growing/care';
import type { EventKind } from '../growing/events';
import type { Home, HomeSpell } from '../home/home';
import type { Movement } from '../ledger/ledger';
import type { SpeciesValues } from '../species/species';
import type { Waking } from '../species/waking';

/** Height lost on a day. */
export interface HeightLoss {
  day: EpochDay;
  what: EventKind;
  /** Share of those standing that lost some, 0–1. */
  share: number;
}

/** All a forecast needs to know of a lot. Records later than the date of a forecast are not looked at. */
export interface LotFacts {
  id: string;
  code: string;
  species: SpeciesValues;
  sownOn: EpochDay;
  /** Cuttings that were stuck, where it was not sown; it is up once it has roots. */
  cuttings?: boolean;
  /** Seed ready to grow, or fresh seed that winters will wake. */
  seedState: 'ready' | 'fresh';
  /** Winters more than its species lies, for a lot kept on though nothing came up. */
  extraWinters?: number;
  /** How seed of its kind wakes; by its winters where that is not told. */
  waking?: Waking;
  /** Where it stands now, or stood on the date looked at. */
  home: Home;
  /** Every home in turn, the last the present one; absent for a lot that never moved. */
  homes?: HomeSpell[];
  targetHeightCm: number | null;
  leafFallOn: EpochDay | null;
  counts: { day: EpochDay; count: number }[];
  sizes: { day: EpochDay; what: 'height' | 'diameter'; n: number; mean: number; sd: number }[];
  /** Plugs scored; `before` where the lot was moved later on the same day, so that they were those of its old cell. */
  pulls: { day: EpochDay; scores: number[]; before?: boolean }[];
  movements: Movement[];
  /** Work done to it that a forecast reads: spreading, feeding, pruning, inoculum. */
  care?: { day: EpochDay; done: CareDone }[];
  /** What took height off it, and off what share of its trees. */
  losses?: HeightLoss[];
  /** Spread of ln vigour the nursery's own lots left; the usual one where they taught nothing. */
  vigourSdLog?: number;
  /** How many times as wide its bands are as they start, where past forecasts held too seldom or too often. */
  bandWidths?: Partial<Record<Foretold, number>>;
  /** Whether its roots should carry nodules. */
  nodules?: boolean;
}
