import { Unfit, say, word } from '@kauri/core';
import { mustRun } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { note } from '../../db/journal';
import { seedLot, seedRecord, treatment } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { locked, mustBeDay, mustBeFresh } from './room';
import { takeMass } from './store';

/** Splits a seed lot into arms, all or none. */
export async function startTreatments(work: Work, body: BodyOf<'startTreatments'>): Promise<void> {
  const lot = await locked(work, seedLot, body.seedLotId, say`seed lot`);
  mustBeDay(work, body.startedOn, lot.collectedOn ?? lot.receivedOn, say`${lot.code} was collected`);
  for (const arm of body.arms) {
    mustRun(arm.phases);
    const { grams, seeds } = await takeMass(work, lot, arm.grams, {
      on: body.startedOn,
      why: 'treated',
      note: arm.name,
    });
    await work.tx.insert(treatment).values({
      nurseryId: work.nurseryId,
      ...arm,
      grams,
      seedLotId: lot.id,
      startedOn: body.startedOn,
      seeds,
      note: body.note,
    });
    await note(work, 'start treatment', arm.id, null, arm);
  }
}

export async function checkTreatment(work: Work, id: string, body: BodyOf<'checkTreatment'>): Promise<void> {
  const batch = await locked(work, treatment, id, 'batch');
  mustBeDay(work, body.on, batch.startedOn, say`${batch.name} went in`);
  if (body.radicles > body.n)
    throw new Unfit(say`${body.radicles} radicles in ${body.n} seeds looked at: check the two numbers.`);
  if (batch.state !== 'under way')
    throw new Refusal(
      409,
      'ended',
      say`${batch.name} is ${word(batch.state)}; there is nothing left to look at.`,
    );
  await work.tx.insert(seedRecord).values({
    nurseryId: work.nurseryId,
    id: body.id,
    subjectId: id,
    onDate: body.on,
    values: { kind: 'check', n: body.n, radicles: body.radicles },
    note: body.note,
  });
  await note(work, 'check batch', id, null, body);
}

export async function endTreatment(work: Work, id: string, body: BodyOf<'endTreatment'>): Promise<void> {
  const batch = await locked(work, treatment, id, 'batch');
  mustBeFresh(batch, body.version);
  mustBeDay(work, body.endedOn, batch.startedOn, say`${batch.name} went in`);
  await work.tx
    .update(treatment)
    .set({ state: 'ended', endedOn: body.endedOn, note: body.note, version: batch.version + 1 })
    .where(and(eq(treatment.nurseryId, work.nurseryId), eq(treatment.id, id)));
  await note(work, 'end treatment', id, batch, body);
}

/** Takes a record of the Seed station back. What a test used up stays used up. */
export async function undoSeedRecord(work: Work, recordId: string): Promise<void> {
  const struck = await work.tx
    .update(seedRecord)
    .set({ struckAt: new Date() })
    .where(
      and(eq(seedRecord.nurseryId, work.nurseryId), eq(seedRecord.id, recordId), isNull(seedRecord.struckAt)),
    )
    .returning();
  if (!struck.length) throw new Refusal(404, 'no-such-record', say`There is no such record to take back.`);
  await note(work, 'take back', struck[0].subjectId, struck[0].values, null);
}
