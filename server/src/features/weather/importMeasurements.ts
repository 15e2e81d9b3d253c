import { Unfit, say } from '@kauri/core';
import { readMeasuredPlant } from '@kauri/core';
import type { ImportReport, QueryOf } from '@kauri/core/contract';
import { eq } from 'drizzle-orm';
import type { Request, Response } from 'express';
import { v7 as newId } from 'uuid';
import { lot } from '../../db/schema/index';
import { note } from '../../db/journal';
import type { Work } from '../../http/context';
import { tableLines, tellStored } from '../../http/tableStream';
import { storeSizes } from '../lots/storeSizes';
import { ImportTally } from './importReport';
import { keepTaken } from './tablesTaken';

/** Samples stored at once: others have their turn between. */
const BATCH = 200;

interface Sample {
  lotId: string;
  on: string;
  heightsCm: number[];
  diametersMm: number[];
  /** Lines of the table it came from. */
  lines: number;
}

/** Checks a table of measured plants, and unless only checking, stores one sample a lot and day: all or none. */
export async function importMeasurements(
  work: Work,
  columns: QueryOf<'importMeasurements'>,
  req: Request,
  res: Response,
): Promise<{ answer: ImportReport; digest: string }> {
  const rows = await work.tx
    .select({ id: lot.id, code: lot.code, sownOn: lot.sownOn })
    .from(lot)
    .where(eq(lot.nurseryId, work.nurseryId));
  const lots = new Map(rows.map((row) => [row.code.toLowerCase(), row]));
  const tally = new ImportTally();
  const samples = new Map<string, Sample>();
  const lines = tableLines(req, res);
  let next = await lines.next();
  for (; !next.done; next = await lines.next()) {
    const { line, cells } = next.value;
    tally.lines++;
    try {
      const plant = readMeasuredPlant(cells, columns);
      const known = lots.get(plant.lotCode.toLowerCase());
      if (!known) throw new Unfit(say`There is no lot “${plant.lotCode.slice(0, 24)}”.`);
      if (plant.date < known.sownOn)
        throw new Unfit(say`${known.code} was sown on ${known.sownOn}, after ${plant.date}.`);
      if (plant.date > work.today) throw new Unfit(say`${plant.date} is still to come.`);
      const key = `${known.id} ${plant.date}`;
      const sample = samples.get(key) ?? {
        lotId: known.id,
        on: plant.date,
        heightsCm: [],
        diametersMm: [],
        lines: 0,
      };
      samples.set(key, sample);
      sample.lines++;
      if (plant.heightCm !== null) sample.heightsCm.push(plant.heightCm);
      if (plant.diameterMm !== null) sample.diametersMm.push(plant.diameterMm);
      tally.good++;
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      tally.fault(line, error.message);
    }
  }
  const { digest } = next.value;
  await leaveOutKnown(work, samples, tally);
  const answer = tally.report(
    [...samples.values()].map((s) => s.on),
    columns.check ? null : columns.id,
    false,
  );
  if (!columns.check) {
    const all = [...samples.values()].map((sample) => ({ ...sample, id: newId(), note: '' }));
    for (let at = 0; at < all.length; at += BATCH) {
      tellStored(res, at / all.length);
      const batch = all.slice(at, at + BATCH).map(({ lines: _, ...sample }) => sample);
      await storeSizes(work, batch);
    }
    tellStored(res, 1);
    await keepTaken(work, columns.id, 'measurements', answer, { samples: all.map(({ id }) => id) });
    await note(work, 'import measurements', columns.id, null, {
      good: tally.good,
      bad: tally.bad,
      samples: samples.size,
    });
  }
  return { answer, digest };
}

const inOrder = (values: readonly number[]) => [...values].sort((a, b) => a - b).join(' ');
const contentOf = ({ lotId, on, heightsCm, diametersMm }: Omit<Sample, 'lines'>) =>
  [lotId, on, inOrder(heightsCm), inOrder(diametersMm)].join('|');

/** Samples that are recorded already, plant for plant, are not recorded again: a table taken out may come back. */
async function leaveOutKnown(
  { tx, nurseryId }: Work,
  samples: Map<string, Sample>,
  tally: ImportTally,
): Promise<void> {
  const all = [...samples.values()];
  const { rows } = await tx.$client.query<{
    lot_id: string;
    on_date: string;
    values: Pick<Sample, 'heightsCm' | 'diametersMm'>;
  }>(
    `select lot_id, on_date, values from observation
     where nursery_id = $1 and kind = 'size' and struck_at is null
       and (lot_id, on_date) in (select * from unnest($2::uuid[], $3::date[]))`,
    [nurseryId, all.map((s) => s.lotId), all.map((s) => s.on)],
  );
  const kept = rows.map(({ lot_id, on_date, values }) => ({ lotId: lot_id, on: on_date, ...values }));
  // A table does not tell two samples of one lot and day apart: together they are known too.
  const days = new Map<string, Omit<Sample, 'lines'>>();
  for (const { lotId, on, heightsCm, diametersMm } of kept) {
    const before = days.get(`${lotId} ${on}`) ?? { lotId, on, heightsCm: [], diametersMm: [] };
    days.set(`${lotId} ${on}`, {
      ...before,
      heightsCm: [...before.heightsCm, ...heightsCm],
      diametersMm: [...before.diametersMm, ...diametersMm],
    });
  }
  const known = new Set([...kept, ...days.values()].map(contentOf));
  for (const [key, sample] of samples) {
    if (!known.has(contentOf(sample))) continue;
    samples.delete(key);
    tally.known += sample.lines;
    tally.good -= sample.lines;
  }
}
