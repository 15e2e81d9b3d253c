import { say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { note } from '../../db/journal';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { beginStanding } from './beginStanding';
import { move } from './ledger';
import { lockLot, mustBeRecordable } from './locked';

/**
 * Pricks seedlings of a flat out into cells, each size a lot of its own with the flat as its parent. All or
 * nothing: a batch that does not fit leaves the flat as it was.
 */
export async function prickOut(work: Work, lotId: string, body: BodyOf<'prickOut'>): Promise<void> {
  const flat = await lockLot(work, lotId);
  mustBeRecordable(work, flat, body.on);
  const total = body.batches.reduce((sum, batch) => sum + batch.count, 0);
  if (total > flat.held.standing)
    throw new Refusal(
      409,
      'not-enough',
      say`${total} to prick out, but ${flat.held.standing} of ${flat.code} stand. Nothing was recorded.`,
    );
  await move(
    work,
    lotId,
    body.id,
    body.on,
    [{ from: 'standing', to: 'out:pricked-out', count: total }],
    body.note,
  );
  for (const batch of body.batches) {
    await beginStanding(work, {
      values: {
        id: batch.id,
        code: batch.code,
        speciesId: flat.speciesId,
        sownOn: body.on,
        seedState: 'ready',
        origin: 'pricked',
        seedLotId: flat.seedLotId,
        treatmentId: flat.treatmentId,
        parentLotId: lotId,
        bornOf: body.id,
        targetHeightCm: flat.targetHeightCm,
        note: say`Pricked out of ${flat.code}: ${batch.size}.`,
      },
      count: batch.count,
      stage: batch.stage,
    });
    await note(work, 'prick out', batch.id, null, { from: flat.code, ...batch });
  }
  await note(work, 'prick out', lotId, { standing: flat.held.standing }, body);
}
