import {
  actWords,
  agendaOf,
  dayOf,
  factsFrom,
  isoOf,
  lookupFrom,
  lotVerdict,
  rejectedAct,
  roomActs,
  rootActWords,
  seedActWords,
  workRates,
  type Act,
  type AgendaItem,
  type EpochDay,
  type LotFacts,
  type Lookup,
  type Site,
} from '@kauri/core';
import type { AnswerOf, Climate, Evidence, LearntValues, RootRules, TodayRules } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { lotActs, nursery } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';
import { forecastActs } from '../../jobs/forecasts';
import { weatherOn } from '../../jobs/outlooks';
import { evidenceOf } from '../lots/evidence';
import { lotRowsOf } from '../lots/lotRows';
import { seedRoom } from '../seed/room';
import { seriesOf } from '../weather/weatherDays';
import { catalogueOf } from '../yard/catalogue';
import { readValue } from '../../nursery/values';
import { marksOf, toMark, workDone } from './book';

type ServerToday = AnswerOf<'today'>;

/** A live lot, and a word for all that its acts rest on. */
interface LiveLot {
  id: string;
  code: string;
  basis: string;
}

/*
 * What a lot’s acts rest on: its own rows, and below what every lot shares. Counts and last ids are enough, since records
 * are added or struck and never rewritten.
 */
const LIVE_LOTS = `
  select l.id, l.code,
    concat_ws('.', l.version, o.n, o.struck, o.last, m.n, s.n, s.last) as basis
  from lot l
  join (select lot_id, sum(held) as held from balance
        where nursery_id = $1 and account in ('sown', 'standing') group by lot_id) b on b.lot_id = l.id and b.held > 0
  left join (select lot_id, count(*) as n, count(struck_at) as struck, max(id::text) as last
             from observation where nursery_id = $1 group by lot_id) o on o.lot_id = l.id
  left join (select lot_id, count(*) as n from movement where nursery_id = $1 group by lot_id) m on m.lot_id = l.id
  left join (select lot_id, count(*) as n, max(started_on) as last from stage where nursery_id = $1 group by lot_id) s
    on s.lot_id = l.id
  where l.nursery_id = $1 order by l.code`;

const WEATHER_BASIS = `(select concat_ws('.', count(*), max(day), round(sum(t_min_c)::numeric, 1), round(sum(t_max_c)::numeric, 1),
    round(sum((day - date '2000-01-01') * (t_min_c + 2 * t_max_c))::numeric, 1))
  from weather_day where nursery_id = $1)`;

const SHARED_BASIS = `
  select concat_ws('.', ${WEATHER_BASIS},
    (select concat_ws('.', count(*), sum(version)) from species where nursery_id = $1),
    (select concat_ws('.', count(*), sum(version)) from container_type where nursery_id = $1),
    (select concat_ws('.', count(*), sum(version)) from medium where nursery_id = $1),
    (select concat_ws('.', count(*), sum(version)) from place where nursery_id = $1),
    (select sum(version) from nursery_value where nursery_id = $1 and kind in ('climate', 'learnt'))) as basis`;

/** Raised whenever the rules or the forecast change, so that acts kept by an older Kauri are worked out anew. */
const MODEL = 1;

/**
 * What the lots and their roots ask for on a day, worked out on the server: forecasts of lots whose records, catalogue or
 * weather changed are made anew in worker threads and kept; the others stand.
 */
export async function serverToday(tx: Tx, nurseryId: string, today: string): Promise<ServerToday> {
  const live = await liveLots(tx, nurseryId, today);
  const kept = await tx
    .select({ lotId: lotActs.lotId, basis: lotActs.basis, acts: lotActs.acts })
    .from(lotActs)
    .where(and(eq(lotActs.nurseryId, nurseryId), eq(lotActs.asOf, today)));
  const byLot = new Map(kept.map((row) => [row.lotId, row]));
  const acts = new Map<string, Act[]>();
  const stale: LiveLot[] = [];
  for (const lot of live) {
    const row = byLot.get(lot.id);
    if (row?.basis === lot.basis) acts.set(lot.id, row.acts);
    else stale.push(lot);
  }
  if (stale.length) {
    const weather = await weatherOf(tx, nurseryId, dayOf(today));
    const anew = await forecastActs({ ...weather, lots: await factsOf(tx, nurseryId, stale) });
    stale.forEach((lot, i) => acts.set(lot.id, anew[i]));
    await keepActs(tx, nurseryId, today, stale, acts);
  }
  return inWords(tx, nurseryId, today, live, acts, stale.length);
}

async function liveLots(tx: Tx, nurseryId: string, today: string): Promise<LiveLot[]> {
  const { rows: lots } = await tx.$client.query<LiveLot>(LIVE_LOTS, [nurseryId]);
  const { rows: shared } = await tx.$client.query<{ basis: string }>(SHARED_BASIS, [nurseryId]);
  return lots.map((lot) => ({ ...lot, basis: `${MODEL}/${today}/${shared[0].basis}/${lot.basis}` }));
}

async function factsOf(tx: Tx, nurseryId: string, stale: readonly LiveLot[]): Promise<LotFacts[]> {
  const ids = stale.map((lot) => lot.id);
  const lookup = await lookupOf(tx, nurseryId);
  const rows = new Map((await lotRowsOf(tx, nurseryId, ids)).map((row) => [row.id, row]));
  const evidence = new Map((await evidenceOf(tx, nurseryId, ids)).map((e) => [e.lotId, e]));
  return ids.map((id) => factsFrom(rows.get(id)!, evidence.get(id)!, lookup));
}

