import { say, inWords } from '@kauri/core';
import type { PhaseKind, School, Store, TestKind, CuttingKind } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import { percent } from './numbers';

export const storeWords: Record<Store, string> = inWords({
  fridge: 'Dry, in the fridge',
  freezer: 'Dry, in the freezer',
  room: 'Dry, at room warmth',
  'cool-moist': 'Cool and moist',
  outdoors: 'Outdoors',
});
export const storageWords = inWords({
  orthodox: 'keeps dry and cold for years',
  intermediate: 'keeps dry and cool for a year or a few',
  recalcitrant: 'dies if it dries; lasts a winter',
} as const);
export const testWords: Record<TestKind, string> = inWords({
  germination: 'Germination test',
  cut: 'Cut test',
  float: 'Float test',
});
export const passedWords: Record<TestKind, string> = inWords({
  germination: 'germinated',
  cut: 'sound',
  float: 'sank',
});
export const phaseWords: Record<PhaseKind, string> = inWords({
  soak: 'soak',
  scarify: 'scarify',
  'hot-water': 'hot water',
  warm: 'warm, moist',
  cold: 'cold, moist',
  'dry-back': 'dry back',
});
export const schoolWords: Record<School, string> = inWords({
  indoors: 'indoors, watched',
  tub: 'leaf-filled tub outdoors',
  sown: 'sown fresh in autumn',
});
export const cuttingWords: Record<CuttingKind, string> = inWords({
  hard: 'hardwood',
  'semi-ripe': 'semi-ripe',
  soft: 'softwood',
  root: 'root',
});
/** How a lot was begun: «sown 2 Apr 2026». */
export const begunWords: Record<LotRow['origin'], string> = inWords({
  seed: 'sown',
  cuttings: 'stuck',
  pricked: 'pricked out',
  layer: 'potted',
  // As old as its parent.
  split: 'sown',
  bought: 'came',
});
export const reasonWords = inWords({
  received: 'received',
  tested: 'used in a test',
  treated: 'put under treatment',
  sown: 'sown',
  given: 'given away',
  'thrown-out': 'thrown out',
  counted: 'weighed anew',
  returned: 'came back: not sown after all',
} as const);

/** A protocol in a line: «soak 1 d, then cold 60 d». */
export function phasesWords(phases: readonly { kind: PhaseKind; days: number }[]): string {
  return phases.length
    ? phases.map((phase) => `${phaseWords[phase.kind]} ${phase.days} d`).join(say`, then `)
    : say`nothing, ready to sow`;
}

/** A share with its band: «62 % (51 to 72)». */
export function shareBand({ mean, p10, p90 }: { mean: number; p10: number; p90: number }): string {
  return say`${percent(mean)} (${Math.round(p10 * 100)} to ${Math.round(p90 * 100)})`;
}

/** How far a batch is. */
export const batchStateWords = inWords({ 'under way': 'under way', sown: 'sown', ended: 'ended' });
/** How far a phase of one is. */
export const phaseStateWords = inWords({ done: 'done', now: 'now', 'to come': 'to come' });

/** How seed keeps, by its usual name. */
export const storageNames = inWords({
  orthodox: 'orthodox',
  intermediate: 'intermediate',
  recalcitrant: 'recalcitrant',
} as const);
