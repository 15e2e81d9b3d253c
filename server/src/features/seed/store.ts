import { Unfit, say, word } from '@kauri/core';
import {
  dayOf,
  mustAgree,
  mustBeTest,
  mustHold,
  readGermination,
  seedHeld,
  takenByCount,
  takenByMass,
  type SeedHeld,
} from '@kauri/core';
import type { BodyOf, SeedReason } from '@kauri/core/contract';
import { and, desc, eq } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { note } from '../../db/journal';
import { seedLot, seedMove, seedRecord, treatment } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { locked, mustBeDay, mustBeFresh } from './room';

type SeedLotRow = typeof seedLot.$inferSelect;

/** What lies in a bag now. The bag must be locked. */
async function heldOf({ tx, nurseryId }: Work, seedLotId: string): Promise<SeedHeld> {
  const moves = await tx
    .select({ grams: seedMove.grams, seeds: seedMove.seeds })
    .from(seedMove)
    .where(and(eq(seedMove.nurseryId, nurseryId), eq(seedMove.seedLotId, seedLotId)));
  return seedHeld(moves);
}

interface Moving {
  on: string;
  grams: number;
  seeds: number;
  why: SeedReason;
  note?: string;
}

async function move({ tx, nurseryId }: Work, seedLotId: string, { on, ...moving }: Moving): Promise<void> {
  await tx.insert(seedMove).values({ nurseryId, id: newId(), seedLotId, onDate: on, ...moving });
}

/** Takes seed out of a locked bag. @throws Unfit when it does not hold so much */
async function takeSeed(work: Work, lot: SeedLotRow, taken: Moving): Promise<void> {
  mustHold(await heldOf(work, lot.id), taken, lot.code);
  await move(work, lot.id, { ...taken, grams: -taken.grams, seeds: -taken.seeds });
}

/** Takes a mass of seed out of a locked bag, by the bag's own seeds a gram. @returns what went out */
export async function takeMass(
  work: Work,
  lot: SeedLotRow,
  grams: number,
  move: Pick<Moving, 'on' | 'why' | 'note'>,
): Promise<{ grams: number; seeds: number }> {
  const taken = takenByMass(await heldOf(work, lot.id), grams, lot.seedsPerKg);
  await takeSeed(work, lot, { ...taken, ...move });
  return taken;
}

/** Takes some seeds out of a locked bag. */
async function takeCount(
  work: Work,
  lot: SeedLotRow,
  seeds: number,
  move: Pick<Moving, 'on' | 'why' | 'note'>,
): Promise<void> {
  const taken = takenByCount(await heldOf(work, lot.id), seeds, lot.seedsPerKg);
  await takeSeed(work, lot, { ...taken, ...move });
}

/** Seeds of a mass at a lot's seeds a kilogram. */
const seedsOf = (grams: number, seedsPerKg: number) => Math.round((grams / 1000) * seedsPerKg);

function mustBeReceivable(work: Work, body: Pick<BodyOf<'receiveSeed'>, 'collectedOn' | 'receivedOn'>): void {
  mustBeDay(work, body.receivedOn, body.collectedOn, say`It was collected`);
}

export async function receiveSeed(work: Work, body: BodyOf<'receiveSeed'>): Promise<void> {
  mustBeReceivable(work, body);
  const { id, grams, seeds, ...values } = body;
  if (seeds !== null) mustAgree(grams, seeds, values.seedsPerKg);
  await work.tx.insert(seedLot).values({ nurseryId: work.nurseryId, id, ...values });
  await move(work, id, {
    on: body.receivedOn,
    grams,
    seeds: seeds ?? seedsOf(grams, values.seedsPerKg),
    why: 'received',
  });
  await note(work, 'receive seed', id, null, body);
}

export async function importSeedLots(work: Work, { lots }: BodyOf<'importSeedLots'>): Promise<void> {
  for (const [i, body] of lots.entries()) {
    try {
      await receiveSeed(work, body);
    } catch (error) {
      // The line is named; whatever came before is rolled back with it.
      if (error instanceof Unfit || error instanceof Refusal)
        throw new Refusal(422, 'invalid', say`Line ${i + 1}, ${body.code}: ${error.message}`);
      throw error;
    }
  }
}

export async function editSeedLot(work: Work, id: string, body: BodyOf<'editSeedLot'>): Promise<void> {
  const before = await locked(work, seedLot, id, say`seed lot`);
  const { version, ...values } = body;
  mustBeFresh(before, version);
  mustBeReceivable(work, body);
  await work.tx
    .update(seedLot)
    .set({ ...values, version: version + 1 })
    .where(and(eq(seedLot.nurseryId, work.nurseryId), eq(seedLot.id, id)));
  await note(work, 'change seed lot', id, before, body);
}

/** Takes seed out, adds to it, or sets what a new weighing found. */
export async function moveSeed(work: Work, id: string, body: BodyOf<'moveSeed'>): Promise<void> {
  const lot = await locked(work, seedLot, id, say`seed lot`);
  mustBeDay(work, body.on, lot.receivedOn, say`It was received`);
  const seeds = body.seeds ?? seedsOf(body.grams, lot.seedsPerKg);
  const { on, grams, why } = body;
  if (why !== 'counted' && !(grams > 0)) throw new Unfit(say`Give the mass, in grams.`);
  if (body.seeds !== null) mustAgree(grams, seeds, lot.seedsPerKg);
  const held = await heldOf(work, id);
  if (why === 'counted')
    await move(work, id, { on, grams: grams - held.grams, seeds: seeds - held.seeds, why, note: body.note });
  else if (why === 'received') await move(work, id, { on, grams, seeds, why, note: body.note });
  else if (body.seeds === null) await takeMass(work, lot, grams, { on, why, note: body.note });
  else await takeSeed(work, lot, { on, grams, seeds, why, note: body.note });
  await note(work, 'move seed', id, held, body);
}

