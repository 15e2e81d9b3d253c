import { dayOf, HEAT_DAYS, isoOf, type EpochDay, type HeatDay, type WeatherSeries } from '@kauri/core';
import type { WeatherColumns } from '@kauri/core/contract';
import type { Tx } from '../../db/tenant';

interface DayRow {
  day: string;
  t_min_c: number;
  t_max_c: number;
  rain_mm: number | null;
  humidity: number | null;
  wind_ms: number | null;
}

/** Every day of weather a nursery has, oldest first. */
export async function daysOf(tx: Tx, nurseryId: string): Promise<DayRow[]> {
  const { rows } = await tx.$client.query<DayRow>(
    'select day, t_min_c, t_max_c, rain_mm, humidity, wind_ms from weather_day where nursery_id = $1 order by day',
    [nurseryId],
  );
  return rows;
}

export function toColumns(rows: readonly DayRow[]): WeatherColumns {
  if (rows.length === 0) return { start: null, tMinC: [], tMaxC: [], rainMm: [], humidity: [], windMs: [] };
  const start = dayOf(rows[0].day);
  const length = dayOf(rows[rows.length - 1].day) - start + 1;
  const blank = () => new Array<number | null>(length).fill(null);
  const columns = {
    start: isoOf(start),
    tMinC: blank(),
    tMaxC: blank(),
    rainMm: blank(),
    humidity: blank(),
    windMs: blank(),
  };
  for (const row of rows) {
    const at = dayOf(row.day) - start;
    columns.tMinC[at] = row.t_min_c;
    columns.tMaxC[at] = row.t_max_c;
    columns.rainMm[at] = row.rain_mm;
    columns.humidity[at] = row.humidity;
    columns.windMs[at] = row.wind_ms;
  }
  return columns;
}

/** The weather as the core reads it; NaN where nothing was measured. */
export async function seriesOf(tx: Tx, nurseryId: string): Promise<WeatherSeries> {
  const { start, tMinC, tMaxC, rainMm } = toColumns(await daysOf(tx, nurseryId));
  const numbers = (values: readonly (number | null)[]) => Float64Array.from(values, (v) => v ?? NaN);
  return {
    start: start === null ? 0 : dayOf(start),
    tMinC: numbers(tMinC),
    tMaxC: numbers(tMaxC),
    rainMm: numbers(rainMm),
  };
}

/** The days measured last up to one, as plantings in guards need them. */
export async function heatDaysOf(tx: Tx, nurseryId: string, day: EpochDay): Promise<HeatDay[]> {
  const { rows } = await tx.$client.query<DayRow>(
    'select day, t_min_c, t_max_c from weather_day where nursery_id = $1 and day > $2 and day <= $3',
    [nurseryId, isoOf(day - HEAT_DAYS), isoOf(day)],
  );
  return rows.map((row) => ({ day: dayOf(row.day), tMinC: row.t_min_c, tMaxC: row.t_max_c }));
}
