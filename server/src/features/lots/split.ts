import type { BodyOf } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { lot, observation, parcel } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { beginStanding } from './beginStanding';
import { move, reverseEntries } from './ledger';
import { lockLot, mustBeRecordable } from './locked';
import { mustHold } from './shift';
import { storeSizes } from './storeSizes';

/**
 * Sets part of a lot apart as a lot of its own: small ones held over in a bed, some potted on, some kept apart. It is as old as
 * its parent, and says where it came from.
 * @throws Refusal for more than stand, or lie in the parcel; a code that is taken; a place that does not hold them
 */
export async function splitLot(work: Work, lotId: string, body: BodyOf<'splitLot'>): Promise<void> {
  const { id, on, note: words, from, parcelId, count, code, stage } = body;
  const row = await lockLot(work, lotId, body.seen);
  mustBeRecordable(work, row, on);
  const there = row.held[from];
  if (count > there)
    throw new Refusal(
      409,
      'not-enough',
      `${count} to set apart, but ${row.code} has ${there} ${from}. Nothing was recorded.`,
    );
  if (parcelId !== null) await mustLie(work, lotId, parcelId, on);
  await mustHold(work, stage, count);
  await move(
    work,
    lotId,
    id,
    on,
    [{ from, to: 'out:split', count, ...(parcelId !== null && { parcelId }) }],
    words || `Set apart as ${code}.`,
  );
  await beginStanding(work, {
    values: {
      id: body.lotId,
      code,
      speciesId: row.speciesId,
      sownOn: row.sownOn,
      seedState: row.seedState,
      origin: 'split',
      seedLotId: row.seedLotId,
      treatmentId: row.treatmentId,
      stockBedId: row.stockBedId,
      cutting: row.cutting,
      parentLotId: lotId,
      bornOf: id,
      targetHeightCm: row.targetHeightCm,
      note: words || `Set apart from ${row.code}.`,
    },
    count,
    stage,
    on,
  });
  if (body.heightsCm.length)
    await storeSizes(work, [
      // By the record's own id, so that taking it back knows what came with it.
      { id, lotId: body.lotId, on, heightsCm: body.heightsCm, diametersMm: [], note: '' },
    ]);
  await note(work, 'set apart', body.lotId, null, { parent: row.code, ...body });
  await note(work, 'set apart', lotId, { [from]: there }, body);
}

async function mustLie({ tx, nurseryId }: Work, lotId: string, parcelId: string, on: string): Promise<void> {
  const [lies] = await tx
    .select({ since: parcel.since })
    .from(parcel)
    .where(and(eq(parcel.nurseryId, nurseryId), eq(parcel.id, parcelId), eq(parcel.lotId, lotId)));
  if (!lies) throw new Refusal(404, 'no-such-parcel', 'There is no such parcel of this lot.');
  if (on < lies.since)
    throw new Refusal(422, 'invalid', `These were lifted on ${lies.since}: they cannot go back before that.`);
}

/** Lots that came of a record: by its id, or, of those kept before it was written down, by its day. */
const BORN = `
  select l.id, l.code,
    exists (select 1 from movement m where m.nursery_id = l.nursery_id and m.lot_id = l.id and m.entry_id <> l.id)
    or exists (select 1 from stage s where s.nursery_id = l.nursery_id and s.lot_id = l.id and s.ended_on is not null)
    or exists (select 1 from observation o where o.nursery_id = l.nursery_id and o.lot_id = l.id and o.struck_at is null
      and o.id is distinct from l.born_of and not exists (select 1 from stage s where s.nursery_id = l.nursery_id and s.id = o.id)) as worked
  from lot l
  where l.nursery_id = $1
    and (l.born_of = $3 or (l.parent_lot_id = $2 and l.born_of is null and l.origin = 'pricked' and exists (
      select 1 from movement m where m.nursery_id = l.nursery_id and m.lot_id = $2 and m.entry_id = $3
        and m.to_account = 'out:pricked-out' and m.on_date = l.sown_on)))
  order by l.id`;
const MOST_CODE = 24;

/**
 * Takes the lots back that came of a record which is taken back: their trees stand where they stood, once.
 * @throws Refusal when one of them was worked on since
 */
export async function takeBackBorn(
  work: Work,
  parentId: string | null,
  entryId: string,
  undoId: string,
  on: string,
): Promise<void> {
  const { tx, nurseryId } = work;
  const { rows } = await tx.$client.query<{ id: string; code: string; worked: boolean }>(BORN, [
    nurseryId,
    parentId,
    entryId,
  ]);
  const worked = rows.find((row) => row.worked);
  if (worked)
    throw new Refusal(
      422,
      'not-undone',
      `${worked.code} came of this, and was worked on since: take back what was recorded of it first.`,
    );
  for (const { id, code } of rows) {
    await lockLot(work, id);
    await reverseEntries(work, [id], undoId, on, id);
    await tx
      .update(observation)
      .set({ struckAt: new Date() })
      .where(and(eq(observation.nurseryId, nurseryId), eq(observation.lotId, id)));
    // Its code is free for another.
    const mark = ` ×${id.slice(-4)}`;
    await tx
      .update(lot)
      .set({ code: `${code.slice(0, MOST_CODE - mark.length)}${mark}` })
      .where(and(eq(lot.nurseryId, nurseryId), eq(lot.id, id)));
    await note(work, 'take back', id, { code }, null);
  }
}
