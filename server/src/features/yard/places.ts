import type { Place, PlaceBody } from '@kauri/core/contract';
import { bedGeometry } from '@kauri/core';
import { and, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { place } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

type PlaceRow = typeof place.$inferSelect;

export function toPlace(row: PlaceRow): Place {
  const { kind, name, eastM, northM, turned, mediumId, design } = row;
  return {
    id: row.id,
    version: row.version,
    place: { kind, name, eastM, northM, turned, mediumId, design } as PlaceBody,
  };
}

/** Whole checks beyond the shape: a bed must be buildable. */
function mustStand(body: PlaceBody) {
  if (body.kind === 'bed') bedGeometry(body.design);
}

export async function addPlace(work: Work, id: string, body: PlaceBody): Promise<Place> {
  mustStand(body);
  const [row] = await work.tx
    .insert(place)
    .values({ nurseryId: work.nurseryId, id, ...body })
    .returning();
  await note(work, 'add place', id, null, body);
  return toPlace(row);
}

/** @throws Refusal 409 with the row as it stands when it was changed meanwhile */
export async function editPlace(work: Work, id: string, version: number, body: PlaceBody): Promise<Place> {
  mustStand(body);
  const here = and(eq(place.nurseryId, work.nurseryId), eq(place.id, id));
  const [before] = await work.tx.select().from(place).where(here).for('update');
  if (!before) throw new Refusal(404, 'no-such-place', 'There is no such place in this nursery.');
  if (before.kind !== body.kind)
    throw new Refusal(422, 'invalid', 'A bed stays a bed and a bench a bench; add a new place instead.');
  if (before.version !== version) {
    throw new Refusal(
      409,
      'stale-edit',
      'Someone changed this place meanwhile. Yours is kept on the screen; compare and save again.',
      {
        current: toPlace(before),
      },
    );
  }
  const [row] = await work.tx
    .update(place)
    .set({ ...body, version: version + 1 })
    .where(here)
    .returning();
  await note(work, 'change place', id, toPlace(before), toPlace(row));
  return toPlace(row);
}
