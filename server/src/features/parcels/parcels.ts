import { containerVolume, dayOf, formOfCell, isoOf, type TreeForm, say } from '@kauri/core';
import type { Aside, BodyOf, Look, LotRow, NewParcel, Parcel, Parcels, Sending } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { containerType, parcel, sending } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { mustBeFree } from '../arrivals/arrivals';
import { moveAll, reverseEntries } from '../lots/ledger';
import { lockLots, mustBeRecordable } from '../lots/locked';
import { lineIfThere, lockedLine, stateUnsent, writeSent } from './orderLines';
import { knownParcels, mustLieBy } from './knownParcels';
import { mustNotHaveReturned } from './returns';
import { asideLots, mayHaveAside, releaseSent, restoreReleased } from './setAside';

/** What has all been sent is shown for so long, days. */
const SHOWN_DAYS = 400;

const PARCELS = `
  select p.id, p.lot_id as "lotId", l.code, l.species_id as "speciesId", p.entry_id as entry, p.form, p.grade,
    p.from_cm as "fromCm", p.to_cm as "toCm", p.bundle_of as "bundleOf", p.place, p.since::text, p.came_out_of is not null as "cameBack",
    p.count::int as count,
    coalesce(h.held, 0)::int as held
  from parcel p
  join lot l on l.nursery_id = p.nursery_id and l.id = p.lot_id
  left join parcel_held h on h.nursery_id = p.nursery_id and h.parcel_id = p.id
  where p.nursery_id = $1 and (h.held > 0 or p.since >= $2)
    and exists (select 1 from movement m where m.nursery_id = p.nursery_id and m.lot_id = p.lot_id and m.parcel_id = p.id
      and m.to_account = 'lifted' and m.reverses is null
      and not exists (select 1 from movement r where r.nursery_id = m.nursery_id and r.reverses = m.id))
  order by p.since, l.code, p.id`;
const SENDINGS = `
  select s.id, s.on_date::text as "on", s.order_id as "orderId", s.line_id as "lineId", s.to_words as "to", s.note, p.name as by,
    (select coalesce(json_agg(json_build_object('parcelId', m.parcel_id, 'lotId', m.lot_id, 'count', m.count) order by m.id), '[]')
      from movement m where m.nursery_id = s.nursery_id and m.entry_id = s.id) as parts,
    (select coalesce(json_agg(json_build_object('id', r.id, 'on', r.on_date::text, 'wantedAgain', r.wanted_again, 'note', r.note,
        'by', w.name, 'parts', (
          select json_agg(json_build_object('parcelId', b.came_out_of, 'intoId', b.id, 'lotId', b.lot_id, 'count', b.count::int,
            'dead', (select coalesce(sum(m.count), 0)::int from movement m where m.nursery_id = b.nursery_id and m.entry_id = r.id
              and m.parcel_id = b.id and m.from_account = 'lifted')) order by b.id)
          from parcel b where b.nursery_id = r.nursery_id and b.entry_id = r.id)) order by r.on_date, r.id), '[]')
      from sending_return r join person w on w.id = r.person_id
      where r.nursery_id = s.nursery_id and r.sending_id = s.id and r.struck_at is null) as returns
  from sending s join person p on p.id = s.person_id
  where s.nursery_id = $1 and s.on_date >= $2 and s.struck_at is null
  order by s.on_date desc, s.id desc`;

const ASIDES = `
  select parcel_id as "parcelId", order_id as "orderId", line_id as "lineId", count::int as count
  from parcel_aside where nursery_id = $1 order by set_at, parcel_id`;

const LOOKS = `
  select k.id, k.place, k.on_date::text as "on", k.temp_c as "tempC", k.seen, k.note, p.name as by
  from store_look k join person p on p.id = k.person_id
  where k.nursery_id = $1 and k.on_date >= $2 and k.struck_at is null
  order by k.on_date desc, k.id desc`;

/** What was lifted and lies there, or left within a year and a little; lifts that were taken back are gone. */
export async function parcelsOf(tx: Tx, nurseryId: string, today: string): Promise<Parcels> {
  const values = [nurseryId, isoOf(dayOf(today) - SHOWN_DAYS)];
  const { rows: parcels } = await tx.$client.query<Parcel>(PARCELS, values);
  const { rows: sendings } = await tx.$client.query<Sending>(SENDINGS, values);
  const { rows: asides } = await tx.$client.query<Aside>(ASIDES, [nurseryId]);
  const { rows: looks } = await tx.$client.query<Look>(LOOKS, values);
  return { parcels, sendings, asides, looks };
}

/** The form in which trees leave where a lot stands. */
async function formOfLot({ tx, nurseryId }: Work, { stage }: LotRow): Promise<TreeForm> {
  if (stage.containerTypeId === null) return formOfCell(null);
  const [row] = await tx
    .select({ values: containerType.values })
    .from(containerType)
    .where(and(eq(containerType.nurseryId, nurseryId), eq(containerType.id, stage.containerTypeId)));
  return formOfCell(containerVolume(row.values).value);
}

/** Writes what a lift gives as parcels, and moves the trees to them. */
export async function liftInto(
  work: Work,
  row: LotRow,
  { id: entryId, on, note: words }: { id: string; on: string; note: string },
  parcels: readonly NewParcel[],
): Promise<void> {
  if (!parcels.length) return;
  const form = await formOfLot(work, row);
  await work.tx
    .insert(parcel)
    .values(
      parcels.map((one) => ({ ...one, nurseryId: work.nurseryId, lotId: row.id, entryId, form, since: on })),
    );
  await moveAll(
    work,
    parcels.map(({ id: parcelId, count }) => ({
      lotId: row.id,
      entryId,
      from: 'standing' as const,
      to: 'lifted' as const,
      count,
      parcelId,
    })),
    on,
    words,
  );
}