/** The weather as known on a day, kept from one call to the next while no day of it changes. */
async function weatherOf(tx: Tx, nurseryId: string, day: EpochDay) {
  const { rows } = await tx.$client.query<{ basis: string }>(`select ${WEATHER_BASIS} as basis`, [nurseryId]);
  return weatherOn(`${nurseryId} ${rows[0].basis}`, day, async () => ({
    series: await seriesOf(tx, nurseryId),
    site: await siteOf(tx, nurseryId),
  }));
}

async function lookupOf(tx: Tx, nurseryId: string): Promise<Lookup> {
  const climate = await readValue({ tx, nurseryId }, 'climate');
  const learnt = await readValue({ tx, nurseryId }, 'learnt');
  return lookupFrom(await catalogueOf(tx, nurseryId), climate.value as Climate, learnt.value as LearntValues);
}

async function siteOf(tx: Tx, nurseryId: string): Promise<Site> {
  const [{ latitudeDeg, elevationM }] = await tx.select().from(nursery).where(eq(nursery.id, nurseryId));
  return { latitudeDeg, elevationM };
}

async function keepActs(
  tx: Tx,
  nurseryId: string,
  today: string,
  stale: readonly LiveLot[],
  acts: ReadonlyMap<string, Act[]>,
): Promise<void> {
  await tx.$client.query(
    `insert into lot_acts (nursery_id, lot_id, as_of, basis, acts)
     select $1, lot_id, $2, basis, acts::jsonb from unnest($3::uuid[], $4::text[], $5::text[]) as t(lot_id, basis, acts)
     on conflict (nursery_id, lot_id) do update set as_of = excluded.as_of, basis = excluded.basis, acts = excluded.acts`,
    [
      nurseryId,
      today,
      stale.map((lot) => lot.id),
      stale.map((lot) => lot.basis),
      stale.map((lot) => JSON.stringify(acts.get(lot.id))),
    ],
  );
}

type Item = AgendaItem & {
  part: 'lot' | 'seed' | 'roots';
  subjectId: string;
  about: string;
  title: string;
  reason: string;
};

async function inWords(
  tx: Tx,
  nurseryId: string,
  today: string,
  live: readonly LiveLot[],
  acts: ReadonlyMap<string, Act[]>,
  forecast: number,
): Promise<ServerToday> {
  const day = dayOf(today);
  const items = live.flatMap(({ id, code }): Item[] =>
    acts
      .get(id)!
      .map((act) => ({ ...act, part: 'lot', subjectId: id, about: code, ...actWords(act, code, day) })),
  );
  const marks = await marksOf({ tx, nurseryId }, today);
  const { value: rules } = await readValue({ tx, nurseryId }, 'today');
  const agenda = agendaOf(
    [...items, ...(await rejectedRoots(tx, nurseryId, live)), ...(await seedItems(tx, nurseryId, day))],
    marks.map(toMark),
    (rules as TodayRules).rules,
    workRates(workDone(marks)),
    day,
  );
  return {
    on: today,
    forecast,
    acts: agenda.lines.map(({ item, when, loss, minutes, assigned }) => ({
      rule: item.rule,
      part: item.part,
      subjectId: item.subjectId,
      about: item.about,
      when,
      by: item.by === null || !Number.isFinite(item.by) ? null : isoOf(Math.round(item.by)),
      trees: item.trees,
      loss,
      minutes,
      title: item.title,
      reason: item.reason,
      assignedTo: assigned?.assignedTo ?? null,
    })),
  };
}

/** Lots whose pulled plants were rejected; the few that were pulled at all are read. */
async function rejectedRoots(tx: Tx, nurseryId: string, live: readonly LiveLot[]): Promise<Item[]> {
  const { rows } = await tx.$client.query<{ lot_id: string; standing: number }>(
    `select o.lot_id, max(b.held) as standing from observation o
     join balance b on b.nursery_id = o.nursery_id and b.lot_id = o.lot_id and b.account = 'standing' and b.held > 0
     where o.nursery_id = $1 and o.kind = 'root' and o.struck_at is null group by o.lot_id`,
    [nurseryId],
  );
  if (rows.length === 0) return [];
  const standing = new Map(rows.map((row) => [row.lot_id, row.standing]));
  const known = live.filter((lot) => standing.has(lot.id));
  const { value } = await readValue({ tx, nurseryId }, 'roots');
  const { school, cards, terms, cap } = value as RootRules;
  const evidence = await evidenceOf(
    tx,
    nurseryId,
    known.map((lot) => lot.id),
  );
  const plants = new Map(evidence.map((e: Evidence) => [e.lotId, e.roots]));
  return known.flatMap(({ id, code }) => {
    const pulled = plants.get(id)!.map((r) => ({ id: r.entry, day: dayOf(r.on), plant: r.plant }));
    const { sequential } = lotVerdict(pulled, cards[school], terms, cap).value;
    return rejectedAct({ lotId: id, verdict: sequential }).map((act) => ({
      ...act,
      part: 'roots' as const,
      subjectId: id,
      about: code,
      trees: standing.get(id)!,
      ...rootActWords(act, code),
    }));
  });
}

/** What bags, batches and layers ask for. */
async function seedItems(tx: Tx, nurseryId: string, day: number): Promise<Item[]> {
  const room = await seedRoom({ tx, nurseryId });
  if (room.lots.length + room.treatments.length + room.layers.length === 0) return [];
  const { species } = lookupFrom(await catalogueOf(tx, nurseryId));
  const { outlook, warmth } = await weatherOf(tx, nurseryId, day);
  return roomActs(room, species, outlook, warmth, day).map(({ act, name, seeds }) => ({
    ...act,
    part: 'seed' as const,
    about: name,
    trees: seeds,
    ...seedActWords(act, name, day),
  }));
}
