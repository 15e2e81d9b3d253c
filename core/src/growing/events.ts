import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { OutCause } from '../ledger/ledger';

/** What can befall trees, and their getting over it. */
export const eventKinds = [
  'browsing',
  'rodents',
  'drought',
  'heat',
  'frost',
  'rot',
  'flood',
  'weeds',
  'damage',
  'deaths',
  'recovery',
] as const;
export type EventKind = (typeof eventKinds)[number];

/** The cause under which trees that an event killed leave the ledger; null where it kills none. */
export const causeOfEvent: Readonly<Record<EventKind, OutCause | null>> = {
  browsing: 'browsed',
  rodents: 'rodents',
  drought: 'drought',
  heat: 'heat',
  frost: 'frost',
  rot: 'rot',
  flood: 'rot',
  weeds: 'died',
  damage: 'broken',
  deaths: 'died',
  recovery: null,
};

/**
 * Share of its height that a tree hit and still standing has left; 1 where an event takes none. Rules of thumb: a browsed
 * or broken leader takes about four tenths with it, frost the soft tip.
 */
export const heightLeftAfter: Readonly<Record<EventKind, number>> = {
  browsing: 0.6,
  rodents: 1,
  drought: 1,
  heat: 1,
  frost: 0.85,
  rot: 1,
  flood: 1,
  weeds: 1,
  damage: 0.6,
  deaths: 1,
  recovery: 1,
};

/** Trees of one lot in an event. */
export interface LotHit {
  lotId: string;
  hit: number;
  dead: number;
}

/**
 * Shares an event over the lots of a bed by what stands in each, when it was only counted for the bed as a whole. The
 * shares are whole trees and come to the number counted (largest remainder); no lot is given more than stands in it.
 * @param standing trees standing by lot
 * @throws Unfit when more were hit than stand, or more died than were hit
 */
export function shareOverLots(
  standing: readonly { lotId: string; standing: number }[],
  hit: number,
  dead: number,
): LotHit[] {
  const all = standing.reduce((total, lot) => total + lot.standing, 0);
  if (hit > all) throw new Unfit(say`${hit} hit, but only ${all} stand there.`);
  if (dead > hit) throw new Unfit(say`No more can have died than were hit.`);
  const hits = apportion(
    standing.map((lot) => lot.standing),
    hit,
  );
  const deaths = apportion(hits, dead);
  return standing.map(({ lotId }, i) => ({ lotId, hit: hits[i], dead: deaths[i] }));
}

/** Whole shares of a total in proportion to weights, none above its weight (largest remainder). */
function apportion(weights: readonly number[], total: number): number[] {
  const all = weights.reduce((sum, w) => sum + w, 0);
  if (all === 0) return weights.map(() => 0);
  const exact = weights.map((w) => (w / all) * total);
  const shares = exact.map(Math.floor);
  let left = total - shares.reduce((sum, s) => sum + s, 0);
  const byRest = exact
    .map((x, i) => ({ i, rest: x - shares[i] }))
    .sort((a, b) => b.rest - a.rest || a.i - b.i);
  for (const { i } of byRest) {
    if (left === 0) break;
    if (shares[i] >= weights[i]) continue;
    shares[i]++;
    left--;
  }
  return shares;
}
