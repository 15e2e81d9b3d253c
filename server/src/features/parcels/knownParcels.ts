import { say } from '@kauri/core';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { parcel, sendingReturn } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

type KnownParcel = typeof parcel.$inferSelect & {
  /** The day it came to lie there: that of the lift, or on which it came back. */
  hereSince: string;
};

/** Parcels of the nursery by id, all of them. @throws Refusal where one is not there */
export async function knownParcels(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  ids: readonly string[],
): Promise<Map<string, KnownParcel>> {
  if (!ids.length) return new Map();
  const rows = await tx
    .select({ parcel, hereSince: sql<string>`coalesce(${sendingReturn.onDate}, ${parcel.since})::text` })
    .from(parcel)
    .leftJoin(
      sendingReturn,
      and(eq(sendingReturn.nurseryId, parcel.nurseryId), eq(sendingReturn.id, parcel.entryId)),
    )
    .where(and(eq(parcel.nurseryId, nurseryId), inArray(parcel.id, [...ids])));
  if (rows.length < new Set(ids).size)
    throw new Refusal(404, 'no-such-parcel', say`There is no such parcel in this nursery.`);
  return new Map(rows.map((row) => [row.parcel.id, { ...row.parcel, hereSince: row.hereSince }]));
}

/** @throws Refusal for a day on which a parcel did not lie there yet */
export function mustLieBy({ hereSince }: KnownParcel, code: string, on: string): void {
  if (on < hereSince)
    throw new Refusal(
      422,
      'invalid',
      say`What is to go of ${code} lies here since ${hereSince}: it cannot leave before that.`,
      { fields: [{ path: 'on', message: say`It lies here since ${hereSince}.` }] },
    );
}
