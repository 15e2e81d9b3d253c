import type { OutCause, Account } from '../ledger/ledger';
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

const lostBy: readonly OutCause[] = ['died', 'drought', 'rot', 'browsed', 'frost', 'lost'];

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
  const died = lostBy.reduce((total, cause) => total + between('standing', `out:${cause}`), 0);
  const lifted = between('standing', 'lifted');
  const culled = between('standing', 'out:culled');
  const inGround = sown - up - between('sown', 'out:not-emerged') - between('sown', 'out:lost');
  return {
    sown,
    up,
    established: { k: Math.max(0, up - died), n: up },
    grade: { k: lifted, n: lifted + culled },
    emergenceOver: sown > 0 && (inGround <= 0 || lifted > 0),
  };
}
