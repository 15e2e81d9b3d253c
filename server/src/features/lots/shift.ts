import { goneInMoving, movingToMovements, say } from '@kauri/core';
import type { BodyOf, LotRow, NewStage } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { containerType, observation, stage } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { move } from './ledger';
import { lockLot, mustBeRecordable } from './locked';
import { mustFit, standIn } from './sow';

export async function shiftLot(work: Work, lotId: string, body: BodyOf<'shiftLot'>): Promise<void> {
  await moveOn(work, await lockLot(work, lotId, body.seen), body);
}

/** Moves a locked lot on as a whole; what was lost on the way leaves its ledger in the same breath. */
export async function moveOn(work: Work, row: LotRow, body: BodyOf<'shiftLot'>): Promise<void> {
  const lotId = row.id;
  const { on, lost, cause, roots } = body;
  mustBeRecordable(work, row, on);
  const { standing } = row.held;
  if (standing === 0)
    throw new Refusal(422, 'none-standing', say`Nothing of ${row.code} stands; there is nothing to move.`);
  if (on <= row.stage.startedOn)
    throw new Refusal(
      422,
      'too-early',
      say`${row.code} has stood where it is since ${row.stage.startedOn}; a move comes after that.`,
      { fields: [{ path: 'on', message: say`There since ${row.stage.startedOn}.` }] },
    );
  if (lost > standing)
    throw new Refusal(409, 'not-enough', say`${lost} lost, but ${standing} of ${row.code} stand.`);
  if (lost > 0 && cause === null)
    throw new Refusal(422, 'invalid', say`Say what became of those lost in moving.`, {
      fields: [{ path: 'cause', message: say`Say what became of them.` }],
    });
  if (roots && roots.looked > standing)
    throw new Refusal(
      409,
      'not-enough',
      say`${roots.looked} looked at, but ${standing} of ${row.code} stand.`,
      {
        fields: [{ path: 'roots.looked', message: say`${standing} stand.` }],
      },
    );
  const gone = goneInMoving(body);
  if (gone > standing)
    throw new Refusal(
      409,
      'not-enough',
      say`${gone} lost or rejected, but ${standing} of ${row.code} stand.`,
    );
  await mustFit(work, body.stage);
  if (!sameTrays(row.stage, body.stage)) await mustHold(work, body.stage, standing - gone);
  const { nurseryId, tx } = work;
  await endStage(work, row.stage.id, on);
  await standIn(work, lotId, body.stage, on);
  await tx.insert(observation).values({
    nurseryId,
    id: body.id,
    lotId,
    kind: 'shift',
    onDate: on,
    values: { kind: 'shift', from: row.stage.id, to: body.stage.id, ...(roots && { roots }) },
    note: body.note,
  });
  const moves = movingToMovements(body);
  if (moves.length) await move(work, lotId, body.id, on, moves, body.note);
  await note(work, 'move on', lotId, row.stage, body);
}

/** The trays it stands in, or more of them, carried elsewhere: they hold what they held, as a flat does. */
const sameTrays = (now: LotRow['stage'], then: NewStage): boolean =>
  then.kind === 'container' &&
  then.containerTypeId === now.containerTypeId &&
  then.trays >= (now.trays ?? Infinity);

/** @throws Refusal when cells do not hold the trees, one to a cell */
export async function mustHold(work: Work, s: NewStage, trees: number): Promise<void> {
  if (s.kind !== 'container') return;
  const [container] = await work.tx
    .select()
    .from(containerType)
    .where(and(eq(containerType.nurseryId, work.nurseryId), eq(containerType.id, s.containerTypeId)));
  const { cellsPerTray, name } = container.values;
  if (s.trays * cellsPerTray < trees)
    throw new Refusal(
      422,
      'invalid',
      say`${s.trays} of ${name} hold ${s.trays * cellsPerTray} trees; ${trees} are to be moved.`,
      { fields: [{ path: 'stage.trays', message: say`Room for ${s.trays * cellsPerTray}.` }] },
    );
}

async function endStage({ tx, nurseryId }: Work, id: string, endedOn: string | null): Promise<void> {
  await tx
    .update(stage)
    .set({ endedOn })
    .where(and(eq(stage.nurseryId, nurseryId), eq(stage.id, id)));
}

/**
 * Takes a move back: the lot stands where it stood.
 * @throws Refusal when it has been moved again since
 */
export async function undoShift(
  work: Work,
  present: string,
  { from, to }: { from: string; to: string },
): Promise<void> {
  if (present !== to)
    throw new Refusal(
      409,
      'moved-since',
      say`It has been moved again since; take the later move back first.`,
    );
  await work.tx.delete(stage).where(and(eq(stage.nurseryId, work.nurseryId), eq(stage.id, to)));
  await endStage(work, from, null);
}
