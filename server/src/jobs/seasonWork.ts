import {
  dayOf,
  factsFrom,
  knownWeather,
  coldStores,
  lyingParcels,
  openLines,
  runSeason,
  type Lookup,
  type LotFacts,
  type SeasonNursery,
  type SeasonProgress,
  type Site,
} from '@kauri/core';
import type { Evidence, LotRow, SeasonAsked, SeasonResult } from '@kauri/core/contract';
import { eq } from 'drizzle-orm';
import type pg from 'pg';
import { v7 as newId } from 'uuid';
import { nursery } from '../db/schema/index';
import { inNursery, type Tx } from '../db/tenant';
import { evidenceOf } from '../features/lots/evidence';
import { lotRowsOf } from '../features/lots/lotRows';
import { raisingLearnt } from '../features/plan/learnt';
import { ordersOf } from '../features/plan/orders';
import { parcelsOf } from '../features/parcels/parcels';
import { seedRoom } from '../features/seed/room';
import { seriesOf } from '../features/weather/weatherDays';
import { nurseryLookup } from '../features/yard/lookup';
import { readValue } from '../nursery/values';
import { NOBODY } from './refreshToday';

/** A season to be planned. */
export interface SeasonJob {
  nurseryId: string;
  asked: SeasonAsked;
  today: string;
}

/** Longest that a season is chosen over, seconds. */
const SECONDS = 60;

/** Plans a season of a nursery. Reads in one transaction; none is open while it computes. */
export async function planSeason(
  pool: pg.Pool,
  job: SeasonJob,
  told: (progress: SeasonProgress) => void | Promise<void>,
): Promise<SeasonResult> {
  const { nurseryId } = job;
  const read = await inNursery(pool, { nurseryId, personId: NOBODY }, (tx) => readSeason(tx, job));
  return runSeason(read, { seconds: SECONDS, now: () => performance.now() / 1000, newId, told });
}

export async function readSeason(tx: Tx, { nurseryId, asked, today }: SeasonJob): Promise<SeasonNursery> {
  const [home] = await tx.select().from(nursery).where(eq(nursery.id, nurseryId));
  const site: Site = { latitudeDeg: home.latitudeDeg, elevationM: home.elevationM };
  const of = { tx, nurseryId };
  const lookup = await nurseryLookup(tx, home);
  const { value: prices } = await readValue(of, 'prices');
  const { rows: live } = await tx.$client.query<{ id: string }>(
    `select lot_id as id from balance where nursery_id = $1 and account in ('sown', 'standing')
     group by lot_id having sum(held) > 0`,
    [nurseryId],
  );
  const ids = live.map(({ id }) => id);
  const evidence = new Map((await evidenceOf(tx, nurseryId, ids)).map((e) => [e.lotId, e]));
  const lots = (await lotRowsOf(tx, nurseryId, ids)).map((row) => ({
    row,
    facts: factsOrNone(row, evidence.get(row.id)!, lookup),
  }));
  const day = dayOf(today);
  const { parcels, asides, looks } = await parcelsOf(tx, nurseryId, today);
  const { value: routes } = await readValue(of, 'routes');
  const { value: planned } = await readValue(of, 'plan');
  const { value: plan } = await readValue(of, 'site');
  return {
    today: day,
    lookup,
    weather: knownWeather(await seriesOf(tx, nurseryId), site, day),
    lines: openLines(await ordersOf(of), asides, asked, day),
    routes: routes.routes,
    learnt: await raisingLearnt(of, today),
    lots,
    parcels: lyingParcels(parcels, asides, coldStores(plan.elements, looks)),
    room: await seedRoom({ tx, nurseryId }),
    prices,
    planned: planned.sowings,
    terms: asked,
  };
}

/** A lot's facts; null where its records make none, which Today tells on its own line. */
function factsOrNone(row: LotRow, evidence: Evidence, lookup: Lookup): LotFacts | null {
  try {
    return factsFrom(row, evidence, lookup);
  } catch {
    return null;
  }
}
