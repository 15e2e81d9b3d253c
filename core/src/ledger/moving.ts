import type { Account, OutCause } from './ledger';

/** What was seen at the roots of the trees looked at while a lot was moved on, and what was done about it. */
export interface RootsMoving {
  looked: number;
  circling: number;
  teased: number;
  shaved: number;
  /** Culled for their roots: they leave the lot. */
  rejected: number;
}

/** What goes on the way when a lot is moved on: those lost, and those whose roots were not good enough. */
export interface Moving {
  lost: number;
  cause: OutCause | null;
  roots: RootsMoving | null;
}

/** Trees that leave a lot while it is moved on. */
export const goneInMoving = ({ lost, roots }: Pick<Moving, 'lost' | 'roots'>): number =>
  lost + (roots?.rejected ?? 0);

/**
 * What a move on means for the ledger; nothing goes where nothing was lost or rejected.
 * @param moving of a lot of which as many stand as are gone, or more; those lost with their cause
 */
export function movingToMovements({
  lost,
  cause,
  roots,
}: Moving): { from: Account; to: Account; count: number }[] {
  const moves: { from: Account; to: Account; count: number }[] = [
    { from: 'standing', to: `out:${cause ?? 'lost'}`, count: lost },
    { from: 'standing', to: 'out:culled', count: roots?.rejected ?? 0 },
  ];
  return moves.filter(({ count }) => count > 0);
}
