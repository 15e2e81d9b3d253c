import type { Year, yearRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';

/* Taken back and taking back are left out together: an act undone never was, whenever it was undone. */
const IN_FORCE = `
  with moved as (
    select l.species_id as species, l.origin, m.on_date, m.from_account, m.to_account, m.count
    from movement m join lot l on l.nursery_id = m.nursery_id and l.id = m.lot_id
    where m.nursery_id = $1 and m.reverses is null
      and not exists (select 1 from movement r where r.nursery_id = m.nursery_id and r.reverses = m.id))`;
const OPENING = `${IN_FORCE}
  select species as "speciesId", account, sum(count)::int as count from (
    select species, to_account as account, count from moved where on_date < $2
    union all select species, from_account, -count from moved where on_date < $2) t
  where account <> 'supply'
  group by species, account having sum(count) <> 0 order by species, account`;
const FLOWS = `${IN_FORCE}
  select species as "speciesId", origin, from_account as "from", to_account as "to", sum(count)::int as count
  from moved where on_date between $2 and $3
  group by 1, 2, 3, 4 order by 1, 2, 3, 4`;

const CULLS = `
  select l.species_id as "speciesId", r->>'why' as why, sum((r->>'count')::int)::int as count
  from observation o
  join lot l on l.nursery_id = o.nursery_id and l.id = o.lot_id
  cross join lateral jsonb_array_elements(case o.kind
    when 'cull' then o."values"->'reasons'
    else jsonb_build_array(jsonb_build_object('why', 'roots', 'count', o."values"->'roots'->'rejected')) end) r
  where o.nursery_id = $1 and o.struck_at is null and o.on_date between $2 and $3
    and (o.kind = 'cull' or (o.kind = 'shift' and (o."values"->'roots'->>'rejected')::int > 0))
  group by 1, 2 order by 1, 2`;

export const yearHandlers: HandlersOf<typeof yearRoutes> = {
  async year({ tx, nurseryId, query: { from, until } }) {
    const { rows: opening } = await tx.$client.query<Year['opening'][number]>(OPENING, [nurseryId, from]);
    const { rows: flows } = await tx.$client.query<Year['flows'][number]>(FLOWS, [nurseryId, from, until]);
    const { rows: culls } = await tx.$client.query<Year['culls'][number]>(CULLS, [nurseryId, from, until]);
    return { opening, flows, culls };
  },
};
