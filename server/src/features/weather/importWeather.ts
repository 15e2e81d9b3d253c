import { Unfit, say } from '@kauri/core';
import { readStationDay, type StationDay } from '@kauri/core';
import type { ImportReport, QueryOf } from '@kauri/core/contract';
import type { Request, Response } from 'express';
import { v7 as newId } from 'uuid';
import { note } from '../../db/journal';
import type { Work } from '../../http/context';
import { daysBefore, keepTaken } from './tablesTaken';
import { tableLines, tellStored } from '../../http/tableStream';
import { ImportTally } from './importReport';

/** Days stored at once: others have their turn between. */
const BATCH = 2000;

/** Checks a station's table, and unless only checking, stores its good days: all of them or none. */
export async function importWeather(
  work: Work,
  columns: QueryOf<'importWeather'>,
  req: Request,
  res: Response,
): Promise<ImportReport> {
  const tally = new ImportTally();
  const days = new Map<string, StationDay>();
  const lineOf = new Map<string, number>();
  for await (const { line, cells } of tableLines(req, res)) {
    tally.lines++;
    try {
      const day = readStationDay(cells, columns);
      if (day.date > work.today) throw new Unfit(say`${day.date} is still to come.`);
      const before = lineOf.get(day.date);
      if (before !== undefined)
        throw new Unfit(say`${day.date} was already given on line ${before}; the first is kept.`);
      days.set(day.date, day);
      lineOf.set(day.date, line);
      tally.good++;
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      tally.fault(line, error.message);
    }
  }
  const id = columns.check ? null : newId();
  const report = tally.report([...days.keys()], id, true);
  if (id !== null) {
    const taken = [...days.values()];
    const before = await daysBefore(work, taken);
    await storeDays(work, taken, (share) => tellStored(res, share));
    await keepTaken(work, id, 'weather', report, {
      days: taken.map((day) => [day.date, before.get(day.date) ?? null, [day.tMinC, day.tMaxC, day.rainMm]]),
    });
    await note(work, 'import weather', id, null, {
      good: report.good,
      bad: report.bad,
      first: report.first,
      last: report.last,
    });
  }
  return report;
}

/**
 * Stores days of weather, replacing what was kept for the same dates.
 * @param told of the share stored, between one batch and the next
 */
export async function storeDays(
  work: Work,
  days: readonly StationDay[],
  told: (share: number) => void = () => undefined,
): Promise<void> {
  for (let at = 0; at < days.length; at += BATCH) {
    told(at / days.length);
    const batch = days.slice(at, at + BATCH);
    await work.tx.$client.query(
      `insert into weather_day (nursery_id, day, t_min_c, t_max_c, rain_mm)
       select $1, * from unnest($2::date[], $3::float8[], $4::float8[], $5::float8[])
       on conflict (nursery_id, day) do update set t_min_c = excluded.t_min_c, t_max_c = excluded.t_max_c, rain_mm = excluded.rain_mm`,
      [
        work.nurseryId,
        batch.map((d) => d.date),
        batch.map((d) => d.tMinC),
        batch.map((d) => d.tMaxC),
        batch.map((d) => d.rainMm),
      ],
    );
  }
  told(1);
}
