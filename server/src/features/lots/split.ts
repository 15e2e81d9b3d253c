import { closedSetWords, say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { note } from '../../db/journal';
import { observation, parcel } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { beginStanding } from './beginStanding';
import { move } from './ledger';
import { lockLot, mustBeRecordable } from './locked';
import { mustHold } from './shift';
import { storeSizes } from './storeSizes';
import { takeLotBack, WORKED_ON } from './takeLotBack';

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
      say`${count} to set apart, but ${row.code} has ${there} ${closedSetWords[from]}. Nothing was recorded.`,
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
      // A plant that began at its own size goes on from there.
      origin: row.origin === 'layer' || row.origin === 'bought' ? row.origin : 'split',
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
    upOn: await seenUp(work, lotId, on),
  });
  if (row.sownOn < on) await beganAs(work, lotId, body.lotId, row.sownOn);
  if (body.heightsCm.length)
    await storeSizes(work, [
      // By the record's own id, so that taking it back knows what came with it.
      { id, lotId: body.lotId, on, heightsCm: body.heightsCm, diametersMm: [], note: '' },
    ]);
  await note(work, 'set apart', body.lotId, null, { parent: row.code, ...body });
  await note(work, 'set apart', lotId, { [from]: there }, body);
}

/** The day a lot was first seen up: what is set apart of it was up then too. */
async function seenUp({ tx, nurseryId }: Work, lotId: string, on: string): Promise<string> {
  const { rows } = await tx.$client.query<{ on: string | null }>(
    `select min(on_date)::text as "on" from observation where nursery_id = $1 and lot_id = $2 and kind = 'emergence'
       and struck_at is null and (values ->> 'counted')::int > 0`,
    [nurseryId, lotId],
  );
  const up = rows[0].on;
  return up !== null && up < on ? up : on;
}

/** The size a lot began at, which what is set apart of it began at too; samples taken later speak of all its trees. */
async function beganAs(
  { tx, nurseryId }: Work,
  lotId: string,
  childId: string,
  sownOn: string,
): Promise<void> {
  const rows = await tx
    .select()
    .from(observation)
    .where(
      and(
        eq(observation.nurseryId, nurseryId),
        eq(observation.lotId, lotId),
        eq(observation.kind, 'size'),
        eq(observation.onDate, sownOn),
        isNull(observation.struckAt),
      ),
    );
  if (rows.length)
    await tx
      .insert(observation)
      .values(rows.map((row) => ({ ...row, id: newId(), lotId: childId, note: '' })));
}

async function mustLie({ tx, nurseryId }: Work, lotId: string, parcelId: string, on: string): Promise<void> {
  const [lies] = await tx
    .select({ since: parcel.since })
    .from(parcel)
    .where(and(eq(parcel.nurseryId, nurseryId), eq(parcel.id, parcelId), eq(parcel.lotId, lotId)));
  if (!lies) throw new Refusal(404, 'no-such-parcel', say`There is no such parcel of this lot.`);
  if (on < lies.since)
    throw new Refusal(
      422,
      'invalid',
      say`These were lifted on ${lies.since}: they cannot go back before that.`,
    );
}

/** Lots that came of a record: by its id, or, of those kept before it was written down, by its day. */
const BORN = `
  select l.id, l.code, ${WORKED_ON} as worked
  from lot l
  where l.nursery_id = $1 and l.taken_back_at is null
    and (l.born_of = $3 or (l.parent_lot_id = $2 and l.born_of is null and l.origin = 'pricked' and exists (
      select 1 from movement m where m.nursery_id = l.nursery_id and m.lot_id = $2 and m.entry_id = $3
        and m.to_account = 'out:pricked-out' and m.on_date = l.sown_on)))
  order by l.id`;

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
      say`${worked.code} came of this, and was worked on since: take back what was recorded of it first.`,
    );
  for (const { id } of rows) await takeLotBack(work, await lockLot(work, id), undoId, on);
}
