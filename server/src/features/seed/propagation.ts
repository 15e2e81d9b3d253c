import { cuttingLength, mustFitBranch, ringLength, say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { note } from '../../db/journal';
import { layer, seedRecord, stockBed } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { beginStanding } from '../lots/beginStanding';
import { storeSizes } from '../lots/storeSizes';
import { locked, mustBeDay, mustBeFresh } from './room';

export async function addStockBed(work: Work, body: BodyOf<'addStockBed'>): Promise<void> {
  mustBeDay(work, body.plantedOn, null, '');
  await work.tx.insert(stockBed).values({ nurseryId: work.nurseryId, ...body });
  await note(work, 'add stock bed', body.id, null, body);
}

export async function editStockBed(work: Work, id: string, body: BodyOf<'editStockBed'>): Promise<void> {
  const before = await locked(work, stockBed, id, say`stock bed`);
  const { version, ...values } = body;
  mustBeFresh(before, version);
  mustBeDay(work, body.plantedOn, null, '');
  await work.tx
    .update(stockBed)
    .set({ ...values, version: version + 1 })
    .where(and(eq(stockBed.nurseryId, work.nurseryId), eq(stockBed.id, id)));
  await note(work, 'change stock bed', id, before, body);
}

export async function cutStockBed(work: Work, id: string, body: BodyOf<'cutStockBed'>): Promise<void> {
  const bed = await locked(work, stockBed, id, say`stock bed`);
  mustBeDay(work, body.on, bed.plantedOn, say`${bed.name} was planted`);
  cuttingLength({ nodes: body.nodes, internodeMm: 1 });
  const { id: recordId, on, note: words, kind: cutting, ...values } = body;
  await work.tx.insert(seedRecord).values({
    nurseryId: work.nurseryId,
    id: recordId,
    subjectId: id,
    onDate: on,
    values: { kind: 'cut', cutting, ...values },
    note: words,
  });
  await note(work, 'cut stock bed', id, null, body);
}

export async function makeLayer(work: Work, body: BodyOf<'makeLayer'>): Promise<void> {
  mustBeDay(work, body.madeOn, null, '');
  // The branch must suit layering at all; the ring is the grower's own, if it fits.
  ringLength(body.branchMm, Infinity);
  mustFitBranch(body.ringMm, body.freeMm);
  await work.tx.insert(layer).values({ nurseryId: work.nurseryId, ...body });
  await note(work, 'make layer', body.id, null, body);
}

export async function checkLayer(work: Work, id: string, body: BodyOf<'checkLayer'>): Promise<void> {
  const row = await locked(work, layer, id, 'layer');
  mustBeDay(work, body.on, row.madeOn, say`The layer was made`);
  if (row.severedOn !== null)
    throw new Refusal(
      409,
      'ended',
      say`That layer was severed on ${row.severedOn}; nothing is left to look at.`,
    );
  await work.tx.insert(seedRecord).values({
    nurseryId: work.nurseryId,
    id: body.id,
    subjectId: id,
    onDate: body.on,
    values: { kind: 'look', roots: body.roots },
    note: body.note,
  });
  await note(work, 'check layer', id, null, body);
}

export async function severLayer(work: Work, id: string, body: BodyOf<'severLayer'>): Promise<void> {
  const before = await locked(work, layer, id, 'layer');
  mustBeFresh(before, body.version);
  mustBeDay(work, body.severedOn, before.madeOn, say`The layer was made`);
  const { severedOn, outcome, potL, note: words, lot } = body;
  if (lot && outcome !== 'rooted')
    throw new Refusal(422, 'invalid', say`A layer that failed gives no plant to follow.`);
  await work.tx
    .update(layer)
    .set({ severedOn, outcome, potL, note: words, version: before.version + 1 })
    .where(and(eq(layer.nurseryId, work.nurseryId), eq(layer.id, id)));
  if (lot) await pot(work, before, body, lot);
  await note(work, 'sever layer', id, before, body);
}

/** The severed plant as a lot of one tree. */
async function pot(
  work: Work,
  { id: layerId, speciesId, tree, branchMm }: typeof layer.$inferSelect,
  { severedOn }: BodyOf<'severLayer'>,
  { id, code, heightCm, stage }: NonNullable<BodyOf<'severLayer'>['lot']>,
): Promise<void> {
  await beginStanding(work, {
    values: {
      id,
      code,
      speciesId,
      sownOn: severedOn,
      seedState: 'ready',
      origin: 'layer',
      layerId,
      note: say`Layered on ${tree}.`,
    },
    count: 1,
    stage,
  });
  // Its collar is the branch's: a layer does not begin as a seedling.
  await storeSizes(work, [
    {
      id: newId(),
      lotId: id,
      on: severedOn,
      heightsCm: heightCm === null ? [] : [heightCm],
      diametersMm: [branchMm],
      note: '',
    },
  ]);
  await note(work, 'pot layer', id, null, { layerId, code });
}
