import { dayOf, isoOf } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { note } from '../../db/journal';
import { observation } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { reverseEntry } from './ledger';
import { lockLot } from './records';
import { undoShift } from './shift';

/** Takes a record back: its movements are reversed, its observation struck. Sowing itself is not undone here. */
export async function undoEntry(
  work: Work,
  lotId: string,
  entryId: string,
  body: BodyOf<'undoEntry'>,
): Promise<void> {
  const row = await lockLot(work, lotId);
  if (entryId === lotId)
    throw new Refusal(422, 'not-undone', 'A sowing is not taken back; write its seeds off instead.');
  const struck = await work.tx
    .update(observation)
    .set({ struckAt: new Date() })
    .where(
      and(
        eq(observation.nurseryId, work.nurseryId),
        eq(observation.lotId, lotId),
        eq(observation.id, entryId),
        isNull(observation.struckAt),
      ),
    )
    .returning();
  const { values } = struck[0] ?? {};
  if (values?.kind === 'shift') await undoShift(work, row.stage.id, values);
  const on = isoOf(Math.min(dayOf(body.on), dayOf(work.today)));
  const reversed = await reverseEntry(work, lotId, entryId, body.id, on);
  if (struck.length === 0 && reversed === 0)
    throw new Refusal(404, 'no-such-entry', `There is no such record of ${row.code} to take back.`);
  await note(work, 'take back', lotId, { entry: entryId, values: struck[0]?.values ?? null }, null);
}
