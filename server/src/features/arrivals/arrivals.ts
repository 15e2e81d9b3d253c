import { mustAddUp, say, word } from '@kauri/core';
import type { Arrival, Arrivals, BodyOf } from '@kauri/core/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { note } from '../../db/journal';
import { arrival } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { beginStanding } from '../lots/beginStanding';
import { mustHold } from '../lots/shift';
import { takeBackBorn } from '../lots/split';
import { storeSizes } from '../lots/storeSizes';

const ARRIVALS = `
  select a.id, a.on_date::text as "on", a.species_id as "speciesId", a.kind, a.supplier, a.provenance, a.papers,
    a.count::int as count, a.price, a.looked, a.failing, a.faults, a.accepted::int as accepted,
    a.quarantine_until::text as "quarantineUntil", a.lot_id as "lotId", l.code, a.note, p.name as by
  from arrival a join person p on p.id = a.person_id
  left join lot l on l.nursery_id = a.nursery_id and l.id = a.lot_id
  where a.nursery_id = $1 and a.struck_at is null
  order by a.on_date desc, a.made_at desc`;

export async function arrivalsOf({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<Arrivals> {
  const { rows } = await tx.$client.query<Arrival>(ARRIVALS, [nurseryId]);
  return { arrivals: rows };
}

/**
 * Takes plants in that came from outside: what is taken becomes a lot of its own, at its own size; the rest is written down as
 * sent back.
 * @throws Unfit where the counts do not add up; Refusal for a day to come, a code that is taken, a place that does not hold them
 */
export async function addArrival(work: Work, body: BodyOf<'addArrival'>): Promise<void> {
  const { tx, nurseryId, personId, today } = work;
  const { id, on, lot: made, ...fields } = body;
  if (on > today) throw new Refusal(422, 'not-yet', say`${on} is still to come; today is ${today}.`);
  mustAddUp(body);
  if (made) {
    await mustHold(work, made.stage, body.accepted);
    await beginStanding(work, {
      values: {
        id: made.id,
        code: made.code,
        speciesId: body.speciesId,
        sownOn: on,
        seedState: 'ready',
        origin: 'bought',
        bornOf: id,
        note: say`${word(body.kind)}, from ${body.supplier}${body.provenance ? `; ${body.provenance}` : ''}.`,
      },
      count: body.accepted,
      stage: made.stage,
    });
    if (made.heightsCm.length || made.diametersMm.length)
      await storeSizes(work, [
        { id, lotId: made.id, on, heightsCm: made.heightsCm, diametersMm: made.diametersMm, note: '' },
      ]);
  }
  await tx
    .insert(arrival)
    .values({ nurseryId, id, onDate: on, ...fields, lotId: made?.id ?? null, personId });
  await note(work, 'arrival', made?.id ?? id, null, body);
}

async function lockedArrival({ tx, nurseryId }: Work, id: string) {
  const [row] = await tx
    .select()
    .from(arrival)
    .where(and(eq(arrival.nurseryId, nurseryId), eq(arrival.id, id), isNull(arrival.struckAt)))
    .for('update');
  if (!row) throw new Refusal(404, 'no-such-arrival', say`There is no such arrival: it was taken back.`);
  return row;
}
const at = ({ nurseryId }: Work, id: string) => and(eq(arrival.nurseryId, nurseryId), eq(arrival.id, id));

/** @throws Refusal once the lot was worked on */
export async function takeBackArrival(work: Work, id: string, undoId: string): Promise<void> {
  const row = await lockedArrival(work, id);
  await takeBackBorn(work, null, id, undoId, work.today);
  await work.tx.update(arrival).set({ struckAt: new Date() }).where(at(work, id));
  await note(work, 'take arrival back', row.lotId ?? id, row, null);
}

export async function endQuarantine(
  work: Work,
  id: string,
  { until }: BodyOf<'endQuarantine'>,
): Promise<void> {
  const row = await lockedArrival(work, id);
  if (until !== null && until <= row.onDate)
    throw new Refusal(422, 'invalid', say`They came on ${row.onDate}: quarantine ends after that.`);
  await work.tx.update(arrival).set({ quarantineUntil: until }).where(at(work, id));
  await note(work, 'quarantine', row.lotId ?? id, { until: row.quarantineUntil }, { until });
}

/** A lot that is in quarantine on a day, or came of one that is. */
const KEPT_APART = `
  with recursive line as (
    select id, parent_lot_id, code from lot where nursery_id = $1 and id = any($2)
    union select l.id, l.parent_lot_id, line.code from lot l join line on l.id = line.parent_lot_id where l.nursery_id = $1)
  select line.code, a.quarantine_until::text as until from line
  join arrival a on a.nursery_id = $1 and a.lot_id = line.id and a.struck_at is null and a.quarantine_until > $3
  limit 1`;

/** @throws Refusal for a lot that is kept apart on a day, or came of such a one: nothing of it leaves the nursery */
export async function mustBeFree(
  { tx, nurseryId }: Work,
  lotIds: readonly string[],
  on: string,
): Promise<void> {
  const { rows } = await tx.$client.query<{ code: string; until: string }>(KEPT_APART, [
    nurseryId,
    lotIds,
    on,
  ]);
  if (rows.length)
    throw new Refusal(
      422,
      'quarantine',
      say`${rows[0].code} is in quarantine until ${rows[0].until}: nothing of it leaves before that.`,
    );
}
