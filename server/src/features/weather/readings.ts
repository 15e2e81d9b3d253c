import {
  checkReadings,
  dayOf,
  daysFromReadings,
  isoOf,
  type CoverKind,
  type HourReading,
  type ReadingFlag,
  say,
} from '@kauri/core';
import type { Climate } from '@kauri/core/contract';
import { and, asc, between, eq } from 'drizzle-orm';
import { nursery, stationReading, weatherDay, type station } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { readValue } from '../../nursery/values';
import type { StationSky } from '../../standins/station';
import { StationLink } from './stationLink';
import { READ_BACK_DAYS, stationRows } from './stationRows';

/** Readings before the new ones that are looked over again with them. */
const RECHECK_DAYS = 4;
const BATCH = 5000;

type Row = typeof station.$inferSelect;

/**
 * Reads every station up to last midnight: hours are kept as they came, looked over, and those in the open added up to
 * days of weather. A day that came by table keeps its temperatures; the station only adds humidity and wind to it.
 */
export async function readStations(
  work: Work,
  url: string,
): Promise<{ hours: number; flagged: number; days: number }> {
  const total = { hours: 0, flagged: 0, days: 0 };
  const rows = await stationRows(work);
  if (rows.length === 0) throw new Refusal(422, 'no-station', say`There is no station yet: add one first.`);
  const main = rows.find((row) => row.coverId === null);
  for (const row of rows) {
    const read = await readOne(work, url, row);
    total.hours += read.hours;
    total.flagged += read.flagged;
    if (row === main && read.since !== null) total.days += await keepDays(work, row.id, read.since);
  }
  return total;
}

async function readOne(
  work: Work,
  url: string,
  row: Row,
): Promise<{ hours: number; flagged: number; since: string | null }> {
  const { tx, nurseryId, today } = work;
  const link = new StationLink(url, row.name, row.id);
  const lastHour = await lastHourOf(work, row.id);
  const to = `${isoOf(dayOf(today) - 1)}T23`;
  const from = lastHour === null ? `${isoOf(dayOf(today) - READ_BACK_DAYS)}T00` : hourAfter(lastHour);
  if (from > to) return { hours: 0, flagged: 0, since: null };
  await link.feel(await skyOf(work, row, from.slice(0, 10)));
  const fresh: HourReading[] = [];
  for await (const reading of link.hours(from, to)) {
    // A device with a wrong clock, or a buffer sent twice, does not rewrite what was read.
    if (reading.hour >= from && reading.hour <= to) fresh.push(reading);
  }
  for (let at = 0; at < fresh.length; at += BATCH)
    await tx
      .insert(stationReading)
      .values(fresh.slice(at, at + BATCH).map((r) => ({ nurseryId, stationId: row.id, ...r, flag: null })))
      .onConflictDoNothing();
  if (fresh.length === 0) return { hours: 0, flagged: 0, since: null };
  const since = isoOf(dayOf(fresh[0].hour.slice(0, 10)) - RECHECK_DAYS);
  return { hours: fresh.length, flagged: await recheck(work, row.id, since), since };
}

/** Looks readings since a day over again, as new ones may tell of old ones. @returns how many are doubted */
async function recheck({ tx, nurseryId }: Work, stationId: string, since: string): Promise<number> {
  const readings = await readingsOf({ tx, nurseryId }, stationId, since, '9999');
  const flags = checkReadings(readings);
  const changed = readings.map((r, i) => ({ ...r, now: flags[i] })).filter((r) => r.now !== r.flag);
  if (changed.length)
    await tx.$client.query(
      `update station_reading r set flag = t.flag from unnest($3::text[], $4::text[]) as t(hour, flag)
       where r.nursery_id = $1 and r.station_id = $2 and r.hour = t.hour`,
      [nurseryId, stationId, changed.map((r) => r.hour), changed.map((r) => r.now)],
    );
  return flags.filter(Boolean).length;
}

