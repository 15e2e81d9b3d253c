import type { Spread } from '../chance/spread';
import type { Beta } from '../chance/beta';
import type { Protocol } from './protocol';

/** How seed bears drying and cold: the first keeps dry for years, the last dies dry and lasts a winter. */
export const storageBehaviours = ['orthodox', 'intermediate', 'recalcitrant'] as const;
export type StorageBehaviour = (typeof storageBehaviours)[number];

export const cuttingKinds = ['hard', 'semi-ripe', 'soft', 'root'] as const;
export type CuttingKind = (typeof cuttingKinds)[number];

/** Rooting of a cutting or an air layer: the share that takes, and the warmth it needs, °C·d above 5. */
export interface Rooting {
  take: Beta;
  rootDd: Spread;
}

/** How a species is started, by seed and otherwise. Starting values, to be replaced by own records. */
export interface StartValues {
  storage: StorageBehaviour;
  /** Days in which seed in its usual store loses one probit of viability. */
  sigmaDays: Spread;
  thicknessMm: number;
  protocols: Protocol[];
  /** Warmth above 1 °C, once dormancy is broken, until half the seeds show a radicle, °C·d. */
  radicleDd: Spread;
  rootHabit: 'tap' | 'heart' | 'fibrous';
  /** Most height (cm) to collar (mm) of sturdy stock. */
  sturdinessMost: number;
  nodules: 'none' | 'frankia' | 'rhizobia';
  cuttings: Partial<Record<CuttingKind, Rooting>>;
  layer: Rooting | null;
  /** What tells it from others without a label. */
  leafWords: string;
  cautions: string[];
}

/** Where a seed lot lies. */
export const stores = ['fridge', 'freezer', 'room', 'cool-moist', 'outdoors'] as const;
export type Store = (typeof stores)[number];

/**
 * How much slower or faster seed ages in a store than in the usual one of its kind (dry in the fridge for
 * orthodox and intermediate seed, cool and moist for recalcitrant). Rules of thumb in keeping with the seed
 * viability equation: about half the life for each 5 °C or each 1 % of moisture more (Harrington 1972).
 */
export function storeFactor(storage: StorageBehaviour, store: Store): number {
  const factors: Record<StorageBehaviour, Record<Store, number>> = {
    orthodox: { fridge: 1, freezer: 3, room: 0.25, 'cool-moist': 0.3, outdoors: 0.2 },
    intermediate: { fridge: 1, freezer: 0.6, room: 0.3, 'cool-moist': 0.6, outdoors: 0.3 },
    recalcitrant: { fridge: 0.5, freezer: 0.02, room: 0.15, 'cool-moist': 1, outdoors: 0.8 },
  };
  return factors[storage][store];
}

/** As above for the seed's moisture, % of fresh weight; 1 where it was not measured. */
export function moistureFactor(storage: StorageBehaviour, moisturePct: number | null): number {
  if (moisturePct === null) return 1;
  if (storage === 'recalcitrant') return moisturePct < 30 ? 0.15 : moisturePct < 40 ? 0.6 : 1;
  const ordinary = storage === 'orthodox' ? 8 : 12;
  return Math.min(2, Math.max(0.05, 2 ** (ordinary - moisturePct)));
}
