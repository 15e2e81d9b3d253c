import {
  coldStores,
  dayOf,
  factsFrom,
  holdAsks,
  itemsOf,
  keepsUntil,
  liesIn,
  lotVerdict,
  lyingParcels,
  planAsks,
  plantingAsks,
  risingFacts,
  roomAsks,
  roomOutlooks,
  roomToday,
  storeAsks,
  storedLot,
  viabilityOutlook,
  type Beta,
  type EpochDay,
  type Keeps,
  type LotAsks,
  type Lookup,
  type SeedAsk,
  type Site,
} from '@kauri/core';
import type { Evidence, RootRules, SeedRoom, Species } from '@kauri/core/contract';
import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type pg from 'pg';
import { lastChange } from '../db/journal';
import { nursery, nurseryToday } from '../db/schema/index';
import { inNursery, type Tx } from '../db/tenant';
import { evidenceOf } from '../features/lots/evidence';
import { lotRowsOf } from '../features/lots/lotRows';
import { holdsOf } from '../features/holds/holds';
import { parcelsOf } from '../features/parcels/parcels';
import { plantingsOf } from '../features/plantings/plantings';
import { seedRoom } from '../features/seed/room';
import { heatDaysOf, seriesOf } from '../features/weather/weatherDays';
import { nurseryLookup } from '../features/yard/lookup';
import { languageOf } from '../nursery/language';
import { readValue } from '../nursery/values';
import { spokenIn } from '../speech';
import { asksOfLots, type AskedLot } from './lotWork';
import { fromKept, toKept } from './kept';
import { weatherOn } from './outlooks';

/** A live lot, and a word for all that what it asks for rests on. */
interface LiveLot {
  id: string;
  code: string;
  basis: string;
}

/*
 * What a lot rests on: its own rows, its bag's, and below what every lot shares. Counts and last ids are enough, since
 * records are added or struck and never rewritten.
 */
const LIVE_LOTS = `
  select l.id, l.code,
    concat_ws('.', l.version, o.n, o.struck, o.last, m.n, s.n, s.last, bag.version, r.n, r.struck) as basis
  from lot l
  join (select lot_id, sum(held) as held from balance
        where nursery_id = $1 and account in ('sown', 'standing') group by lot_id) b on b.lot_id = l.id and b.held > 0
  left join (select lot_id, count(*) as n, count(struck_at) as struck, max(id::text) as last
             from observation where nursery_id = $1 group by lot_id) o on o.lot_id = l.id
  left join (select lot_id, count(*) as n from movement where nursery_id = $1 group by lot_id) m on m.lot_id = l.id
  left join (select lot_id, count(*) as n, max(started_on) as last from stage where nursery_id = $1 group by lot_id) s
    on s.lot_id = l.id
  left join seed_lot bag on bag.nursery_id = $1 and bag.id = l.seed_lot_id
  left join (select subject_id, count(*) as n, count(struck_at) as struck from seed_record
             where nursery_id = $1 group by subject_id) r on r.subject_id = l.seed_lot_id
  where l.nursery_id = $1 order by l.code`;

const WEATHER_BASIS = `(select concat_ws('.', count(*), max(day), round(sum(t_min_c)::numeric, 1), round(sum(t_max_c)::numeric, 1),
    round(sum((day - date '2000-01-01') * (t_min_c + 2 * t_max_c))::numeric, 1))
  from weather_day where nursery_id = $1)`;

const SHARED_BASIS = `
  select ${WEATHER_BASIS} as weather, concat_ws('.',
    (select language from nursery where id = $1),
    (select concat_ws('.', count(*), sum(version)) from species where nursery_id = $1),
    (select concat_ws('.', count(*), sum(version)) from container_type where nursery_id = $1),
    (select concat_ws('.', count(*), sum(version)) from medium where nursery_id = $1),
    (select concat_ws('.', count(*), sum(version)) from place where nursery_id = $1),
    (select string_agg(kind || version, '.' order by kind) from nursery_value
      where nursery_id = $1 and kind in ('climate', 'learnt', 'roots', 'site'))) as shared`;

/** Raised whenever the rules or the forecast change, so that what an older Kauri kept is worked out anew. */
const MODEL = 12;
/** Nobody asked: the job sees what its nursery’s rows are, and no person’s. */
export const NOBODY = '00000000-0000-7000-8000-000000000000';

export interface TodayJob {
  nurseryId: string;
  today: string;
}

/** What the job needs of the server. */
export interface JobTools {
  pool: pg.Pool;
  /** A lot's forecast failed: logged with its stack. */
  failed: (nurseryId: string, lotId: string, error: unknown) => void;
}

/**
 * Works out Today of a nursery and keeps it: lots whose records, catalogue or weather changed are forecast anew, the
 * others stand. Reads in one transaction and writes in another; no transaction is open while it computes.
 */
