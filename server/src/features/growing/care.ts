import { say } from '@kauri/core';
import type { BodyOf, LotRow } from '@kauri/core/contract';
import { noteAll } from '../../db/journal';
import { observation } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { lockLots, mustBeRecordable } from '../lots/locked';

/** Records work done to some lots without moving them, all or none. */
export async function recordCare(work: Work, body: BodyOf<'recordCare'>): Promise<void> {
  const { on, done, note: words } = body;
  const rows = await lockLots(
    work,
    body.lots.map(({ lotId }) => lotId),
    body.lots.map(({ seen }) => seen),
  );
  for (const row of rows.values()) {
    mustBeRecordable(work, row, on);
    mustSuit(row, done);
  }
  await work.tx.insert(observation).values(
    body.lots.map(({ id, lotId }) => ({
      nurseryId: work.nurseryId,
      id,
      lotId,
      kind: 'care' as const,
      onDate: on,
      values: { kind: 'care' as const, done },
      note: words,
    })),
  );
  await noteAll(
    work,
    body.lots.map((part) => ({
      act: done.what,
      subjectId: part.lotId,
      before: null,
      after: { ...body, lots: [part] },
    })),
  );
}

/** Some work needs plants, and some needs cells. */
function mustSuit({ code, held, stage }: LotRow, done: BodyOf<'recordCare'>['done']): void {
  if ((done.what === 'spread' || done.what === 'pack') && stage.containerTypeId === null)
    throw new Refusal(
      422,
      'in-a-bed',
      say`${code} stands in a bed: there are no cells to set apart. Thin it, or lift it.`,
    );
  if ((done.what === 'stake' || done.what === 'prune') && held.standing === 0)
    throw new Refusal(422, 'none-standing', say`Nothing of ${code} stands.`);
  if (done.what === 'stake' && done.staked > held.standing)
    throw new Refusal(
      409,
      'not-enough',
      say`${done.staked} staked, but ${held.standing} of ${code} stand. Nothing was recorded.`,
    );
}
