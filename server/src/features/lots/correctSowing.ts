import { inForce, say } from '@kauri/core';
import type { BodyOf, LotRow, NewStage } from '@kauri/core/contract';
import { and, asc, eq, ne } from 'drizzle-orm';
import { note, noteAll } from '../../db/journal';
import { lot, movement, stage } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';
import { returnToStore, takeFromStore } from '../seed/store';
import { move, reverse } from './ledger';
import { lockLot } from './locked';
import { mustFit, stoodIn } from './sow';
import { takeLotBack, WORKED_ON } from './takeLotBack';

/** Movements that a lot began with and that still hold. */
async function sowing({ tx, nurseryId }: Work, lotId: string) {
  const all = await tx
    .select()
    .from(movement)
    .where(and(eq(movement.nurseryId, nurseryId), eq(movement.lotId, lotId), eq(movement.entryId, lotId)))
    .orderBy(asc(movement.id));
  const moves = inForce(all);
  return { moves, seeds: moves.find((m) => m.toAccount === 'sown')?.count ?? 0 };
}

/** @throws Refusal for a lot that was not sown or stuck here, but came of another or from outside */
function mustBeSown(row: LotRow): void {
  if (row.origin === 'seed' || row.origin === 'cuttings') return;
  throw new Refusal(
    422,
    'invalid',
    say`${row.code} was not sown: correct the lot it came of, or take back the record it came with.`,
  );
}

/** The first day that anything is known of a lot beside its sowing, and of lots that came of it. */
const FIRST_RECORD = `
  select min(day)::text as day from (
    select min(on_date) as day from observation where nursery_id = $1 and lot_id = $2 and struck_at is null
    union all select min(m.on_date) from movement m where m.nursery_id = $1 and m.lot_id = $2 and m.entry_id <> $2 and m.reverses is null
      and not exists (select from movement r where r.nursery_id = $1 and r.reverses = m.id)
    union all select min(ended_on) from stage where nursery_id = $1 and lot_id = $2
    union all select leaf_fall_on from lot where nursery_id = $1 and id = $2) days`;

async function mustComeFirst(work: Work, row: LotRow, sownOn: string): Promise<void> {
  const wrong = (message: string) =>
    new Refusal(422, 'invalid', message, { fields: [{ path: 'sownOn', message }] });
  if (sownOn > work.today) throw wrong(say`${sownOn} is still to come; today is ${work.today}.`);
  const { rows } = await work.tx.$client.query<{ day: string | null }>(FIRST_RECORD, [
    work.nurseryId,
    row.id,
  ]);
  const [{ day }] = rows;
  if (day !== null && sownOn > day)
    throw wrong(say`There is a record of ${row.code} on ${day}: it was sown by then.`);
}

/** Lots that came of a lot, and of those, with itself. */
const FAMILY = `
  with recursive family as (
    select id, code from lot where nursery_id = $1 and id = $2
    union select l.id, l.code from lot l join family f on l.parent_lot_id = f.id where l.nursery_id = $1)`;

/** Whose orders name lots of a family, or have trees of it set aside. */
const ORDERED = `${FAMILY}
  select o.buyer, f.code from tree_order o
    cross join lateral jsonb_array_elements(o.lines) line
    cross join lateral jsonb_array_elements_text(line -> 'lots') named
    join family f on f.id::text = named
  where o.nursery_id = $1
  union all
  select o.buyer, f.code from parcel_aside a
    join parcel p on p.nursery_id = a.nursery_id and p.id = a.parcel_id
    join family f on f.id = p.lot_id
    join tree_order o on o.nursery_id = a.nursery_id and o.id = a.order_id
  where a.nursery_id = $1 and a.count > 0
  limit 1`;

/** @throws Refusal when an order rests on the lot, or on one that came of it */
async function mustBeFree({ tx, nurseryId }: Work, lotId: string): Promise<void> {
  const { rows } = await tx.$client.query<{ buyer: string; code: string }>(ORDERED, [nurseryId, lotId]);
  if (rows.length)
    throw new Refusal(
      409,
      'promised',
      say`Trees of ${rows[0].code} are meant for ${rows[0].buyer || say`a hope`}: take them off that order first.`,
    );
}

/** The trees that came of a lot are of its species, seed and age: what was wrong of it was wrong of them. */
async function correctFamily(
  work: Work,
  before: LotRow,
  { speciesId, seedLotId, treatmentId, stockBedId, cutting, seedState, sownOn }: BodyOf<'correctSowing'>,
): Promise<void> {
  const { rows } = await work.tx.$client.query<{ id: string }>(
    `${FAMILY}
     update lot l set species_id = $3, seed_lot_id = $4, treatment_id = $5, stock_bed_id = $6, cutting = $7, seed_state = case when l.origin = 'pricked' then l.seed_state else $8 end,
       sown_on = case when l.origin = 'split' and l.sown_on = $9::date then $10::date else l.sown_on end, version = l.version + 1
     from family f where l.nursery_id = $1 and l.id = f.id and l.id <> $2 returning l.id`,
    [
      work.nurseryId,
      before.id,
      speciesId,
      seedLotId,
      treatmentId,
      stockBedId,
      cutting,
      seedState,
      before.sownOn,
      sownOn,
    ],
  );
  await noteAll(
    work,
    rows.map(({ id }) => ({
      act: 'correct sowing',
      subjectId: id,
      before: null,
      after: { with: before.code },
    })),
  );
}