export async function refreshToday(tools: JobTools, job: TodayJob): Promise<void> {
  // What its server works out by itself is said in the nursery’s own language.
  const as = { nurseryId: job.nurseryId, personId: NOBODY };
  const language = await inNursery(tools.pool, as, (tx) => languageOf(tx, job.nurseryId));
  if (language !== null) await spokenIn(language, () => refresh(tools, job));
}

async function refresh(tools: JobTools, { nurseryId, today }: TodayJob): Promise<void> {
  const as = { nurseryId, personId: NOBODY };
  const day = dayOf(today);
  const read = await inNursery(tools.pool, as, (tx) => readNursery(tx, nurseryId, today, day));
  if (read === null) return;
  const { stale, lots, asked, weather, room, species, roomBasis } = read;
  const anew = asksOfLots(asked, weather, (lot, error) => tools.failed(nurseryId, lot.id, error));
  const rows = stale.map((lot, i) => ({ ...lot, ...anew[i] }));
  const byId = new Map(rows.map((row) => [row.id, row]));
  const asks: LotAsks[] = [];
  const faults: { lotId: string; code: string; fault: string }[] = [];
  for (const lot of lots) {
    const { asks: of, fault } = byId.get(lot.id) ?? lot.kept!;
    if (of) asks.push(of);
    if (fault !== null) faults.push({ lotId: lot.id, code: lot.code, fault });
  }
  let roomItems: SeedAsk[];
  if (read.keptRoom) roomItems = read.keptRoom;
  else {
    const known = roomToday(room, day);
    const outlooks = roomOutlooks(room, known, species, weather.outlook, weather.warmth, day);
    roomItems = roomAsks(room, known, outlooks, species, day);
  }
  await inNursery(tools.pool, as, async (tx) => {
    await keepAsks(tx, nurseryId, today, rows);
    const values = {
      asOf: today,
      known: read.known,
      workedAt: new Date(),
      forecast: rows.length,
      faults,
      items: toKept(
        itemsOf(asks, roomItems, day, {
          planned: planAsks(read.planned, species, room, day),
          plantings: plantingAsks(read.plantings, read.heatDays, read.latitudeDeg, day),
          holds: holdAsks(read.holds, day),
          lying: lyingAsks(read, day),
        }),
      ),
      room: toKept(roomItems),
      roomBasis,
    };
    await tx
      .insert(nurseryToday)
      .values({ nurseryId, ...values })
      .onConflictDoUpdate({ target: nurseryToday.nurseryId, set: values });
  });
}

async function readNursery(tx: Tx, nurseryId: string, today: string, day: EpochDay) {
  const [home] = await tx.select().from(nursery).where(eq(nursery.id, nurseryId));
  if (!home) return null;
  const site: Site = { latitudeDeg: home.latitudeDeg, elevationM: home.elevationM };
  // Asked first: a change that comes while the rest is read is then done again, not missed.
  const known = await lastChange(tx, nurseryId);
  const [last] = await tx.select().from(nurseryToday).where(eq(nurseryToday.nurseryId, nurseryId));
  const isNew = last?.asOf !== today || last.known !== known || !last.roomBasis.startsWith(`${MODEL}/`);
  // Asked for twice, and nothing has changed since.
  if (!isNew) return null;
  const { rows: live } = await tx.$client.query<LiveLot>(LIVE_LOTS, [nurseryId]);
  const { rows: shared } = await tx.$client.query<{ weather: string; shared: string }>(SHARED_BASIS, [
    nurseryId,
  ]);
  const sky = `${site.latitudeDeg}/${site.elevationM}/${shared[0].weather}`;
  const of = `${MODEL}/${today}/${sky}/${shared[0].shared}`;
  const { rows: before } = await tx.$client.query<{
    lot_id: string;
    basis: string;
    asks: string | null;
    fault: string | null;
  }>('select lot_id, basis, asks::text, fault from lot_asks where nursery_id = $1 and as_of = $2', [
    nurseryId,
    today,
  ]);
  const keptById = new Map(before.map((row) => [row.lot_id, row]));
  const lots = live.map(({ id, code, basis }) => {
    const row = keptById.get(id);
    const whole = `${of}/${basis}`;
    const same = row?.basis === whole ? row : null;
    const kept = same && {
      asks: same.asks === null ? null : fromKept<LotAsks>(same.asks),
      fault: same.fault,
    };
    return { id, code, basis: whole, kept };
  });
  const stale = lots.filter((lot) => lot.kept === null);
  const room = await seedRoom({ tx, nurseryId });
  const digest = createHash('sha256')
    .update(`${of} ${JSON.stringify(room)}`)
    .digest('base64url');
  const roomBasis = `${MODEL}/${digest}`;
  const lookup = await nurseryLookup(tx, home);
  const weather = await weatherOn(`${nurseryId} ${sky}`, day, async () => ({
    series: await seriesOf(tx, nurseryId),
    site,
  }));
  const { value: roots } = await readValue({ tx, nurseryId }, 'roots');
  const { value: planned } = await readValue({ tx, nurseryId }, 'plan');
  const asked = await askedLots(tx, nurseryId, stale, lookup, room, roots as RootRules, day);
  const keptRoom = last?.roomBasis === roomBasis ? fromKept<SeedAsk[]>(last.room) : null;
  return {
    known,
    lots,
    stale,
    asked,
    weather,
    room,
    species: lookup.species,
    roomBasis,
    keptRoom,
    planned: planned.sowings,
    plantings: await plantingsOf(tx, nurseryId),
    holds: (await holdsOf({ tx, nurseryId })).holds,
    lifted: await parcelsOf(tx, nurseryId, today),
    elements: (await readValue({ tx, nurseryId }, 'site')).value.elements,
    heatDays: await heatDaysOf(tx, nurseryId, day),
    latitudeDeg: site.latitudeDeg,
  };
}

