import { bedGeometry, traysOnBench, say } from '@kauri/core';
import type { Place, PlaceBody } from '@kauri/core/contract';
import { and, eq, isNull, sql } from 'drizzle-orm';
import { note } from '../../db/journal';
import { balance, containerType, place, stage } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';

type PlaceRow = typeof place.$inferSelect;

export function toPlace(row: PlaceRow): Place {
  const { kind, name, eastM, northM, angleDeg, mediumId, design, builtOn, builtFrom } = row;
  const spot = { kind, name, eastM, northM, angleDeg, mediumId, design };
  return {
    id: row.id,
    version: row.version,
    place: (kind === 'bed' ? { ...spot, builtOn, builtFrom } : spot) as PlaceBody,
  };
}

/** Whole checks beyond the shape: a bed must be buildable. */
function mustStand(body: PlaceBody) {
  if (body.kind === 'bed') bedGeometry(body.design);
}

/** What a place's row holds; only beds are built from designs. */
function columnsOf(body: PlaceBody) {
  return body.kind === 'bed'
    ? { ...body, builtOn: body.builtOn ?? null, builtFrom: body.builtFrom ?? null }
    : { ...body, builtOn: null, builtFrom: null };
}

/** Stages that still take room in a place: of lots with seed or trees in it. */
async function takenIn({ tx, nurseryId }: Work, placeId: string) {
  return tx
    .select({
      areaM2: stage.areaM2,
      trays: stage.trays,
      container: containerType.values,
    })
    .from(stage)
    .leftJoin(
      containerType,
      and(eq(containerType.nurseryId, stage.nurseryId), eq(containerType.id, stage.containerTypeId)),
    )
    .where(
      and(
        eq(stage.nurseryId, nurseryId),
        eq(stage.placeId, placeId),
        isNull(stage.endedOn),
        sql`exists (select 1 from ${balance} b where b.nursery_id = ${stage.nurseryId} and b.lot_id = ${stage.lotId} and b.account in ('seed', 'sown', 'standing') and b.held > 0)`,
      ),
    );
}

/** @throws Refusal when a smaller place would no longer hold what stands in it */
async function mustStillHold(work: Work, id: string, before: PlaceBody, after: PlaceBody) {
  const standing = await takenIn(work, id);
  if (after.kind === 'bed' && before.kind === 'bed') {
    const used = standing.reduce((total, s) => total + (s.areaM2 ?? 0), 0);
    const [was, will] = [before, after].map((p) => bedGeometry(p.design).value.insideAreaM2);
    if (will < was && used > will + 0.005)
      throw new Refusal(
        422,
        'too-small',
        say`Lots standing in ${before.name} take ${used.toFixed(2)} m²; made smaller it would hold ${will.toFixed(2)} m². Move or lift a lot first.`,
      );
    return;
  }
  for (const { trays, container } of standing) {
    if (!container || trays === null) continue;
    const tray = { lengthMm: container.trayLengthMm, widthMm: container.trayWidthMm };
    const [was, will] = [before, after].map((p) => traysOnBench(p.design, tray).value);
    if (will < was && trays > will)
      throw new Refusal(
        422,
        'too-small',
        say`${trays} trays of one lot stand on ${before.name}; made smaller it would hold ${will}. Move or lift a lot first.`,
      );
  }
}

export async function addPlace(work: Work, id: string, body: PlaceBody): Promise<Place> {
  mustStand(body);
  const [row] = await work.tx
    .insert(place)
    .values({ nurseryId: work.nurseryId, id, ...columnsOf(body) })
    .returning();
  await note(work, 'add place', id, null, body);
  return toPlace(row);
}

/** @throws Refusal 409 with the row as it stands when it was changed meanwhile */
export async function editPlace(work: Work, id: string, version: number, body: PlaceBody): Promise<Place> {
  mustStand(body);
  const here = and(eq(place.nurseryId, work.nurseryId), eq(place.id, id));
  const [before] = await work.tx.select().from(place).where(here).for('update');
  if (!before) throw new Refusal(404, 'no-such-place', say`There is no such place in this nursery.`);
  if (before.kind !== body.kind)
    throw new Refusal(422, 'invalid', say`A place stays of its kind; add a new place instead.`);
  if (before.version !== version) {
    throw staleEdit(say`this place`, toPlace(before));
  }
  await mustStillHold(work, id, toPlace(before).place, body);
  const [row] = await work.tx
    .update(place)
    .set({ ...columnsOf(body), version: version + 1 })
    .where(here)
    .returning();
  await note(work, 'change place', id, toPlace(before), toPlace(row));
  return toPlace(row);
}