/** Where it was sown, put right in place: it never stood elsewhere. */
async function correctStage(work: Work, row: LotRow, s: NewStage): Promise<void> {
  const [later] = await work.tx
    .select({ id: stage.id })
    .from(stage)
    .where(and(eq(stage.nurseryId, work.nurseryId), eq(stage.lotId, row.id), ne(stage.id, row.stage.id)))
    .limit(1);
  if (later)
    throw new Refusal(
      409,
      'moved-since',
      say`${row.code} was moved on since: take the move back before its first place is corrected.`,
    );
  await mustFit(work, s);
  await work.tx
    .update(stage)
    .set(stoodIn(s))
    .where(and(eq(stage.nurseryId, work.nurseryId), eq(stage.id, row.stage.id)));
}

/**
 * Puts right how a lot was sown: species, day, count, code, bag and place. What was recorded since stays, and what came of
 * the lot follows. The seed goes back where it was taken from, and is taken where it came from in truth.
 * @throws Refusal when it was not sown here; when someone changed it meanwhile; for a day after its first record, fewer seeds
 * than came up or were lost, a bag that does not hold them, another species while an order rests on it
 */
export async function correctSowing(work: Work, lotId: string, body: BodyOf<'correctSowing'>): Promise<void> {
  const row = await lockLot(work, lotId);
  mustBeSown(row);
  if (row.version !== body.version) throw staleEdit(say`this lot`, row);
  await mustComeFirst(work, row, body.sownOn);
  if (row.speciesId !== body.speciesId) await mustBeFree(work, lotId);
  const { moves, seeds: before } = await sowing(work, lotId);
  const gone = before - row.held.sown;
  if (body.seeds < gone)
    throw new Refusal(
      422,
      'not-enough',
      say`${gone} of ${row.code} came up or were lost: no fewer were sown. Nothing was changed.`,
      { fields: [{ path: 'seeds', message: say`At least ${gone}.` }] },
    );
  const { nurseryId, tx } = work;
  const { id, version, seeds, stage: s, ...values } = body;
  const isOfStoreAnew =
    row.seedLotId !== body.seedLotId ||
    row.treatmentId !== body.treatmentId ||
    (body.seedLotId !== null && (before !== seeds || row.sownOn !== body.sownOn));
  if (isOfStoreAnew) {
    await returnToStore(work, { ...row, seeds: before });
    await takeFromStore(work, body);
  }
  await tx
    .update(lot)
    .set({ ...values, version: version + 1 })
    .where(and(eq(lot.nurseryId, nurseryId), eq(lot.id, lotId)));
  if (s) await correctStage(work, row, s);
  if (row.sownOn !== body.sownOn)
    await tx
      .update(stage)
      .set({ startedOn: body.sownOn })
      .where(and(eq(stage.nurseryId, nurseryId), eq(stage.lotId, lotId), eq(stage.startedOn, row.sownOn)));
  if (before !== seeds || row.sownOn !== body.sownOn) {
    // Written before the wrong one goes, on its own day: no day ever shows less than came up.
    await move(work, lotId, lotId, body.sownOn, [
      { from: 'supply', to: 'seed', count: seeds },
      { from: 'seed', to: 'sown', count: seeds },
    ]);
    await reverse(work, moves, lotId, row.sownOn);
  }
  await correctFamily(work, row, body);
  await note(work, 'correct sowing', lotId, { ...row, seeds: before }, { ...body, id });
}

/**
 * Takes a sowing back of which nothing was recorded since: the lot goes, its seed is in the bag again.
 * @throws Refusal when something was recorded of it, or an order rests on it
 */
export async function takeBackSowing(
  work: Work,
  lotId: string,
  body: BodyOf<'takeBackSowing'>,
): Promise<LotRow> {
  const row = await lockLot(work, lotId);
  mustBeSown(row);
  const { rows } = await work.tx.$client.query<{ worked: boolean }>(
    `select ${WORKED_ON} as worked from lot l where l.nursery_id = $1 and l.id = $2`,
    [work.nurseryId, lotId],
  );
  if (rows[0].worked)
    throw new Refusal(
      422,
      'not-undone',
      say`${row.code} was worked on since it was sown: take those records back first, correct the sowing, or write its seeds off.`,
    );
  await mustBeFree(work, lotId);
  const { seeds } = await sowing(work, lotId);
  await returnToStore(work, { ...row, seeds });
  await takeLotBack(work, row, body.id, row.sownOn);
  return row;
}
