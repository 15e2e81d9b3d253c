import { say } from '@kauri/core';
import type { Arranged, Arrangement, Place } from '@kauri/core/contract';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { note } from '../../db/journal';
import { place, stage } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';
import { addPlace, toPlace } from './places';
import { keepValue, readValue } from '../../nursery/values';

/**
 * One edit of the plan, whole or not at all: the site, places moved, added and taken away.
 * @throws Refusal 409 when the site or a place was changed meanwhile, or a place to be taken away has held lots
 */
export async function arrangeYard(work: Work, edit: Arrangement): Promise<Arranged> {
  const { tx, nurseryId } = work;
  const places: Place[] = [];
  const touched = [...edit.moved, ...edit.removed];
  const rows = touched.length
    ? await tx
        .select()
        .from(place)
        .where(
          and(
            eq(place.nurseryId, nurseryId),
            inArray(
              place.id,
              touched.map((t) => t.id),
            ),
          ),
        )
        // In one order, so that two edits of the same places wait and never lock each other out.
        .orderBy(asc(place.id))
        .for('update')
    : [];
  const standing = new Map(rows.map((row) => [row.id, row]));
  for (const { id, version } of touched) {
    const row = standing.get(id);
    if (!row)
      throw new Refusal(404, 'no-such-place', say`A place on your plan is no longer there. Load it again.`);
    if (row.version !== version)
      throw staleEdit(row.name, toPlace(row), say`The plan is shown as it stands now; move it again.`);
  }
  for (const { id } of edit.removed) {
    const [held] = await tx
      .select({ id: stage.id })
      .from(stage)
      .where(and(eq(stage.nurseryId, nurseryId), eq(stage.placeId, id)))
      .limit(1);
    const row = standing.get(id)!;
    if (held)
      throw new Refusal(
        409,
        'place-in-use',
        say`${row.name} has held lots, and their records name it: it stays. Move it aside or rename it instead.`,
      );
    await tx.delete(place).where(and(eq(place.nurseryId, nurseryId), eq(place.id, id)));
    await note(work, 'take place away', id, toPlace(row), null);
  }
  for (const { id, version, eastM, northM, angleDeg } of edit.moved) {
    const [row] = await tx
      .update(place)
      .set({ eastM, northM, angleDeg, version: version + 1 })
      .where(and(eq(place.nurseryId, nurseryId), eq(place.id, id)))
      .returning();
    await note(work, 'move place', id, toPlace(standing.get(id)!), toPlace(row));
    places.push(toPlace(row));
  }
  for (const { id, place: body } of edit.added) places.push(await addPlace(work, id, body));
  const kept = edit.site
    ? await keepValue(work, 'site', edit.site.version, edit.site.plan)
    : await readValue(work, 'site');
  return {
    site: { version: kept.version, plan: kept.value } as Arranged['site'],
    places,
    removed: edit.removed.map((r) => r.id),
  };
}
