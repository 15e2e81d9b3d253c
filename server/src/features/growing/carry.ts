import { say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { lockLots } from '../lots/locked';
import { moveOn } from '../lots/shift';

/** Carries some lots in the trays they stand in to another place, all or none. */
export async function carryLots(work: Work, body: BodyOf<'carryLots'>): Promise<void> {
  const { on, note, placeId } = body;
  const rows = await lockLots(
    work,
    body.lots.map(({ lotId }) => lotId),
    body.lots.map(({ seen }) => seen),
  );
  for (const { id, lotId, stageId } of body.lots) {
    const row = rows.get(lotId)!;
    const { containerTypeId, trays } = row.stage;
    if (containerTypeId === null || trays === null)
      throw new Refusal(
        422,
        'in-a-bed',
        say`${row.code} stands in a bed and cannot be carried. Lift it, or leave it out; nothing was moved.`,
      );
    if (row.stage.placeId === placeId)
      throw new Refusal(
        422,
        'invalid',
        say`${row.code} stands there already. Leave it out; nothing was moved.`,
      );
    const stage = { kind: 'container' as const, id: stageId, placeId, containerTypeId, trays };
    await moveOn(work, row, { id, on, note, stage, lost: 0, cause: null, roots: null });
  }
}