/** Parcels of a lot that hold trees, those lifted first before the others. */
export async function heldParcels(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  lotId: string,
): Promise<{ id: string; held: number }[]> {
  const { rows } = await tx.$client.query<{ id: string; held: number }>(
    `select p.id, h.held::int as held from parcel p
     join parcel_held h on h.nursery_id = p.nursery_id and h.parcel_id = p.id
     where p.nursery_id = $1 and p.lot_id = $2 and h.held > 0 order by p.since, p.id`,
    [nurseryId, lotId],
  );
  return rows;
}

export async function putParcel(work: Work, id: string, { place }: BodyOf<'putParcel'>): Promise<void> {
  const at = and(eq(parcel.nurseryId, work.nurseryId), eq(parcel.id, id));
  const [before] = await work.tx.select().from(parcel).where(at).for('update');
  if (!before) throw new Refusal(404, 'no-such-parcel', say`There is no such parcel in this nursery.`);
  await work.tx.update(parcel).set({ place }).where(at);
  await note(work, 'put parcel', before.lotId, { parcel: id, place: before.place }, { parcel: id, place });
}

/**
 * Sends trees out of parcels, and writes them beside the line they serve: all or none.
 * @throws Refusal for trees of another species than the line's, more than it still wants, a line that fell through, or a parcel
 *   that is not there; 409 for more than lie in one
 */
export async function sendTrees(work: Work, body: BodyOf<'sendTrees'>): Promise<void> {
  const { id, on, order: wanted, to, note: words, parts } = body;
  const known = await knownParcels(
    work,
    parts.map(({ parcelId }) => parcelId),
  );
  const lotOf = ({ parcelId }: { parcelId: string }) => known.get(parcelId)!.lotId;
  const goes = new Set(parts.map(lotOf));
  const asideFor = wanted ? await asideLots(work, wanted.id, wanted.lineId) : [];
  const lots = await lockLots(work, [...new Set([...goes, ...asideFor])]);
  await mustBeFree(work, [...goes], on);
  for (const part of parts) {
    const row = lots.get(lotOf(part))!;
    mustBeRecordable(work, row, on);
    mustLieBy(known.get(part.parcelId)!, row.code, on);
  }
  const line = wanted && (await lockedLine(work, wanted));
  if (line) {
    const trees = parts.reduce((sum, { count }) => sum + count, 0);
    const left = line.line.count - line.line.sent;
    if (line.line.state === 'fell through')
      throw new Refusal(422, 'invalid', say`That line fell through: nothing is sent for it.`);
    if (trees > left)
      throw new Refusal(
        422,
        'invalid',
        say`${trees} to send, but the line still wants ${left}. Raise what it wants first, or send the rest without an order.`,
      );
    const other = [...goes]
      .map((id) => lots.get(id)!)
      .find(({ speciesId }) => speciesId !== line.line.speciesId);
    if (other)
      throw new Refusal(
        422,
        'invalid',
        say`${other.code} is of another species than the line it is sent for.`,
      );
  }
  const { nurseryId, personId } = work;
  const sent = parts.reduce((sum, { count }) => sum + count, line?.line.sent ?? 0);
  const released = line
    ? await releaseSent(work, line.line.id, parts, mayHaveAside({ ...line.line, sent }))
    : [];
  await work.tx.insert(sending).values({
    nurseryId,
    id,
    onDate: on,
    orderId: wanted?.id ?? null,
    lineId: wanted?.lineId ?? null,
    lineState: line && line.line.sent === 0 ? line.line.state : null,
    released,
    toWords: to,
    note: words,
    personId,
  });
  await moveAll(
    work,
    parts.map((part) => ({
      lotId: lotOf(part),
      entryId: id,
      from: 'lifted' as const,
      to: 'sent' as const,
      count: part.count,
      parcelId: part.parcelId,
    })),
    on,
    words,
  );
  if (line) await writeSent(work, line, sent, line.line.state);
  await note(work, 'send trees', id, null, body);
}

/** Trees that were not sent after all lie where they lay; the line wants them again. */
export async function takeBackSending(work: Work, id: string, undoId: string): Promise<void> {
  const { tx, nurseryId, today } = work;
  const { rows } = await tx.$client.query<{ lot_id: string; count: number }>(
    'select lot_id, count::int as count from movement where nursery_id = $1 and entry_id = $2',
    [nurseryId, id],
  );
  await lockLots(work, [...new Set(rows.map(({ lot_id }) => lot_id))]);
  const at = and(eq(sending.nurseryId, nurseryId), eq(sending.id, id));
  const [before] = await tx.select().from(sending).where(at).for('update');
  if (!before || before.struckAt !== null)
    throw new Refusal(404, 'no-such-sending', say`There is no such sending to take back.`);
  await mustNotHaveReturned(work, id);
  await tx.update(sending).set({ struckAt: new Date() }).where(at);
  await reverseEntries(work, [id], undoId, today);
  const trees = rows.reduce((sum, { count }) => sum + count, 0);
  if (before.orderId !== null && before.lineId !== null) {
    const line = await lineIfThere(work, { id: before.orderId, lineId: before.lineId });
    if (line) {
      const sent = Math.max(0, line.line.sent - trees);
      const state = await stateUnsent(work, line);
      await writeSent(work, line, sent, state);
      const { count, state: stands } = line.line;
      const open = stands === 'fell through' ? stands : state;
      const at = { id: line.order.id, lineId: line.line.id };
      await restoreReleased(work, at, before.released, mayHaveAside({ state: open, count, sent }));
    }
  }
  await note(work, 'take sending back', id, before, null);
}
