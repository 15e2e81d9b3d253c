import { say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { note } from '../../db/journal';
import { storeLook } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

/** Writes down what was seen where lifted trees lie. @throws Refusal for a day still to come */
export async function look(
  work: Work,
  { on, id, place, tempC, seen, note: words }: BodyOf<'look'>,
): Promise<void> {
  const { tx, nurseryId, personId, today } = work;
  if (on > today)
    throw new Refusal(422, 'not-yet', say`${on} is still to come; today is ${today}.`, {
      fields: [{ path: 'on', message: say`Today is ${today}.` }],
    });
  await tx.insert(storeLook).values({ nurseryId, id, place, onDate: on, tempC, seen, note: words, personId });
  await note(work, 'look at lifted', id, null, { on, place, tempC, seen });
}

export async function takeBackLook(work: Work, id: string): Promise<void> {
  const { rowCount } = await work.tx
    .update(storeLook)
    .set({ struckAt: new Date() })
    .where(and(eq(storeLook.nurseryId, work.nurseryId), eq(storeLook.id, id), isNull(storeLook.struckAt)));
  if (!rowCount) throw new Refusal(404, 'no-such-look', say`There is no such look to take back.`);
  await note(work, 'take look back', id, { id }, null);
}
