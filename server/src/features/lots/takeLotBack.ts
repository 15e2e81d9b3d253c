import type { LotRow } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { lot, observation } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { reverseEntries } from './ledger';

const MOST_CODE = 24;

/**
 * Whether a lot `l` was worked on since it began: moved, counted out, or seen in any way but as it began. Records
 * taken back do not count, and neither does taking them back.
 */
export const WORKED_ON = `(
  exists (select from movement m where m.nursery_id = l.nursery_id and m.lot_id = l.id and m.entry_id <> l.id and m.reverses is null
    and not exists (select from movement r where r.nursery_id = m.nursery_id and r.reverses = m.id))
  or exists (select from stage s where s.nursery_id = l.nursery_id and s.lot_id = l.id and s.ended_on is not null)
  or exists (select from observation o where o.nursery_id = l.nursery_id and o.lot_id = l.id and o.struck_at is null
    and o.id is distinct from l.born_of and not exists (select from stage s where s.nursery_id = l.nursery_id
      and (s.id = o.id or (s.lot_id = l.id and s.started_on > o.on_date)))))`;

/** Takes a locked lot back as if it had never begun: what began it is reversed, what came with it struck, and it is shown no more. */
export async function takeLotBack(
  work: Work,
  { id, code }: Pick<LotRow, 'id' | 'code'>,
  undoId: string,
  on: string,
): Promise<void> {
  const { tx, nurseryId } = work;
  await reverseEntries(work, [id], undoId, on, id);
  await tx
    .update(observation)
    .set({ struckAt: new Date() })
    .where(and(eq(observation.nurseryId, nurseryId), eq(observation.lotId, id)));
  // Its code is free for another.
  const mark = ` ×${id.slice(-4)}`;
  await tx
    .update(lot)
    .set({ code: `${code.slice(0, MOST_CODE - mark.length)}${mark}`, takenBackAt: new Date() })
    .where(and(eq(lot.nurseryId, nurseryId), eq(lot.id, id)));
  await note(work, 'take back', id, { code }, null);
}
