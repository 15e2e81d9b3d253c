import { dayOf, mustBeStep, type HoldStep, say } from '@kauri/core';
import type { BodyOf, Hold, Holds } from '@kauri/core/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { note } from '../../db/journal';
import { hold, holdStep } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { move, reverseEntries } from '../lots/ledger';
import { lockLot, mustBeRecordable } from '../lots/locked';

const HOLDS = `
  select h.id, h.lot_id as "lotId", l.code, l.species_id as "speciesId", h.begun_on::text as "begunOn", h.cause, h.cover,
    h.count::int as count, h.note, p.name as by,
    (select coalesce(json_agg(json_build_object('id', s.id, 'on', s.on_date::text, 'what', s.what, 'note', s.note, 'by', w.name)
        order by s.on_date, s.noted_at), '[]')
      from hold_step s join person w on w.id = s.person_id
      where s.nursery_id = h.nursery_id and s.hold_id = h.id and s.struck_at is null) as steps,
    case when h.ended_on is null then null else json_build_object('on', h.ended_on::text, 'alive', h.alive) end as ended
  from hold h join lot l on l.nursery_id = h.nursery_id and l.id = h.lot_id join person p on p.id = h.person_id
  where h.nursery_id = $1 and h.struck_at is null
  order by h.begun_on desc, h.id`;

export async function holdsOf({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<Holds> {
  const { rows } = await tx.$client.query<Hold>(HOLDS, [nurseryId]);
  return { holds: rows };
}

/** @throws Refusal for a lot of which nothing stands, or that is held already (409) */
export async function beginHold(work: Work, lotId: string, body: BodyOf<'beginHold'>): Promise<void> {
  const row = await lockLot(work, lotId);
  mustBeRecordable(work, row, body.on);
  const { standing } = row.held;
  if (standing === 0)
    throw new Refusal(422, 'none-standing', say`Nothing of ${row.code} stands: there is nothing to hold.`);
  const { nurseryId, personId, tx } = work;
  const { id, on, cause, cover, note: words } = body;
  await tx
    .insert(hold)
    .values({ nurseryId, id, lotId, begunOn: on, cause, cover, count: standing, note: words, personId });
  await note(work, 'begin hold', lotId, null, body);
}

async function lockedHold({ tx, nurseryId }: Work, id: string) {
  const [row] = await tx
    .select()
    .from(hold)
    .where(and(eq(hold.nurseryId, nurseryId), eq(hold.id, id), isNull(hold.struckAt)))
    .for('update');
  if (!row) throw new Refusal(404, 'no-such-hold', say`There is no such hold: it was taken back.`);
  return row;
}
const at = ({ nurseryId }: Work, id: string) => and(eq(hold.nurseryId, nurseryId), eq(hold.id, id));

async function stepsOf({ tx, nurseryId }: Work, id: string): Promise<HoldStep[]> {
  const rows = await tx
    .select({ on: holdStep.onDate, what: holdStep.what })
    .from(holdStep)
    .where(and(eq(holdStep.nurseryId, nurseryId), eq(holdStep.holdId, id), isNull(holdStep.struckAt)));
  return rows.map(({ on, what }) => ({ on: dayOf(on), what }));
}

/** @throws Unfit for a step out of turn; Refusal for a hold that was ended, or a day to come */
export async function noteHold(work: Work, id: string, body: BodyOf<'noteHold'>): Promise<void> {
  const { nurseryId, personId, tx, today } = work;
  const row = await lockedHold(work, id);
  if (row.endedOn !== null) throw new Refusal(422, 'invalid', say`That hold was ended on ${row.endedOn}.`);
  if (body.on > today)
    throw new Refusal(422, 'not-yet', say`${body.on} is still to come; today is ${today}.`);
  mustBeStep(dayOf(row.begunOn), await stepsOf(work, id), { on: dayOf(body.on), what: body.what });
  await tx.insert(holdStep).values({
    nurseryId,
    id: body.id,
    holdId: id,
    onDate: body.on,
    what: body.what,
    note: body.note,
    personId,
  });
  await note(work, 'note hold', row.lotId, null, body);
}

export async function takeBackHoldStep(work: Work, id: string, stepId: string): Promise<void> {
  const row = await lockedHold(work, id);
  const struck = await work.tx
    .update(holdStep)
    .set({ struckAt: new Date() })
    .where(
      and(
        eq(holdStep.nurseryId, work.nurseryId),
        eq(holdStep.holdId, id),
        eq(holdStep.id, stepId),
        isNull(holdStep.struckAt),
      ),
    )
    .returning({ what: holdStep.what });
  if (!struck.length) throw new Refusal(404, 'no-such-step', say`There is no such step to take back.`);
  await note(work, 'take hold step back', row.lotId, struck[0], null);
}

/**
 * Ends a hold: those that did not come through leave the lot.
 * @throws Refusal for more alive than stand, or a day before the hold began
 */
export async function endHold(work: Work, id: string, body: BodyOf<'endHold'>): Promise<void> {
  const row = await lockedHold(work, id);
  if (row.endedOn !== null) throw new Refusal(422, 'invalid', say`That hold was ended on ${row.endedOn}.`);
  const lot = await lockLot(work, row.lotId);
  mustBeRecordable(work, lot, body.on);
  if (body.on < row.begunOn)
    throw new Refusal(422, 'invalid', say`The hold began on ${row.begunOn}: it cannot end before that.`);
  const { standing } = lot.held;
  if (body.alive > standing)
    throw new Refusal(
      409,
      'not-enough',
      say`${body.alive} alive, but only ${standing} of ${lot.code} stand.`,
    );
  await work.tx
    .update(hold)
    .set({ endedOn: body.on, alive: body.alive, endEntry: body.id })
    .where(at(work, id));
  await move(
    work,
    row.lotId,
    body.id,
    body.on,
    [{ from: 'standing', to: 'out:died', count: standing - body.alive }],
    body.note || say`Did not come through the hold.`,
  );
  await note(work, 'end hold', row.lotId, { standing }, body);
}

/** A hold ended by mistake is under way again, its dead standing as they stood; one under way is as if it had not been begun. */
export async function takeBackHold(work: Work, id: string, undoId: string): Promise<void> {
  const row = await lockedHold(work, id);
  await lockLot(work, row.lotId);
  if (row.endedOn !== null) {
    await work.tx.update(hold).set({ endedOn: null, alive: null, endEntry: null }).where(at(work, id));
    await reverseEntries(work, [row.endEntry!], undoId, work.today, row.lotId);
  } else await work.tx.update(hold).set({ struckAt: new Date() }).where(at(work, id));
  await note(work, 'take hold back', row.lotId, row, null);
}
