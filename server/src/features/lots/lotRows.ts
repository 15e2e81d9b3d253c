import type { LotRow } from '@kauri/core/contract';
import type { Account } from '@kauri/core';
import type { Tx } from '../../db/tenant';

/** One query for a page of lots: the lot, where it stands, what its accounts hold, its latest record. */
const LOT_ROWS = `
  select l.id, l.code, l.species_id, l.sown_on, l.seed_state, l.target_height_cm, l.leaf_fall_on, l.note, l.version,
    l.origin, l.seed_lot_id, l.treatment_id, l.stock_bed_id, l.parent_lot_id, l.layer_id, l.cutting, l.patch, l.extra_winters,
    s.id as stage_id, s.place_id, s.container_type_id, s.trays, s.density_per_m2, s.area_m2, s.started_on, s.ended_on,
    coalesce(b.held, '{}'::json) as held, o.last_on
  from lot l
  join lateral (select * from stage s where s.nursery_id = l.nursery_id and s.lot_id = l.id order by s.started_on desc limit 1) s on true
  left join lateral (select json_object_agg(b.account, b.held) as held from balance b
    where b.nursery_id = l.nursery_id and b.lot_id = l.id) b on true
  left join lateral (select o.on_date as last_on from observation o
    where o.nursery_id = l.nursery_id and o.lot_id = l.id and o.struck_at is null order by o.on_date desc limit 1) o on true
  where l.nursery_id = $1 and l.taken_back_at is null`;

/** Lots of a nursery after a code, by code: nursery, code, how many. */
export const LOT_PAGE = `${LOT_ROWS} and l.code > $2 order by l.code limit $3`;

interface Row {
  id: string;
  code: string;
  species_id: string;
  sown_on: string;
  seed_state: 'ready' | 'fresh';
  target_height_cm: number | null;
  leaf_fall_on: string | null;
  note: string;
  version: number;
  origin: LotRow['origin'];
  seed_lot_id: string | null;
  treatment_id: string | null;
  stock_bed_id: string | null;
  parent_lot_id: string | null;
  layer_id: string | null;
  cutting: LotRow['cutting'];
  patch: LotRow['patch'];
  extra_winters: number;
  stage_id: string;
  place_id: string;
  container_type_id: string | null;
  trays: number | null;
  density_per_m2: number | null;
  area_m2: number | null;
  started_on: string;
  ended_on: string | null;
  held: Partial<Record<Account, number>>;
  last_on: string | null;
}

function toLotRow(row: Row): LotRow {
  let out = 0;
  for (const [account, held] of Object.entries(row.held)) if (account.startsWith('out:')) out += held;
  return {
    id: row.id,
    code: row.code,
    speciesId: row.species_id,
    sownOn: row.sown_on,
    seedState: row.seed_state,
    origin: row.origin,
    seedLotId: row.seed_lot_id,
    treatmentId: row.treatment_id,
    stockBedId: row.stock_bed_id,
    parentLotId: row.parent_lot_id,
    layerId: row.layer_id,
    cutting: row.cutting,
    patch: row.patch,
    extraWinters: row.extra_winters,
    targetHeightCm: row.target_height_cm,
    leafFallOn: row.leaf_fall_on,
    note: row.note,
    version: row.version,
    stage: {
      id: row.stage_id,
      placeId: row.place_id,
      containerTypeId: row.container_type_id,
      trays: row.trays,
      densityPerM2: row.density_per_m2,
      areaM2: row.area_m2,
      startedOn: row.started_on,
      endedOn: row.ended_on,
    },
    held: {
      seed: row.held.seed ?? 0,
      sown: row.held.sown ?? 0,
      standing: row.held.standing ?? 0,
      lifted: row.held.lifted ?? 0,
      sent: row.held.sent ?? 0,
      planted: row.held.planted ?? 0,
      out,
    },
    lastRecordOn: row.last_on,
  };
}

/** Lots after a code, by code. `next` is the code to go on from, or null at the end. */
export async function lotPage(
  tx: Tx,
  nurseryId: string,
  after: string,
  limit: number,
): Promise<{ lots: LotRow[]; next: string | null }> {
  const { rows } = await tx.$client.query<Row>({
    name: 'lot-page',
    text: LOT_PAGE,
    values: [nurseryId, after, limit + 1],
  });
  const lots = rows.slice(0, limit).map(toLotRow);
  return { lots, next: rows.length > limit ? lots[lots.length - 1].code : null };
}

export async function lotRow(tx: Tx, nurseryId: string, id: string): Promise<LotRow | null> {
  const { rows } = await tx.$client.query<Row>({
    name: 'lot-one',
    text: `${LOT_ROWS} and l.id = $2`,
    values: [nurseryId, id],
  });
  return rows[0] ? toLotRow(rows[0]) : null;
}

/** Rows of some lots, in no order. */
export async function lotRowsOf(tx: Tx, nurseryId: string, ids: readonly string[]): Promise<LotRow[]> {
  const { rows } = await tx.$client.query<Row>(`${LOT_ROWS} and l.id = any($2::uuid[])`, [nurseryId, ids]);
  return rows.map(toLotRow);
}
