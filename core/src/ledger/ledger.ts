import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { EpochDay } from '../calendar/day';

/*
 * Trees are a ledger. A lot's seeds and trees stand in accounts and are moved between them; entries are
 * never edited, only reversed. `supply` is the world outside, which may be drawn on without end; every
 * other account holds zero or more.
 */

/** What a cause says of the course of a lot: a new cause has to answer it. */
export interface CauseTerms {
  /**
   * The share it speaks of: seed that never came up, plants lost while they grew, plants that did not make the grade; or
   * none, for those that left alive or were looked into.
   */
  lost: 'before-up' | 'growing' | 'grading' | 'none';
  /** Whether a grower names it by hand, of a standing plant; others are written by the act that makes them. */
  byHand: boolean;
}

/** Named causes a seed or tree may go out by. */
export const causeTerms = {
  'not-emerged': { lost: 'before-up', byHand: false },
  died: { lost: 'growing', byHand: true },
  drought: { lost: 'growing', byHand: true },
  heat: { lost: 'growing', byHand: true },
  rot: { lost: 'growing', byHand: true },
  browsed: { lost: 'growing', byHand: true },
  rodents: { lost: 'growing', byHand: true },
  frost: { lost: 'growing', byHand: true },
  broken: { lost: 'growing', byHand: true },
  culled: { lost: 'grading', byHand: true },
  sampled: { lost: 'none', byHand: false },
  'pricked-out': { lost: 'none', byHand: false },
  split: { lost: 'none', byHand: false },
  given: { lost: 'none', byHand: true },
  sold: { lost: 'none', byHand: true },
  lost: { lost: 'growing', byHand: true },
} as const satisfies Record<string, CauseTerms>;
export type OutCause = keyof typeof causeTerms;
export const outCauses = Object.keys(causeTerms) as [OutCause, ...OutCause[]];
/** Causes a grower names by hand of plants that stood. */
export const causesByHand = outCauses.filter((cause) => causeTerms[cause].byHand);
/** Causes that a plant died or went missing by. */
export const growingLosses = causesByHand.filter((cause) => causeTerms[cause].lost === 'growing');

export const accounts = [
  'supply',
  'seed',
  'sown',
  'standing',
  'lifted',
  'sent',
  'planted',
  ...outCauses.map((c) => `out:${c}` as const),
] as const;
export type Account = (typeof accounts)[number];

export interface Movement {
  day: EpochDay;
  from: Account;
  to: Account;
  count: number;
}

/** What each account holds at the end of a day (every movement by default). `supply` counts down from 0. */
export function balancesAt(movements: readonly Movement[], day: EpochDay = Infinity): Map<Account, number> {
  const held = new Map<Account, number>();
  for (const m of movements) {
    if (m.day > day) continue;
    held.set(m.from, (held.get(m.from) ?? 0) - m.count);
    held.set(m.to, (held.get(m.to) ?? 0) + m.count);
  }
  return held;
}

/** Movements still in force: neither taken back nor a taking-back. */
export function inForce<M extends { id: string; reverses: string | null }>(movements: readonly M[]): M[] {
  const reversed = new Set(movements.map((m) => m.reverses));
  return movements.filter((m) => m.reverses === null && !reversed.has(m.id));
}

/** A lot's standing in the ledger, in one line a screen can show. */
export interface Tally {
  seeds: number;
  sown: number;
  standing: number;
  /** Lifted, and still in the nursery. */
  lifted: number;
  sent: number;
  /** In plantings of the nursery's own. */
  planted: number;
  out: number;
  /** True when everything drawn from the supply is accounted for. */
  balances: boolean;
}

/** Every tree of a lot that was ever lifted alive, wherever it is now. */
export const liftedOf = ({ lifted, sent, planted }: Pick<Tally, 'lifted' | 'sent' | 'planted'>): number =>
  lifted + sent + planted;

export function tallyAt(movements: readonly Movement[], day: EpochDay = Infinity): Tally {
  const held = balancesAt(movements, day);
  const of = (account: Account) => held.get(account) ?? 0;
  const out = outCauses.reduce((total, cause) => total + of(`out:${cause}`), 0);
  const seeds = 0 - of('supply');
  const inside = of('seed') + of('sown') + of('standing') + of('lifted') + of('sent') + of('planted') + out;
  return {
    seeds,
    sown: of('sown'),
    standing: of('standing'),
    lifted: of('lifted'),
    sent: of('sent'),
    planted: of('planted'),
    out,
    balances: inside === seeds,
  };
}

/**
 * What a count of living seedlings means for the ledger: more than stand are newly up (sown → standing),
 * fewer have gone by a cause the grower names.
 * @throws Unfit with a sentence when more are counted than were sown, or a fall has no cause
 */
export function countToMovements(
  counted: number,
  standing: number,
  sown: number,
  cause: OutCause | null,
): { from: Account; to: Account; count: number }[] {
  const change = counted - standing;
  if (change > sown) {
    throw new Unfit(
      say`${counted} counted, but only ${standing + sown} seeds of this lot are still standing or in the ground. Check the lot and the count.`,
    );
  }
  if (change > 0) return [{ from: 'sown', to: 'standing', count: change }];
  if (change === 0) return [];
  if (cause === null) {
    throw new Unfit(say`${-change} fewer than the ${standing} that stood. Say what became of them.`);
  }
  return [{ from: 'standing', to: `out:${cause}`, count: -change }];
}
