import { dayOf, isoOf, say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq, inArray, isNull } from 'drizzle-orm';
import { note, noteAll } from '../../db/journal';
import { observation, plantedPart, sending, sendingReturn } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { reverseEntries } from './ledger';
import { lockLot, lockLots } from './locked';
import { undoShift } from './shift';
import { takeBackBorn } from './split';

/** Takes a record back: its movements are reversed, its observation struck. Sowing itself is not undone here. */
export async function undoEntry(
  work: Work,
  lotId: string,
  entryId: string,
  body: BodyOf<'undoEntry'>,
): Promise<void> {
  const row = await lockLot(work, lotId);
  if (entryId === lotId)
    throw new Refusal(422, 'not-undone', say`A sowing is taken back or corrected where the lot is shown.`);
  const [sent] = await work.tx
    .select({ id: sending.id })
    .from(sending)
    .where(and(eq(sending.nurseryId, work.nurseryId), eq(sending.id, entryId)));
  if (sent)
    throw new Refusal(
      422,
      'not-undone',
      say`A sending may be of several lots and serve an order: it is taken back as one, where lifted trees are shown.`,
    );
  const [back] = await work.tx
    .select({ id: sendingReturn.id })
    .from(sendingReturn)
    .where(and(eq(sendingReturn.nurseryId, work.nurseryId), eq(sendingReturn.id, entryId)));
  if (back)
    throw new Refusal(
      422,
      'not-undone',
      say`Trees that came back may be of several lots and serve an order: that is taken back as one, where lifted trees are shown.`,
    );
  const [planted] = await work.tx
    .select({ id: plantedPart.id })
    .from(plantedPart)
    .where(and(eq(plantedPart.nurseryId, work.nurseryId), eq(plantedPart.id, entryId)));
  if (planted)
    throw new Refusal(422, 'not-undone', say`Planted trees are taken back where the planting is shown.`);
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
  await takeBackBorn(work, lotId, entryId, body.id, on);
  const reversed = await reverseEntries(work, [entryId], body.id, on, lotId);
  if (struck.length === 0 && reversed === 0)
    throw new Refusal(404, 'no-such-entry', say`There is no such record of ${row.code} to take back.`);
  await note(work, 'take back', lotId, { entry: entryId, values: struck[0]?.values ?? null }, null);
}

/**
 * Takes back what was recorded of several lots in one act, all or none and in a fixed number of queries but for moves:
 * each gives room back and takes other room.
 */
export async function undoTogether(work: Work, body: BodyOf<'undoTogether'>): Promise<void> {
  const rows = await lockLots(
    work,
    body.entries.map((part) => part.lot),
  );
  const ids = body.entries.map((part) => part.entry);
  const struck = await work.tx
    .update(observation)
    .set({ struckAt: new Date() })
    .where(
      and(
        eq(observation.nurseryId, work.nurseryId),
        inArray(observation.lotId, [...rows.keys()]),
        inArray(observation.id, ids),
        isNull(observation.struckAt),
      ),
    )
    .returning();
  const byId = new Map(struck.map((o) => [o.id, o]));
  for (const { lot, entry } of body.entries) {
    const found = byId.get(entry);
    if (found?.lotId !== lot)
      throw new Refusal(
        404,
        'no-such-entry',
        say`There is no such record of ${rows.get(lot)!.code} to take back. Nothing was taken back.`,
      );
    if (found.values.kind === 'shift') await undoShift(work, rows.get(lot)!.stage.id, found.values);
  }
  const on = isoOf(Math.min(dayOf(body.on), dayOf(work.today)));
  await reverseEntries(work, ids, body.id, on);
  await noteAll(
    work,
    struck.map((o) => ({
      act: 'take back',
      subjectId: o.lotId,
      before: { entry: o.id, values: o.values },
      after: null,
    })),
  );
}