type Read = NonNullable<Awaited<ReturnType<typeof readNursery>>>;

/** What lifted trees ask for where they lie. */
function lyingAsks({ lifted, elements, species, weather, heatDays, latitudeDeg }: Read, day: EpochDay) {
  const { parcels, asides, looks } = lifted;
  const stores = coldStores(elements, looks);
  const keeps = new Map<string, Keeps>();
  for (const parcel of lyingParcels(parcels, asides, stores)) {
    const of = species.get(parcel.speciesId);
    if (of) keeps.set(parcel.id, keepsUntil(of.values, latitudeDeg, weather.warmth, liesIn(parcel)).value);
  }
  return storeAsks({ parcels, looks, stores, species, keeps, weather: heatDays }, day);
}

async function askedLots(
  tx: Tx,
  nurseryId: string,
  stale: readonly { id: string }[],
  lookup: Lookup,
  room: SeedRoom,
  { school, cards, terms, cap }: RootRules,
  day: EpochDay,
): Promise<AskedLot[]> {
  if (stale.length === 0) return [];
  const ids = stale.map((lot) => lot.id);
  const rows = new Map((await lotRowsOf(tx, nurseryId, ids)).map((row) => [row.id, row]));
  const evidence = new Map((await evidenceOf(tx, nurseryId, ids)).map((e) => [e.lotId, e]));
  const aliveIn = aliveByBag(room, lookup.species, day);
  return ids.map((id) => {
    const row = rows.get(id)!;
    const records: Evidence = evidence.get(id)!;
    const facts = factsFrom(row, records, lookup);
    const pulled = records.roots.map((r) => ({ id: r.entry, day: dayOf(r.on), plant: r.plant }));
    const { call, failing, pulled: n } = lotVerdict(pulled, cards[school], terms, cap).value.sequential;
    const rising = row.held.sown
      ? risingFacts(
          row,
          facts,
          records,
          lookup.species.get(row.speciesId)!,
          row.seedLotId === null ? null : aliveIn(row.seedLotId),
          day,
        )
      : null;
    return { facts, rising, roots: { call, failing, pulled: n } };
  });
}

/** Share alive in a bag on a day, each bag worked out once. */
function aliveByBag(
  room: SeedRoom,
  species: ReadonlyMap<string, Species>,
  day: EpochDay,
): (seedLotId: string) => Beta | null {
  const known = new Map<string, Beta>();
  const records = roomToday(room, day).records;
  return (id) => {
    const bag = room.lots.find((lot) => lot.id === id);
    if (!bag) return null;
    let alive = known.get(id);
    if (!alive) {
      const stored = storedLot(bag, species.get(bag.speciesId)!, records);
      known.set(id, (alive = viabilityOutlook(stored, day).value.now.beta));
    }
    return alive;
  };
}

async function keepAsks(
  tx: Tx,
  nurseryId: string,
  today: string,
  rows: readonly { id: string; basis: string; asks: LotAsks | null; fault: string | null }[],
): Promise<void> {
  if (rows.length === 0) return;
  await tx.$client.query(
    `insert into lot_asks (nursery_id, lot_id, as_of, basis, asks, fault)
     select $1, lot_id, $2, basis, asks::jsonb, fault
     from unnest($3::uuid[], $4::text[], $5::text[], $6::text[]) as t(lot_id, basis, asks, fault)
     on conflict (nursery_id, lot_id) do update
       set as_of = excluded.as_of, basis = excluded.basis, asks = excluded.asks, fault = excluded.fault`,
    [
      nurseryId,
      today,
      rows.map((row) => row.id),
      rows.map((row) => row.basis),
      rows.map((row) => (row.asks === null ? null : toKept(row.asks))),
      rows.map((row) => row.fault),
    ],
  );
}
