import { say } from '@kauri/core';
import type { BodyOf, PlaceCheck } from '@kauri/core/contract';
import { and, desc, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { person, place, placeCheck } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

/** Records the condition a place was found in. */
export async function checkPlace(
  work: Work,
  placeId: string,
  body: BodyOf<'checkPlace'>,
): Promise<PlaceCheck> {
  const { tx, nurseryId, personId } = work;
  if (body.day > work.today)
    throw new Refusal(422, 'invalid', say`A check is recorded when it is done: the day is still to come.`);
  const [there] = await tx
    .select({ id: place.id })
    .from(place)
    .where(and(eq(place.nurseryId, nurseryId), eq(place.id, placeId)));
  if (!there) throw new Refusal(404, 'no-such-place', say`There is no such place in this nursery.`);
  await tx.insert(placeCheck).values({ nurseryId, placeId, personId, ...body });
  await note(work, 'check place', placeId, null, body);
  const [who] = await tx.select({ name: person.name }).from(person).where(eq(person.id, personId));
  return { ...body, placeId, by: who?.name ?? '' };
}

export async function checksOf({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<PlaceCheck[]> {
  const rows = await tx
    .select({
      id: placeCheck.id,
      placeId: placeCheck.placeId,
      day: placeCheck.day,
      condition: placeCheck.condition,
      repaired: placeCheck.repaired,
      note: placeCheck.note,
      by: person.name,
    })
    .from(placeCheck)
    .leftJoin(person, eq(person.id, placeCheck.personId))
    .where(eq(placeCheck.nurseryId, nurseryId))
    .orderBy(desc(placeCheck.day), desc(placeCheck.id))
    .limit(1000);
  return rows.map((row) => ({ ...row, by: row.by ?? '' }));
}
