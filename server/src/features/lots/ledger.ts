import { inForce, type Account, say } from '@kauri/core';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { balance, movement } from '../../db/schema/index';
import type { Work } from '../../http/context';

export interface PlannedMovement {
  from: Account;
  to: Account;
  count: number;
  /** Of lifted trees, the parcel they come to or go from. */
  parcelId?: string;
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
  await moveAll(
    work,
    moves.map((m) => ({ ...m, lotId, entryId })),
    onDate,
    note,
  );
}

/** Writes movements of several lots at once. */
export async function moveAll(
  work: Work,
  moves: readonly (PlannedMovement & { lotId: string; entryId: string })[],
  onDate: string,
  note = '',
): Promise<void> {
  const rows = moves
    .filter((m) => m.count > 0)
    .map((m) => ({
      nurseryId: work.nurseryId,
      id: newId(),
      lotId: m.lotId,
      entryId: m.entryId,
      onDate,
      fromAccount: m.from,
      toAccount: m.to,
      count: m.count,
      note,
      parcelId: m.parcelId ?? null,
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

/** Reverses what still holds of some entries, of one lot where it is named. Returns how many movements. */
export async function reverseEntries(
  work: Work,
  entryIds: readonly string[],
  undoId: string,
  onDate: string,
  lotId?: string,
): Promise<number> {
  const all = await work.tx
    .select()
    .from(movement)
    .where(
      and(
        eq(movement.nurseryId, work.nurseryId),
        lotId === undefined ? undefined : eq(movement.lotId, lotId),
        inArray(movement.entryId, [...entryIds]),
      ),
    )
    .orderBy(asc(movement.id));
  return reverse(work, inForce(all), undoId, onDate);
}

/**
 * Reverses movements, the last first.
 * @param onDate the day it is written for; a later movement is reversed on its own day
 */
export async function reverse(
  work: Work,
  rows: readonly (typeof movement.$inferSelect)[],
  undoId: string,
  onDate: string,
): Promise<number> {
  const back = [...rows].reverse().map((m) => ({
    nurseryId: work.nurseryId,
    id: newId(),
    lotId: m.lotId,
    entryId: undoId,
    onDate: m.onDate > onDate ? m.onDate : onDate,
    fromAccount: m.toAccount,
    toAccount: m.fromAccount,
    count: m.count,
    note: say`taken back`,
    reverses: m.id,
    parcelId: m.parcelId,
  }));
  if (back.length) await work.tx.insert(movement).values(back);
  return back.length;
}
