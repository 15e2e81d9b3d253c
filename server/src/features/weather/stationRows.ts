import { say } from '@kauri/core';
import { and, asc, eq } from 'drizzle-orm';
import { station } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

/** A station is first read this far back, and asked about missing days as far. */
export const READ_BACK_DAYS = 60;

type Row = typeof station.$inferSelect;

/** The stations of a nursery, in the order they were added. */
export async function stationRows({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<Row[]> {
  return tx
    .select()
    .from(station)
    .where(eq(station.nurseryId, nurseryId))
    .orderBy(asc(station.addedAt), asc(station.id));
}

export async function stationRow(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  id: string,
): Promise<Row> {
  const [row] = await tx
    .select()
    .from(station)
    .where(and(eq(station.nurseryId, nurseryId), eq(station.id, id)));
  if (!row) throw new Refusal(404, 'no-such-station', say`There is no such station in this nursery.`);
  return row;
}
