import { isoOf, mustBePlace, dayOf, say } from '@kauri/core';
import type { BodyOf, PlantedPart, Planting, PlantingLayout, Plantings, Walk } from '@kauri/core/contract';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { note } from '../../db/journal';
import { nursery, parcel, plantedPart, planting, walk } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';
import type { Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';
import { mustBeFree } from '../arrivals/arrivals';
import { moveAll, reverseEntries } from '../lots/ledger';
import { lockLots, mustBeRecordable } from '../lots/locked';
import { knownParcels, mustLieBy } from '../parcels/knownParcels';

const PARTS = `
  select t.planting_id as "plantingId", t.id, p.lot_id as "lotId", l.code, l.species_id as "speciesId", t.parcel_id as "parcelId",
    p.form, coalesce(c.values ->> 'name', '') as "raisedIn", p.grade, p.from_cm as "fromCm", p.to_cm as "toCm",
    t.on_date::text as "on", t.count::int as count, t.guard, t.guard_now as "guardNow", t.stake, t.planter, t.note, w.name as by
  from planted_part t
  join parcel p on p.nursery_id = t.nursery_id and p.id = t.parcel_id
  join lot l on l.nursery_id = p.nursery_id and l.id = p.lot_id
  join person w on w.id = t.person_id
  left join lateral (select s.container_type_id from stage s where s.nursery_id = l.nursery_id and s.lot_id = l.id
    and s.started_on <= p.since order by s.started_on desc limit 1) s on true
  left join container_type c on c.nursery_id = t.nursery_id and c.id = s.container_type_id
  where t.nursery_id = $1 and t.struck_at is null
  order by t.at`;
const WALKS = `
  select w.id, w.planting_id as "plantingId", w.on_date::text as "on", w.kind, p.name as by, w.ended_at::text as "endedAt", w.note,
    case when w.kind = 'every'
      then (select coalesce(sum(t.count), 0)::int from planted_part t
        where t.nursery_id = w.nursery_id and t.planting_id = w.planting_id and t.struck_at is null and t.on_date < w.on_date)
      else (select coalesce(sum(jsonb_array_length(e -> 'numbers')), 0)::int from jsonb_array_elements(w.trees) e) end as trees,
    (select coalesce(jsonb_agg(f), '[]') from (
      select m.part_id as "partId", jsonb_build_object(
          'alive', count(*) filter (where m.state = 'alive'),
          'leader dead', count(*) filter (where m.state = 'leader dead'),
          'dying', count(*) filter (where m.state = 'dying'),
          'dead', count(*) filter (where m.state = 'dead'),
          'missing', count(*) filter (where m.state = 'missing')) as found,
        (select coalesce(jsonb_agg(jsonb_build_object('cause', g.cause, 'count', g.n) order by g.n desc, g.cause), '[]') from (
          select d.cause, count(*) as n from walk_tree d
          where d.nursery_id = w.nursery_id and d.walk_id = w.id and d.part_id = m.part_id and d.cause is not null
          group by d.cause) g) as causes
      from walk_tree m where m.nursery_id = w.nursery_id and m.walk_id = w.id group by m.part_id) f) as found
  from walk w join person p on p.id = w.person_id
  where w.nursery_id = $1 and w.struck_at is null
  order by w.on_date, w.begun_at`;

/** The plantings of a nursery, what stands in them, and the walks through them. */
export async function plantingsOf(tx: Tx, nurseryId: string): Promise<Plantings> {
  const rows = await tx
    .select()
    .from(planting)
    .where(eq(planting.nurseryId, nurseryId))
    .orderBy(asc(planting.madeAt), asc(planting.id));
  const { rows: parts } = await tx.$client.query<PlantedPart & { plantingId: string }>(PARTS, [nurseryId]);
  const { rows: walks } = await tx.$client.query<Walk>(WALKS, [nurseryId]);
  return {
    plantings: rows.map(
      ({ id, name, whereWords, purpose, ground, mulch, layout, note: words, version }): Planting => ({
        id,
        name,
        where: whereWords,
        purpose,
        ground,
        mulch,
        layout,
        note: words,
        version,
        parts: parts.filter((part) => part.plantingId === id).map(({ plantingId: _, ...part }) => part),
      }),
    ),
    walks,
  };
}

/** Places a layout has; Infinity within an outline, where nobody counts them. */
const roomIn = (layout: PlantingLayout) => (layout.kind === 'rows' ? layout.rows * layout.perRow : Infinity);

function mustHold(name: string, layout: PlantingLayout, trees: number): void {
  const room = roomIn(layout);
  if (trees > room)
    throw new Refusal(
      422,
      'invalid',
      say`The rows of ${name} have ${room} places, and ${trees} trees would stand there. Give it more rows first.`,
    );
}

/** A planting and its parts in the order they were planted. */
export async function plantingAt({ tx, nurseryId }: Work, id: string, lock = false) {
  const query = tx
    .select()
    .from(planting)
    .where(and(eq(planting.nurseryId, nurseryId), eq(planting.id, id)));
  const [row] = await (lock ? query.for('update') : query);
  if (!row) throw new Refusal(404, 'no-such-planting', say`There is no such planting in this nursery.`);
  const parts = await tx
    .select({ id: plantedPart.id, count: plantedPart.count, onDate: plantedPart.onDate })
    .from(plantedPart)
    .where(
      and(eq(plantedPart.nurseryId, nurseryId), eq(plantedPart.plantingId, id), isNull(plantedPart.struckAt)),
    )
    .orderBy(asc(plantedPart.at));
  return { row, parts, trees: parts.reduce((sum, { count }) => sum + count, 0) };
}

/** A planting, locked against other writers. */
export const lockedPlanting = (work: Work, id: string) => plantingAt(work, id, true);

/** Whether a planting was walked, and the walk not taken back: its trees keep their numbers from then on. */
async function isWalked({ tx, nurseryId }: Work, plantingId: string): Promise<boolean> {
  const [row] = await tx
    .select({ id: walk.id })
    .from(walk)
    .where(and(eq(walk.nurseryId, nurseryId), eq(walk.plantingId, plantingId), isNull(walk.struckAt)))
    .limit(1);
  return row !== undefined;
}

/**
 * Adds a planting or changes one.
 * @throws Refusal when somebody changed it meanwhile, or its rows would no longer hold what stands there; Unfit for an outline
 *   that is no place near the nursery
 */
export async function putPlanting(work: Work, id: string, body: BodyOf<'putPlanting'>): Promise<void> {
  const { tx, nurseryId } = work;
  const { version, name, where: whereWords, purpose, ground, mulch, layout, note: words } = body;
  const fields = { name, whereWords, purpose, ground, mulch, layout, note: words };
  if (layout.kind === 'outline') {
    const [home] = await tx
      .select({ latitudeDeg: nursery.latitudeDeg, longitudeDeg: nursery.longitudeDeg })
      .from(nursery)
      .where(eq(nursery.id, nurseryId));
    mustBePlace(layout.corners, home);
  }
  if (version === null) {
    await tx.insert(planting).values({ nurseryId, id, ...fields });
    await note(work, 'add planting', id, null, fields);
    return;
  }
  const { row, trees } = await lockedPlanting(work, id);
  if (row.version !== version) throw staleEdit(`${row.name}`, row);
  mustHold(name, layout, trees);
  await tx
    .update(planting)
    .set({ ...fields, version: version + 1 })
    .where(and(eq(planting.nurseryId, nurseryId), eq(planting.id, id)));
  await note(work, 'change planting', id, row, fields);
}

/**
 * Plants lifted trees: all parcels or none.
 * @throws Refusal for a parcel that is not there, a day before the lift, or more than the rows hold; 409 for more than lie there
 */
export async function plantTrees(work: Work, plantingId: string, body: BodyOf<'plantTrees'>): Promise<void> {
  const { tx, nurseryId, personId } = work;
  const { on, planter, guard, stake, note: words, parts } = body;
  const ids = parts.map(({ parcelId }) => parcelId);
  const known = await knownParcels(work, ids);
  const found = [...known.values()];
  const lots = await lockLots(work, [...new Set(found.map(({ lotId }) => lotId))]);
  await mustBeFree(work, [...lots.keys()], on);
  for (const one of found) {
    const lot = lots.get(one.lotId)!;
    mustBeRecordable(work, lot, on);
    mustLieBy(one, lot.code, on);
  }
  const { row, trees } = await lockedPlanting(work, plantingId);
  mustHold(row.name, row.layout, trees + parts.reduce((sum, { count }) => sum + count, 0));
  await tx.insert(plantedPart).values(
    parts.map(({ id, parcelId, count }) => ({
      nurseryId,
      id,
      plantingId,
      parcelId,
      onDate: on,
      count,
      guard,
      guardNow: guard,
      stake,
      planter,
      note: words,
      personId,
    })),
  );
  await moveAll(
    work,
    parts.map(({ id, parcelId, count }) => ({
      lotId: known.get(parcelId)!.lotId,
      entryId: id,
      from: 'lifted' as const,
      to: 'planted' as const,
      count,
      parcelId,
    })),
    on,
    words || row.name,
  );
  await note(work, 'plant trees', plantingId, null, body);
}

async function lockedPart(work: Work, plantingId: string, id: string) {
  const { tx, nurseryId } = work;
  await lockedPlanting(work, plantingId);
  const [part] = await tx
    .select()
    .from(plantedPart)
    .where(
      and(
        eq(plantedPart.nurseryId, nurseryId),
        eq(plantedPart.plantingId, plantingId),
        eq(plantedPart.id, id),
        isNull(plantedPart.struckAt),
      ),
    );
  if (!part) throw new Refusal(404, 'no-such-part', say`There are no such trees in this planting.`);
  return part;
}
const partAt = ({ nurseryId }: Work, id: string) =>
  and(eq(plantedPart.nurseryId, nurseryId), eq(plantedPart.id, id));

/** Trees that were not planted after all lie where they lay. @throws Refusal once the planting was walked */
export async function takeBackPlanted(
  work: Work,
  plantingId: string,
  id: string,
  undoId: string,
): Promise<void> {
  const { tx, nurseryId, today } = work;
  const [at] = await tx
    .select({ lotId: parcel.lotId })
    .from(plantedPart)
    .innerJoin(parcel, and(eq(parcel.nurseryId, nurseryId), eq(parcel.id, plantedPart.parcelId)))
    .where(partAt(work, id));
  if (at) await lockLots(work, [at.lotId]);
  const part = await lockedPart(work, plantingId, id);
  if (await isWalked(work, plantingId))
    throw new Refusal(
      422,
      'not-undone',
      say`This planting was walked since, and its trees are numbered: take its walks back first.`,
    );
  await tx.update(plantedPart).set({ struckAt: new Date() }).where(partAt(work, id));
  await reverseEntries(work, [id], undoId, today);
  await note(work, 'take planted back', id, part, null);
}

/** What stands about trees now: a tube taken off, or vented. */
export async function changeGuard(
  work: Work,
  plantingId: string,
  id: string,
  { guard }: BodyOf<'changeGuard'>,
): Promise<void> {
  const part = await lockedPart(work, plantingId, id);
  await work.tx.update(plantedPart).set({ guardNow: guard }).where(partAt(work, id));
  await note(work, 'change guard', id, { guard: part.guardNow }, { guard });
}

/** The last day on which a walk can be of: today. @throws Refusal for a day to come, or before anything was planted */
export function mustBeWalkable(
  { today }: Work,
  name: string,
  parts: readonly { onDate: string }[],
  on: string,
): void {
  if (on > today) throw new Refusal(422, 'not-yet', say`${on} is still to come; today is ${today}.`);
  if (parts.length === 0)
    throw new Refusal(422, 'invalid', say`No tree is planted in ${name} yet: there is nothing to walk.`);
  const first = parts.map(({ onDate }) => onDate).sort()[0];
  if (on <= first)
    throw new Refusal(
      422,
      'invalid',
      say`The first trees of ${name} were planted on ${first}; a walk is of ${isoOf(dayOf(first) + 1)} or later.`,
    );
}
