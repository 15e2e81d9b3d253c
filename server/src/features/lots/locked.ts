import { say } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { lot, place } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { lotRow, lotRowsOf } from './lotRows';

/**
 * The lot, locked against other writers until this transaction ends.
 * @param seen the stage whoever writes saw it in; left out where they do not say
 */
export async function lockLot(work: Work, lotId: string, seen?: string): Promise<LotRow> {
  await work.tx
    .select({ id: lot.id })
    .from(lot)
    .where(and(eq(lot.nurseryId, work.nurseryId), eq(lot.id, lotId)))
    .for('no key update');
  const row = await lotRow(work.tx, work.nurseryId, lotId);
  if (!row) throw new Refusal(404, 'no-such-lot', say`There is no such lot in this nursery.`);
  await mustStandAsSeen(work, row, seen);
  return row;
}

/** What was seen in one home says little of a lot that somebody moved meanwhile: whoever writes is told first. */
async function mustStandAsSeen(work: Work, row: LotRow, seen?: string): Promise<void> {
  const { id, placeId, startedOn } = row.stage;
  if (seen === undefined || seen === id) return;
  const [to] = await work.tx
    .select({ name: place.name })
    .from(place)
    .where(and(eq(place.nurseryId, work.nurseryId), eq(place.id, placeId)));
  throw new Refusal(
    409,
    'moved-meanwhile',
    say`${row.code} was moved meanwhile: it stands in ${to?.name ?? say`another place`}, since ${startedOn}. Nothing was recorded yet; if what you typed still holds, keep it again.`,
    { current: row },
  );
}

/**
 * Several lots, locked together in the order all writers keep to, so that nobody waits on another in a ring: two queries
 * however many there are.
 * @param seen the stage that whoever writes saw each in
 * @throws Refusal when one is named twice, is not of this nursery, or was moved meanwhile
 */
export async function lockLots(
  work: Work,
  lotIds: readonly string[],
  seen: readonly (string | undefined)[] = [],
): Promise<ReadonlyMap<string, LotRow>> {
  if (new Set(lotIds).size < lotIds.length) throw new Refusal(422, 'invalid', say`A lot is named twice.`);
  const ids = [...lotIds].sort();
  await work.tx
    .select({ id: lot.id })
    .from(lot)
    .where(and(eq(lot.nurseryId, work.nurseryId), inArray(lot.id, ids)))
    .orderBy(asc(lot.id))
    .for('no key update');
  const rows = new Map((await lotRowsOf(work.tx, work.nurseryId, ids)).map((row) => [row.id, row]));
  if (rows.size < ids.length)
    throw new Refusal(404, 'no-such-lot', say`There is no such lot in this nursery.`);
  for (const [i, lotId] of lotIds.entries()) await mustStandAsSeen(work, rows.get(lotId)!, seen[i]);
  return rows;
}

/** A record cannot be of a day before the lot was sown, nor of one still to come. */
export function mustBeRecordable(work: Work, row: LotRow, on: string): void {
  if (on < row.sownOn) {
    throw new Refusal(
      422,
      'before-sowing',
      say`${row.code} was sown on ${row.sownOn}; a record cannot be of ${on}.`,
      {
        fields: [{ path: 'on', message: say`The lot was sown on ${row.sownOn}.` }],
      },
    );
  }
  if (on > work.today) {
    throw new Refusal(422, 'not-yet', say`${on} is still to come; today is ${work.today}.`, {
      fields: [{ path: 'on', message: say`Today is ${work.today}.` }],
    });
  }
}
