import {
  checkReadings,
  dayOf,
  daysFromReadings,
  daysLeftOut,
  FEWEST_HOURS,
  fitCover,
  isoOf,
  type CoverFit,
  type CoverKind,
  type HourReading,
  type ReadingFlag,
  linesOf,
} from '@kauri/core';
import { StationLine, type Climate, type Station } from '@kauri/core/contract';
import { and, asc, between, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { nursery, station, stationReading, weatherDay } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import type { StationFault, StationSky } from '../../standins/station';
import { readValue } from '../../nursery/values';

/** A station is first read this far back, and asked about missing days as far. */
const READ_BACK_DAYS = 60;
/** Readings before the new ones that are looked over again with them. */
const RECHECK_DAYS = 4;
const PATIENCE_MS = 8000;
const BATCH = 5000;

type Row = typeof station.$inferSelect;

/** Talks to one weather station over HTTP. */
class StationLink {
  constructor(
    private readonly url: string,
    private readonly name: string,
    private readonly id: string,
  ) {}

  private async ask(what: string, init?: RequestInit): Promise<Response> {
    try {
      const answer = await fetch(`${this.url}/stations/${this.id}/${what}`, {
        ...init,
        signal: AbortSignal.timeout(PATIENCE_MS),
      });
      if (!answer.ok) throw new Error(`status ${answer.status}`);
      return answer;
    } catch (cause) {
      throw new Refusal(
        503,
        'station-silent',
        `${this.name} does not answer. What was read before is kept; try again.`,
        {},
        { cause },
      );
    }
  }

  async feel(sky: StationSky): Promise<void> {
    await this.ask('sky', { method: 'PUT', body: JSON.stringify(sky) });
  }

  async fail(fault: StationFault): Promise<void> {
    await this.ask('fault', { method: 'PUT', body: JSON.stringify({ fault }) });
  }

  async *hours(from: string, to: string): AsyncGenerator<HourReading> {
    const answer = await this.ask(`hours?from=${from}&to=${to}`);
    for await (const line of linesOf(answer.body as unknown as AsyncIterable<Uint8Array>))
      yield StationLine.parse(JSON.parse(line));
  }
}

export async function rowsOf({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<Row[]> {
  return tx
    .select()
    .from(station)
    .where(eq(station.nurseryId, nurseryId))
    .orderBy(asc(station.addedAt), asc(station.id));
}

export async function addStation(
  work: Work,
  body: { id: string; name: string; coverId: string | null },
): Promise<void> {
  const { value } = await readValue(work, 'climate');
  if (body.coverId !== null && !(value as Climate).covers.some((c) => c.id === body.coverId))
    throw new Refusal(422, 'missing', 'There is no such cover in this nursery.');
  await work.tx.insert(station).values({ nurseryId: work.nurseryId, ...body });
  await note(work, 'add a station', body.id, null, body);
}

export async function failStation(work: Work, url: string, id: string, fault: StationFault): Promise<void> {
  const row = await stationRow(work, id);
  await new StationLink(url, row.name, id).fail(fault);
}

async function stationRow({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>, id: string): Promise<Row> {
  const [row] = await tx
    .select()
    .from(station)
    .where(and(eq(station.nurseryId, nurseryId), eq(station.id, id)));
  if (!row) throw new Refusal(404, 'no-such-station', 'There is no such station in this nursery.');
  return row;
}

/**
 * Reads every station up to last midnight: hours are kept as they came, looked over, and those in the open added up to
 * days of weather. A day that came by table keeps its temperatures; the station only adds humidity and wind to it.
 */
export async function readStations(
  work: Work,
  url: string,
): Promise<{ hours: number; flagged: number; days: number }> {
  const total = { hours: 0, flagged: 0, days: 0 };
  const rows = await rowsOf(work);
  if (rows.length === 0) throw new Refusal(422, 'no-station', 'There is no station yet: add one first.');
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

/** How each station has been doing, in three queries however many hours they kept. */
export async function stationsOf(work: Pick<Work, 'tx' | 'nurseryId'>, today: string): Promise<Station[]> {
  const { tx, nurseryId } = work;
  const rows = await rowsOf(work);
  const { rows: sums } = await tx.$client.query<{
    id: string;
    flag: ReadingFlag | null;
    hours: number;
    last: string;
  }>(
    `select station_id as id, flag, count(*) as hours, max(hour) as last from station_reading
     where nursery_id = $1 group by station_id, flag`,
    [nurseryId],
  );
  const from = isoOf(dayOf(today) - READ_BACK_DAYS);
  const { rows: whole } = await tx.$client.query<{ id: string; day: string }>(
    `select station_id as id, left(hour, 10) as day from station_reading
     where nursery_id = $1 and hour >= $2 and flag is null and temp_c is not null
     group by 1, 2 having count(*) >= $3`,
    [nurseryId, from, FEWEST_HOURS],
  );
  return rows.map(({ id, name, coverId }) => {
    const mine = sums.filter((s) => s.id === id);
    const lastHour =
      mine
        .map((s) => s.last)
        .sort()
        .at(-1) ?? null;
    const have = new Set(whole.filter((w) => w.id === id).map((w) => w.day));
    return {
      id,
      name,
      coverId,
      lastHour,
      silentDays: lastHour === null ? null : Math.max(0, dayOf(today) - 1 - dayOf(lastHour.slice(0, 10))),
      hours: mine.reduce((t, s) => t + s.hours, 0),
      flagged: mine.flatMap(({ flag, hours, last }) => (flag === null ? [] : [{ flag, hours, last }])),
      missing: lastHour === null ? [] : daysLeftOut(have, from, isoOf(dayOf(today) - 1)),
    };
  });
}

/** What a logger says its cover adds, over the days both it and the open were measured. */
export async function coverFitOf(work: Pick<Work, 'tx' | 'nurseryId'>, stationId: string): Promise<CoverFit> {
  const row = await stationRow(work, stationId);
  if (row.coverId === null)
    throw new Refusal(
      422,
      'invalid',
      `${row.name} stands in the open; a cover is fitted from a logger under it.`,
    );
  const readings = await readingsOf(work, stationId, '0000', '9999');
  const { days } = daysFromReadings(
    readings,
    readings.map((r) => r.flag),
  );
  const { rows } = await work.tx.$client.query<{ day: string; t_min_c: number; t_max_c: number }>(
    'select day, t_min_c, t_max_c from weather_day where nursery_id = $1 and day = any($2::date[])',
    [work.nurseryId, days.map((d) => d.date)],
  );
  const open = new Map(rows.map((r) => [r.day, { tMinC: r.t_min_c, tMaxC: r.t_max_c }]));
  return fitCover(
    days.flatMap((under) => (open.has(under.date) ? [{ open: open.get(under.date)!, under }] : [])),
  ).value;
}
