import { countToMovements } from '@kauri/core';
import type { BodyOf, LotRow } from '@kauri/core/contract';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { note } from '../../db/journal';
import { lot, observation, place } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { held, move } from './ledger';
import { lotRow, lotRowsOf } from './lotRows';
import { storeSizes } from './storeSizes';

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
  if (!row) throw new Refusal(404, 'no-such-lot', 'There is no such lot in this nursery.');
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
    `${row.code} was moved meanwhile: it stands in ${to?.name ?? 'another place'}, since ${startedOn}. Nothing was recorded yet; if what you typed still holds, keep it again.`,
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
  if (new Set(lotIds).size < lotIds.length) throw new Refusal(422, 'invalid', 'A lot is named twice.');
  const ids = [...lotIds].sort();
  await work.tx
    .select({ id: lot.id })
    .from(lot)
    .where(and(eq(lot.nurseryId, work.nurseryId), inArray(lot.id, ids)))
    .orderBy(asc(lot.id))
    .for('no key update');
  const rows = new Map((await lotRowsOf(work.tx, work.nurseryId, ids)).map((row) => [row.id, row]));
  if (rows.size < ids.length) throw new Refusal(404, 'no-such-lot', 'There is no such lot in this nursery.');
  for (const [i, lotId] of lotIds.entries()) await mustStandAsSeen(work, rows.get(lotId)!, seen[i]);
  return rows;
}

/** A record cannot be of a day before the lot was sown, nor of one still to come. */
export function mustBeRecordable(work: Work, row: LotRow, on: string): void {
  if (on < row.sownOn) {
    throw new Refusal(
      422,
      'before-sowing',
      `${row.code} was sown on ${row.sownOn}; a record cannot be of ${on}.`,
      {
        fields: [{ path: 'on', message: `The lot was sown on ${row.sownOn}.` }],
      },
    );
  }
  if (on > work.today) {
    throw new Refusal(422, 'not-yet', `${on} is still to come; today is ${work.today}.`, {
      fields: [{ path: 'on', message: `Today is ${work.today}.` }],
    });
  }
}

export async function countEmergence(
  work: Work,
  lotId: string,
  body: BodyOf<'countEmergence'>,
): Promise<void> {
  const row = await lockLot(work, lotId, body.seen);
  mustBeRecordable(work, row, body.on);
  const moves = countToMovements(body.counted, row.held.standing, row.held.sown, body.cause);
  await work.tx.insert(observation).values({
    nurseryId: work.nurseryId,
    id: body.id,
    lotId,
    kind: 'emergence',
    onDate: body.on,
    values: {
      kind: 'emergence',
      counted: body.counted,
      multi: body.multi,
      damaged: body.damaged,
      patches: body.patches,
    },
    note: body.note,
  });
  await move(work, lotId, body.id, body.on, moves, body.note);
  await note(work, 'count', lotId, { standing: row.held.standing }, body);
}

export async function measureLot(work: Work, lotId: string, body: BodyOf<'measureLot'>): Promise<void> {
  const row = await lockLot(work, lotId, body.seen);
  mustBeRecordable(work, row, body.on);
  if (row.held.standing === 0)
    throw new Refusal(422, 'none-standing', `Nothing of ${row.code} stands; count what came up first.`);
  await storeSizes(work, {
    id: body.id,
    lotId,
    on: body.on,
    heightsCm: body.heightsCm,
    diametersMm: body.diametersMm,
    note: body.note,
  });
  await note(work, 'measure', lotId, null, body);
}

export async function pullRoots(work: Work, lotId: string, body: BodyOf<'pullRoots'>): Promise<void> {
  const row = await lockLot(work, lotId, body.seen);
  mustBeRecordable(work, row, body.on);
  if (row.stage.containerTypeId === null)
    throw new Refusal(422, 'no-plugs', `${row.code} stands in a bed: it has no plugs to score.`);
  if (body.scores.length > row.held.standing) {
    throw new Refusal(
      422,
      'not-enough',
      `${body.scores.length} plugs scored, but ${row.held.standing} of ${row.code} stand.`,
    );
  }
  await work.tx.insert(observation).values({
    nurseryId: work.nurseryId,
    id: body.id,
    lotId,
    kind: 'pull',
    onDate: body.on,
    values: { kind: 'pull', scores: body.scores, spoiled: body.spoiled },
    note: body.note,
  });
  await move(
    work,
    lotId,
    body.id,
    body.on,
    [{ from: 'standing', to: 'out:sampled', count: body.spoiled }],
    body.note,
  );
  await note(work, 'pull', lotId, null, body);
}

export async function liftLot(work: Work, lotId: string, body: BodyOf<'liftLot'>): Promise<void> {
  const row = await lockLot(work, lotId, body.seen);
  mustBeRecordable(work, row, body.on);
  if (body.lifted + body.culled > row.held.standing) {
    throw new Refusal(
      409,
      'not-enough',
      `${body.lifted + body.culled} to lift and cull, but ${row.held.standing} of ${row.code} stand. Nothing was recorded.`,
    );
  }
  await move(
    work,
    lotId,
    body.id,
    body.on,
    [
      { from: 'standing', to: 'lifted', count: body.lifted },
      { from: 'standing', to: 'out:culled', count: body.culled },
    ],
    body.note,
  );
  await note(work, 'lift', lotId, { standing: row.held.standing }, body);
}

export async function writeOff(work: Work, lotId: string, body: BodyOf<'writeOff'>): Promise<void> {
  const row = await lockLot(work, lotId, body.seen);
  mustBeRecordable(work, row, body.on);
  const there = await held(work, lotId, body.from);
  if (body.count > there) {
    throw new Refusal(
      409,
      'not-enough',
      `${body.count} to write off, but ${row.code} has ${there} ${body.from}. Nothing was recorded.`,
    );
  }
  await move(
    work,
    lotId,
    body.id,
    body.on,
    [{ from: body.from, to: `out:${body.cause}`, count: body.count }],
    body.note,
  );
  await note(work, 'write off', lotId, { [body.from]: there }, body);
}
