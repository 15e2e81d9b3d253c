import type { CareKind, RuleName } from '@kauri/core';

/** The sheets of a lot’s page. */
export type LotSheet =
  | 'event'
  | 'care'
  | 'what-if'
  | 'shift'
  | 'count'
  | 'measure'
  | 'pull'
  | 'lift'
  | 'write-off'
  | 'split'
  | 'edit'
  | 'correct';

/** The sheet in which each act that Today asks of a lot is written down, and the work chosen in it; none where it is done elsewhere. */
export const sheetOfRule: Readonly<Record<RuleName, { sheet: LotSheet; work?: CareKind } | null>> = {
  'write-off': { sheet: 'write-off' },
  'root-bound': { sheet: 'shift' },
  'hold-ends': { sheet: 'shift' },
  'second-season': { sheet: 'shift' },
  // Pricking out fills new cells: it is done from the page of what comes up.
  'prick-out': null,
  'root-frost': { sheet: 'care' },
  'root-heat': { sheet: 'care' },
  'missed-lift': { sheet: 'what-if' },
  remeasure: { sheet: 'measure' },
  // The lid is the bed’s, not the lot’s.
  'lid-reached': null,
  lift: { sheet: 'lift' },
  spread: { sheet: 'care', work: 'spread' },
  inoculate: { sheet: 'care', work: 'inoculum' },
  'feed-out': { sheet: 'care', work: 'feed' },
  'after-sowing': { sheet: 'care', work: 'water' },
  'keep-moist': { sheet: 'care', work: 'water' },
  'count-up': { sheet: 'count' },
  measure: { sheet: 'measure' },
  'pull-plug': { sheet: 'pull' },
};