export async function readingsOf(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  stationId: string,
  from: string,
  to: string,
): Promise<(HourReading & { flag: ReadingFlag | null })[]> {
  const rows = await tx
    .select()
    .from(stationReading)
    .where(
      and(
        eq(stationReading.nurseryId, nurseryId),
        eq(stationReading.stationId, stationId),
        between(stationReading.hour, `${from}T00`, `${to}T99`),
      ),
    )
    .orderBy(asc(stationReading.hour));
  return rows.map(({ hour, tempC, rainMm, humidity, windMs, flag }) => ({
    hour,
    tempC,
    rainMm,
    humidity,
    windMs,
    flag,
  }));
}

async function keepDays(work: Work, stationId: string, since: string): Promise<number> {
  const readings = await readingsOf(work, stationId, since, '9999');
  const { days, thin } = daysFromReadings(
    readings,
    readings.map((r) => r.flag),
  );
  const { tx, nurseryId } = work;
  const round = (value: number | null) => (value === null ? null : Math.round(value * 100) / 100);
  const { rowCount } = await tx.$client.query(
    `insert into weather_day (nursery_id, day, t_min_c, t_max_c, rain_mm, humidity, wind_ms, station_id)
     select $1, d.*, $8 from unnest($2::date[], $3::float8[], $4::float8[], $5::float8[], $6::float8[], $7::float8[]) as d
     on conflict (nursery_id, day) do update set
       humidity = excluded.humidity, wind_ms = excluded.wind_ms,
       t_min_c = case when weather_day.station_id is null then weather_day.t_min_c else excluded.t_min_c end,
       t_max_c = case when weather_day.station_id is null then weather_day.t_max_c else excluded.t_max_c end,
       rain_mm = case when weather_day.station_id is null then weather_day.rain_mm else excluded.rain_mm end`,
    [
      nurseryId,
      days.map((d) => d.date),
      days.map((d) => round(d.tMinC)),
      days.map((d) => round(d.tMaxC)),
      days.map((d) => round(d.rainMm)),
      days.map((d) => round(d.humidity)),
      days.map((d) => round(d.windMs)),
      stationId,
    ],
  );
  // A day of this station whose hours turned out doubtful is a gap, not a wrong day.
  if (thin.length)
    await tx.$client.query(
      'delete from weather_day where nursery_id = $1 and station_id = $2 and day = any($3::date[])',
      [nurseryId, stationId, thin.map((t) => t.date)],
    );
  return rowCount ?? 0;
}

async function skyOf({ tx, nurseryId, today }: Work, row: Row, from: string): Promise<StationSky> {
  const [{ latitudeDeg, elevationM }] = await tx.select().from(nursery).where(eq(nursery.id, nurseryId));
  const days = await tx
    .select()
    .from(weatherDay)
    .where(and(eq(weatherDay.nurseryId, nurseryId), between(weatherDay.day, from, today)));
  return {
    latitudeDeg,
    elevationM,
    under: await coverKindOf({ tx, nurseryId }, row.coverId),
    days: days.map(({ day, tMinC, tMaxC, rainMm }) => ({ day, tMinC, tMaxC, rainMm })),
  };
}

async function coverKindOf(
  work: Pick<Work, 'tx' | 'nurseryId'>,
  coverId: string | null,
): Promise<CoverKind | null> {
  if (coverId === null) return null;
  const { value } = await readValue(work, 'climate');
  return (value as Climate).covers.find((c) => c.id === coverId)?.kind ?? 'other';
}

async function lastHourOf({ tx, nurseryId }: Work, stationId: string): Promise<string | null> {
  const { rows } = await tx.$client.query<{ last: string | null }>(
    'select max(hour) as last from station_reading where nursery_id = $1 and station_id = $2',
    [nurseryId, stationId],
  );
  return rows[0].last;
}

function hourAfter(hour: string): string {
  const h = Number(hour.slice(11));
  return h < 23
    ? `${hour.slice(0, 11)}${String(h + 1).padStart(2, '0')}`
    : `${isoOf(dayOf(hour.slice(0, 10)) + 1)}T00`;
}
