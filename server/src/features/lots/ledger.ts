import type { Account } from '@kauri/core';
import { and, eq } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { balance, movement } from '../../db/schema/index';
import type { Work } from '../../http/context';

export interface PlannedMovement {
  from: Account;
  to: Account;
  count: number;
}

/** Writes movements of one entry; the database refuses any that would leave an account below zero. */
export async function move(
  work: Work,
  lotId: string,
  entryId: string,
  onDate: string,
  moves: PlannedMovement[],
  note = '',
): Promise<void> {
  const rows = moves
    .filter((m) => m.count > 0)
    .map((m) => ({
      nurseryId: work.nurseryId,
      id: newId(),
      lotId,
      entryId,
      onDate,
      fromAccount: m.from,
      toAccount: m.to,
      count: m.count,
      note,
    }));
  if (rows.length) await work.tx.insert(movement).values(rows);
}

/** What an account of a lot holds now. */
export async function held(work: Work, lotId: string, account: Account): Promise<number> {
  const [row] = await work.tx
    .select({ held: balance.held })
    .from(balance)
    .where(
      and(eq(balance.nurseryId, work.nurseryId), eq(balance.lotId, lotId), eq(balance.account, account)),
    );
  return row?.held ?? 0;
}

/** Reverses every movement of an entry that is not reversed yet. Returns how many. */
export async function reverseEntry(
  work: Work,
  lotId: string,
  entryId: string,
  undoId: string,
  onDate: string,
): Promise<number> {
  const rows = await work.tx
    .select()
    .from(movement)
    .where(
      and(eq(movement.nurseryId, work.nurseryId), eq(movement.lotId, lotId), eq(movement.entryId, entryId)),
    );
  const back = rows.reverse().map((m) => ({
    nurseryId: work.nurseryId,
    id: newId(),
    lotId,
    entryId: undoId,
    onDate: m.onDate > onDate ? m.onDate : onDate,
    fromAccount: m.toAccount,
    toAccount: m.fromAccount,
    count: m.count,
    note: 'taken back',
    reverses: m.id,
  }));
  if (back.length) await work.tx.insert(movement).values(back);
  return back.length;
}
