import { Unfit } from '@kauri/core';
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

/** Samples stored at once: others have their turn between. */
const BATCH = 200;

interface Sample {
  lotId: string;
  on: string;
  heightsCm: number[];
  diametersMm: number[];
}

/** Checks a table of measured plants, and unless only checking, stores one sample a lot and day: all or none. */
export async function importMeasurements(
  work: Work,
  columns: QueryOf<'importMeasurements'>,
  req: Request,
  res: Response,
): Promise<ImportReport> {
  const rows = await work.tx
    .select({ id: lot.id, code: lot.code, sownOn: lot.sownOn })
    .from(lot)
    .where(eq(lot.nurseryId, work.nurseryId));
  const lots = new Map(rows.map((row) => [row.code.toLowerCase(), row]));
  const tally = new ImportTally();
  const samples = new Map<string, Sample>();
  for await (const { line, cells } of tableLines(req, res)) {
    tally.lines++;
    try {
      const plant = readMeasuredPlant(cells, columns);
      const known = lots.get(plant.lotCode.toLowerCase());
      if (!known) throw new Unfit(`There is no lot “${plant.lotCode.slice(0, 24)}”.`);
      if (plant.date < known.sownOn)
        throw new Unfit(`${known.code} was sown on ${known.sownOn}, after ${plant.date}.`);
      if (plant.date > work.today) throw new Unfit(`${plant.date} is still to come.`);
      const key = `${known.id} ${plant.date}`;
      const sample = samples.get(key) ?? { lotId: known.id, on: plant.date, heightsCm: [], diametersMm: [] };
      samples.set(key, sample);
      if (plant.heightCm !== null) sample.heightsCm.push(plant.heightCm);
      if (plant.diameterMm !== null) sample.diametersMm.push(plant.diameterMm);
      tally.good++;
    } catch (error) {
      if (!(error instanceof Unfit)) throw error;
      tally.fault(line, error.message);
    }
  }
  if (!columns.check) {
    const all = [...samples.values()];
    for (let at = 0; at < all.length; at += BATCH) {
      tellStored(res, at / all.length);
      const batch = all.slice(at, at + BATCH).map((sample) => ({ id: newId(), note: '', ...sample }));
      await storeSizes(work, batch);
    }
    tellStored(res, 1);
    await note(work, 'import measurements', columns.id, null, {
      good: tally.good,
      bad: tally.bad,
      samples: samples.size,
    });
  }
  return tally.report(
    [...samples.values()].map((s) => s.on),
    !columns.check,
    false,
  );
}
