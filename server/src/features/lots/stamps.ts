import type { LotStamp } from '@kauri/core/contract';
import { lastChange } from '../../db/journal';
import type { Tx } from '../../db/tenant';

/*
 * A word for all that a lot’s page shows of it: counts and last ids are enough, since records are added or struck and never
 * rewritten. Its stage’s last day is written later, and is part of the word.
 */
const stamps = (some: string) => `
  select l.id, l.code, l.species_id as "speciesId", l.sown_on::text as "sownOn",
    concat_ws('.', l.version, o.n, o.struck, o.last, m.n, s.n, s.last) as stamp,
    case when coalesce(b.held, 0) = 0 then coalesce(m.last, l.sown_on)::text end as "closedOn"
  from lot l
  left join (select lot_id, sum(held) as held from balance
             where nursery_id = $1 and account in ('seed', 'sown', 'standing', 'lifted') ${some} group by lot_id) b on b.lot_id = l.id
  left join (select lot_id, count(*) as n, count(struck_at) as struck, max(id::text) as last
             from observation where nursery_id = $1 ${some} group by lot_id) o on o.lot_id = l.id
  left join (select lot_id, count(*) as n, max(on_date) as last from movement where nursery_id = $1 ${some} group by lot_id) m
    on m.lot_id = l.id
  left join (select lot_id, count(*) as n, string_agg(concat(started_on, ended_on), '.' order by started_on) as last
             from stage where nursery_id = $1 ${some} group by lot_id) s on s.lot_id = l.id
  where l.nursery_id = $1 and l.taken_back_at is null ${some.replace('lot_id', 'l.id')} order by l.code`;

const ALL = stamps('');
const SOME = stamps('and lot_id = any($2::uuid[])');

/** Every lot of a nursery by name, or some, each with its stamp, and what changed last: one query however many lots. */
export async function lotStamps(
  tx: Tx,
  nurseryId: string,
  ids: readonly string[] | null,
): Promise<{ stamps: LotStamp[]; changed: string | null }> {
  // Asked first: a change that comes between is then asked about again, not missed.
  const changed = await lastChange(tx, nurseryId);
  const { rows } = await tx.$client.query<LotStamp>(
    ids
      ? { name: 'some-lot-stamps', text: SOME, values: [nurseryId, ids] }
      : { name: 'lot-stamps', text: ALL, values: [nurseryId] },
  );
  return { stamps: rows, changed };
}
