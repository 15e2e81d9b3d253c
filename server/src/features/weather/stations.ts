import {
  dayOf,
  daysFromReadings,
  daysLeftOut,
  FEWEST_HOURS,
  fitCover,
  isoOf,
  type CoverFit,
  type ReadingFlag,
  say,
} from '@kauri/core';
import type { Climate, Station } from '@kauri/core/contract';
import { note } from '../../db/journal';
import { station } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { readValue } from '../../nursery/values';
import type { StationFault } from '../../standins/station';
import { readingsOf } from './readings';
import { StationLink } from './stationLink';
import { READ_BACK_DAYS, stationRow, stationRows } from './stationRows';

export async function addStation(
  work: Work,
  body: { id: string; name: string; coverId: string | null },
): Promise<void> {
  const { value } = await readValue(work, 'climate');
  if (body.coverId !== null && !(value as Climate).covers.some((c) => c.id === body.coverId))
    throw new Refusal(422, 'missing', say`There is no such cover in this nursery.`);
  await work.tx.insert(station).values({ nurseryId: work.nurseryId, ...body });
  await note(work, 'add a station', body.id, null, body);
}

export async function failStation(work: Work, url: string, id: string, fault: StationFault): Promise<void> {
  const row = await stationRow(work, id);
  await new StationLink(url, row.name, id).fail(fault);
}

/** How each station has been doing, in three queries however many hours they kept. */
export async function stationsOf(work: Pick<Work, 'tx' | 'nurseryId'>, today: string): Promise<Station[]> {
  const { tx, nurseryId } = work;
  const rows = await stationRows(work);
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
      say`${row.name} stands in the open; a cover is fitted from a logger under it.`,
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
