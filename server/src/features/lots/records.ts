import { countToMovements, closedSetWords, say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { note } from '../../db/journal';
import { observation } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { heldParcels, liftInto } from '../parcels/parcels';
import { giveWay } from '../parcels/setAside';
import { held, move, type PlannedMovement } from './ledger';
import { lockLot, mustBeRecordable } from './locked';
import { storeSizes } from './storeSizes';

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
    throw new Refusal(422, 'none-standing', say`Nothing of ${row.code} stands; count what came up first.`);
  const { id, on, heightsCm, diametersMm, note: words } = body;
  await storeSizes(work, [{ id, lotId, on, heightsCm, diametersMm, note: words }]);
  await note(work, 'measure', lotId, null, body);
}

export async function pullRoots(work: Work, lotId: string, body: BodyOf<'pullRoots'>): Promise<void> {
  const row = await lockLot(work, lotId, body.seen);
  mustBeRecordable(work, row, body.on);
  if (row.stage.containerTypeId === null)
    throw new Refusal(422, 'no-plugs', say`${row.code} stands in a bed: it has no plugs to score.`);
  if (body.scores.length > row.held.standing) {
    throw new Refusal(
      422,
      'not-enough',
      say`${body.scores.length} plugs scored, but ${row.held.standing} of ${row.code} stand.`,
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
      say`${body.lifted + body.culled} to lift and cull, but ${row.held.standing} of ${row.code} stand. Nothing was recorded.`,
    );
  }
  await move(
    work,
    lotId,
    body.id,
    body.on,
    [{ from: 'standing', to: 'out:culled', count: body.culled }],
    body.note,
  );
  if (body.culls.length)
    await work.tx.insert(observation).values({
      nurseryId: work.nurseryId,
      id: body.id,
      lotId,
      kind: 'cull',
      onDate: body.on,
      values: { kind: 'cull', reasons: body.culls },
      note: body.note,
    });
  const whole = { grade: '', fromCm: null, toCm: null, bundleOf: null, place: '' };
  const ungraded = body.lifted > 0 ? [{ ...whole, id: newId(), count: body.lifted }] : [];
  await liftInto(work, row, body, body.parcels.length ? body.parcels : ungraded);
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
      say`${body.count} to write off, but ${row.code} has ${there} ${closedSetWords[body.from]}. Nothing was recorded.`,
    );
  }
  const moves = await goneFrom(work, lotId, body);
  for (const { parcelId, count } of moves) if (parcelId) await giveWay(work, parcelId, count);
  await move(work, lotId, body.id, body.on, moves, body.note);
  await note(work, 'write off', lotId, { [body.from]: there }, body);
}

/** Where what is written off goes from: lifted trees from the parcel named, or from those that were lifted first. */
async function goneFrom(
  work: Work,
  lotId: string,
  { from, cause, count, parcelId }: BodyOf<'writeOff'>,
): Promise<PlannedMovement[]> {
  const gone = { from, to: `out:${cause}` } as const;
  if (from !== 'lifted') return [{ ...gone, count }];
  const parcels = (await heldParcels(work, lotId)).filter(({ id }) => parcelId === null || id === parcelId);
  if (parcelId !== null && !parcels.length)
    throw new Refusal(409, 'not-enough', say`Nothing lies in that parcel any more. Nothing was recorded.`);
  let left = count;
  const moves = parcels.map(({ id, held: there }): PlannedMovement => {
    const taken = Math.min(left, parcelId === null ? there : left);
    left -= taken;
    return { ...gone, count: taken, parcelId: id };
  });
  // Trees lifted before parcels were kept lie in none.
  return [...moves, { ...gone, count: left }];
}
