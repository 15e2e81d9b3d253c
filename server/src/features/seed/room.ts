import { say } from '@kauri/core';
import type { SeedRoom } from '@kauri/core/contract';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import { layer, seedLot, seedMove, seedRecord, stockBed, treatment } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';

/** A row without the nursery it belongs to: the answer is of one nursery. */
function own<R extends { nurseryId: string }>({ nurseryId: _, ...row }: R): Omit<R, 'nurseryId'> {
  return row;
}

/** Everything of the Seed station, six queries however much there is. */
export async function seedRoom({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<SeedRoom> {
  const lots = await tx
    .select()
    .from(seedLot)
    .where(eq(seedLot.nurseryId, nurseryId))
    .orderBy(asc(seedLot.code));
  const moves = await tx
    .select()
    .from(seedMove)
    .where(eq(seedMove.nurseryId, nurseryId))
    .orderBy(asc(seedMove.onDate), asc(seedMove.id));
  const treatments = await tx
    .select()
    .from(treatment)
    .where(eq(treatment.nurseryId, nurseryId))
    .orderBy(asc(treatment.startedOn), asc(treatment.id));
  const stockBeds = await tx
    .select()
    .from(stockBed)
    .where(eq(stockBed.nurseryId, nurseryId))
    .orderBy(asc(stockBed.name));
  const layers = await tx
    .select()
    .from(layer)
    .where(eq(layer.nurseryId, nurseryId))
    .orderBy(asc(layer.madeOn), asc(layer.id));
  const records = await tx
    .select()
    .from(seedRecord)
    .where(and(eq(seedRecord.nurseryId, nurseryId), isNull(seedRecord.struckAt)))
    .orderBy(asc(seedRecord.onDate), asc(seedRecord.id));
  return {
    lots: lots.map(own),
    moves: moves.map(({ nurseryId: _, onDate: on, ...row }) => ({ ...row, on })),
    treatments: treatments.map(own),
    stockBeds: stockBeds.map(own),
    layers: layers.map(own),
    records: records.map(({ id, subjectId, onDate: on, values, note }) => ({
      id,
      subjectId,
      on,
      values,
      note,
    })),
  };
}

type Kept = typeof seedLot | typeof treatment | typeof stockBed | typeof layer;

/**
 * A row, locked until the transaction ends.
 * @throws Refusal 404 when there is none
 */
export async function locked<T extends Kept & PgTable>(
  { tx, nurseryId }: Work,
  table: T,
  id: string,
  what: string,
): Promise<T['$inferSelect']> {
  const [row] = await tx
    .select()
    .from(table as Kept)
    .where(and(eq(table.nurseryId, nurseryId), eq(table.id, id)))
    .for('update');
  if (!row) throw new Refusal(404, 'no-such-record', say`There is no such ${what} in this nursery.`);
  return row as T['$inferSelect'];
}

/** @throws Refusal 409 with the row as it stands when it was changed meanwhile */
export function mustBeFresh(row: { version: number }, version: number): void {
  if (row.version !== version) throw staleEdit('this', row);
}

/** @throws Refusal when a day is still to come, or lies before something began */
export function mustBeDay(work: Work, on: string, since: string | null, began: string): void {
  if (on > work.today)
    throw new Refusal(422, 'not-yet', say`${on} is still to come; today is ${work.today}.`, {
      fields: [{ path: 'on', message: say`Today is ${work.today}.` }],
    });
  if (since !== null && on < since)
    throw new Refusal(422, 'too-early', say`${began} on ${since}; ${on} lies before that.`, {
      fields: [{ path: 'on', message: say`${began} on ${since}.` }],
    });
}