/** Records a test; the seeds a germination or cut test used up leave the bag. */
export async function testSeed(work: Work, id: string, body: BodyOf<'testSeed'>): Promise<void> {
  const lot = await locked(work, seedLot, id, say`seed lot`);
  const since = lot.collectedOn ?? lot.receivedOn;
  mustBeTest({ day: dayOf(body.on), kind: body.kind, n: body.n, k: body.k }, dayOf(since));
  mustBeDay(work, body.on, since, say`It was collected`);
  if (body.counts.length) {
    const reading = readGermination(body.counts, body.n, body.daysRun ?? 730);
    if (reading.k !== body.k)
      throw new Unfit(say`The daily counts come to ${reading.k}, but ${body.k} are given as germinated.`);
  }
  const { id: recordId, on, note: words, kind, n, k, daysRun, counts } = body;
  if (kind !== 'float') await takeCount(work, lot, n, { on, why: 'tested', note: '' });
  await work.tx.insert(seedRecord).values({
    nurseryId: work.nurseryId,
    id: recordId,
    subjectId: id,
    onDate: on,
    values: { kind: 'test', test: kind, n, k, daysRun, counts },
    note: words,
  });
  await note(work, 'test seed', id, null, body);
}

/** What of the store a sowing is of. */
type OfStore = Pick<
  BodyOf<'sowLot'>,
  'code' | 'speciesId' | 'sownOn' | 'seeds' | 'seedLotId' | 'treatmentId'
>;

/** Puts the seed of a sowing that was not one back into its bag, or into its batch. */
export async function returnToStore(work: Work, sown: Omit<OfStore, 'speciesId'>): Promise<void> {
  const { code, sownOn: on, seeds, seedLotId, treatmentId } = sown;
  if (seedLotId === null) return;
  const { tx, nurseryId } = work;
  const bag = await locked(work, seedLot, seedLotId, say`seed lot`);
  if (treatmentId === null) {
    const [taken] = await tx
      .select({ grams: seedMove.grams })
      .from(seedMove)
      .where(
        and(
          eq(seedMove.nurseryId, nurseryId),
          eq(seedMove.seedLotId, seedLotId),
          eq(seedMove.why, 'sown'),
          eq(seedMove.onDate, on),
          eq(seedMove.seeds, -seeds),
        ),
      )
      // Its code may have been corrected since.
      .orderBy(desc(eq(seedMove.note, code)))
      .limit(1);
    const grams = taken ? -taken.grams : (seeds / bag.seedsPerKg) * 1000;
    await move(work, seedLotId, { on, grams, seeds, why: 'returned', note: code });
    return;
  }
  const batch = await locked(work, treatment, treatmentId, 'batch');
  if (batch.state === 'ended')
    throw new Refusal(
      409,
      'ended',
      say`The seed of ${code} came from ${batch.name}, which was ended on ${batch.endedOn}: it cannot go back there.`,
    );
  const gramsEach = batch.seeds > 0 ? batch.grams / batch.seeds : 1000 / bag.seedsPerKg;
  await tx
    .update(treatment)
    .set({
      seeds: batch.seeds + seeds,
      grams: batch.grams + seeds * gramsEach,
      state: 'under way',
      endedOn: null,
      version: batch.version + 1,
    })
    .where(and(eq(treatment.nurseryId, nurseryId), eq(treatment.id, treatmentId)));
}

/** Takes the seed of a sowing out of its bag, or marks its batch as sown. */
export async function takeFromStore(work: Work, body: OfStore): Promise<void> {
  if (body.seedLotId === null) {
    if (body.treatmentId !== null)
      throw new Refusal(422, 'invalid', say`A treated batch belongs to a seed lot: choose the lot as well.`);
    return;
  }
  const lot = await locked(work, seedLot, body.seedLotId, say`seed lot`);
  if (lot.speciesId !== body.speciesId)
    throw new Refusal(422, 'invalid', say`${lot.code} is seed of another species.`);
  mustBeDay(work, body.sownOn, lot.receivedOn, say`${lot.code} was received`);
  if (body.treatmentId === null) {
    await takeCount(work, lot, body.seeds, { on: body.sownOn, why: 'sown', note: body.code });
    return;
  }
  const batch = await locked(work, treatment, body.treatmentId, 'batch');
  if (batch.seedLotId !== lot.id)
    throw new Refusal(422, 'invalid', say`${batch.name} is a batch of another seed lot.`);
  if (batch.state !== 'under way')
    throw new Refusal(
      409,
      'not-enough',
      say`${batch.name} is ${word(batch.state)} already. Nothing was sown.`,
    );
  if (body.sownOn < batch.startedOn)
    throw new Refusal(
      422,
      'too-early',
      say`${batch.name} went in on ${batch.startedOn}; it cannot be sown before.`,
    );
  const left = batch.seeds - body.seeds;
  // Counting by mass is never exact: a twentieth over what was weighed in is let pass.
  if (left < -0.05 * batch.seeds)
    throw new Refusal(
      409,
      'not-enough',
      say`${body.seeds} to sow, but ${batch.name} holds about ${Math.round(batch.seeds)} seeds. Nothing was sown.`,
    );
  const done = left <= 0.02 * batch.seeds;
  await work.tx
    .update(treatment)
    .set({
      seeds: Math.max(0, left),
      grams: Math.max(0, (left / batch.seeds) * batch.grams),
      state: done ? 'sown' : 'under way',
      endedOn: done ? body.sownOn : null,
      version: batch.version + 1,
    })
    .where(and(eq(treatment.nurseryId, work.nurseryId), eq(treatment.id, batch.id)));
}
