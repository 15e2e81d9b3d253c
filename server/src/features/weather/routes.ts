import type { ImportReport } from '@kauri/core/contract';
import Papa from 'papaparse';
import { answerTableOnce } from '../../http/receipts';
import { digestOfTable } from '../../http/tableStream';
import type { Handlers } from '../../http/context';
import { workOf } from '../../nursery/work';
import { importMeasurements } from './importMeasurements';
import { importWeather } from './importWeather';
import { tablesTaken, takeTableBack } from './tablesTaken';
import { daysOf, toColumns } from './weatherDays';

export const weatherHandlers: Pick<
  Handlers,
  | 'weather'
  | 'tablesTaken'
  | 'takeTableBack'
  | 'importWeather'
  | 'exportWeather'
  | 'importMeasurements'
  | 'exportMeasurements'
> = {
  weather: async ({ tx, nurseryId }) => toColumns(await daysOf(tx, nurseryId)),

  tablesTaken: (call) => tablesTaken(call),

  async takeTableBack(call) {
    const counts = await takeTableBack(await workOf(call), call.params.table);
    return { ...(await tablesTaken(call)), ...counts };
  },

  async importWeather(call) {
    return { report: await importWeather(await workOf(call), call.query, call.req, call.res) };
  },

  async exportWeather({ tx, nurseryId, res }) {
    const rows = await daysOf(tx, nurseryId);
    res.setHeader('Content-Disposition', 'attachment; filename="weather.csv"');
    return Papa.unparse({
      fields: ['date', 'tmin_c', 'tmax_c', 'rain_mm'],
      data: rows.map((row) => [row.day, row.t_min_c, row.t_max_c, row.rain_mm]),
    });
  },

  async importMeasurements(call) {
    const work = await workOf(call);
    const read = () => importMeasurements(work, call.query, call.req, call.res);
    if (call.query.check) return { report: (await read()).answer };
    const { id } = call.query;
    const once = {
      tx: call.tx,
      nurseryId: call.nurseryId,
      id,
      route: 'importMeasurements',
      bodyHash: JSON.stringify(call.query),
    };
    return {
      report: await answerTableOnce<ImportReport>(once, read, () => digestOfTable(call.req, call.res)),
    };
  },

  async exportMeasurements({ tx, nurseryId, res }) {
    const { rows } = await tx.$client.query<{
      code: string;
      on_date: string;
      values: { heightsCm: number[]; diametersMm: number[] };
    }>(
      `select l.code, o.on_date, o.values from observation o
       join lot l on l.nursery_id = o.nursery_id and l.id = o.lot_id
       where o.nursery_id = $1 and o.kind = 'size' and o.struck_at is null order by l.code, o.on_date, o.id`,
      [nurseryId],
    );
    const data = rows.flatMap(({ code, on_date, values: { heightsCm, diametersMm } }) =>
      Array.from({ length: Math.max(heightsCm.length, diametersMm.length) }, (_, i) => [
        code,
        on_date,
        heightsCm[i] ?? '',
        diametersMm[i] ?? '',
      ]),
    );
    res.setHeader('Content-Disposition', 'attachment; filename="measurements.csv"');
    return Papa.unparse(
      { fields: ['lot', 'date', 'height_cm', 'diameter_mm'], data },
      { escapeFormulae: true },
    );
  },
};
