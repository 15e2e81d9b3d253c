import { causeTerms, outCauses, type Account, type CauseTerms } from '../ledger/ledger';
import type { Outcome } from '../chance/pooledShare';

/** What a lot's movements say of its course. */
export interface LotShares {
  sown: number;
  /** Ever up. */
  up: number;
  /** Of those up, what was neither lost nor left when the lot was closed or lifted. */
  established: Outcome;
  grade: Outcome;
  /** Whether its emergence is over: nothing left in the ground, or trees lifted. */
  emergenceOver: boolean;
}

interface Moved {
  from: Account;
  to: Account;
  count: number;
}

/** Shares of a lot from its ledger; movements that were taken back have their reverse among them. */
export function lotShares(movements: readonly Moved[]): LotShares {
  const between = (from: Account, to: Account) =>
    movements.reduce(
      (total, m) =>
        total + (m.from === from && m.to === to ? m.count : m.from === to && m.to === from ? -m.count : 0),
      0,
    );
  const sown = between('seed', 'sown');
  const up = between('sown', 'standing');
  const out = (from: Account, lost?: CauseTerms['lost']) =>
    outCauses
      .filter((cause) => lost === undefined || causeTerms[cause].lost === lost)
      .reduce((total, cause) => total + between(from, `out:${cause}`), 0);
  const died = out('standing', 'growing');
  const lifted = between('standing', 'lifted');
  const culled = out('standing', 'grading');
  const inGround = sown - up - out('sown');
  return {
    sown,
    up,
    established: { k: Math.max(0, up - died), n: up },
    grade: { k: lifted, n: lifted + culled },
    emergenceOver: sown > 0 && (inGround <= 0 || lifted > 0),
  };
}
