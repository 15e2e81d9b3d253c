import { say } from '@kauri/core';
import type { KeptWater, Programme, Watering } from '@kauri/core/contract';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { place, waterReading } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import type { waterRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { keepValue, readValue } from '../../nursery/values';
import { ControllerLink, readFrom, skyOver } from './controller';

export const waterHandlers: HandlersOf<typeof waterRoutes> = {
  async water(call) {
    const { version, value } = await readValue(call, 'water');
    return { version, plan: value } as KeptWater;
  },
  async setWater(call) {
    const work = await workOf(call);
    const { version, plan } = call.body;
    await mustBeOurs(
      work,
      [...plan.drips.map((d) => d.placeId), ...plan.zones.flatMap((z) => z.placeIds)],
      say`The water plan names a place that is not in this nursery.`,
    );
    const kept = await keepValue(work, 'water', version, plan);
    return { version: kept.version, plan: kept.value };
  },
  watering: (call) => wateringOf(call),
  async sendProgramme(call) {
    const work = await workOf(call);
    await mustBeOurs(
      work,
      call.body.zones.flatMap((z) => z.places.map((p) => p.placeId)),
      say`The programme names a place that is not in this nursery.`,
    );
    await keepValue(work, 'programme', null, call.body);
    await new ControllerLink(call.server.irrigationUrl, call.nurseryId).sendProgramme(call.body);
    return wateringOf(call);
  },
  readController: async (call) =>
    readInto(await workOf(call), new ControllerLink(call.server.irrigationUrl, call.nurseryId)),
  async failStandIn(call) {
    const { placeId, fault } = call.body;
    if (placeId)
      await mustBeOurs(await workOf(call), [placeId], say`There is no such place in this nursery.`);
    await new ControllerLink(call.server.irrigationUrl, call.nurseryId).fail(placeId, fault);
    return { done: true };
  },
};

/** Reads the controller up to today and keeps what it says; a day read again is the later reading. */
export async function readInto(work: Work, link: ControllerLink): Promise<Watering> {
  const { tx, nurseryId, today } = work;
  const { value: programme } = await readValue(work, 'programme');
  if (!programme)
    throw new Refusal(422, 'no-programme', say`The controller has no programme yet: set zones and send one.`);
  const from = readFrom(programme, today);
  const rows = await link.read(programme, await skyOver(tx, nurseryId, programme.from, today), from, today);
  const known = await ours(work, [...new Set(rows.map((r) => r.placeId))]);
  const kept = rows.filter((r) => known.has(r.placeId)).map((r) => ({ nurseryId, ...r }));
  for (let i = 0; i < kept.length; i += 500)
    await tx
      .insert(waterReading)
      .values(kept.slice(i, i + 500))
      .onConflictDoUpdate({
        target: [waterReading.nurseryId, waterReading.placeId, waterReading.day],
        set: {
          askedLitres: sql`excluded.asked_litres`,
          litres: sql`excluded.litres`,
          before: sql`excluded.before`,
          after: sql`excluded.after`,
        },
      });
  return wateringOf(work);
}

async function wateringOf(work: Pick<Work, 'tx' | 'nurseryId'>): Promise<Watering> {
  const { value: programme } = await readValue(work, 'programme');
  const rows = await work.tx
    .select()
    .from(waterReading)
    .where(eq(waterReading.nurseryId, work.nurseryId))
    .orderBy(asc(waterReading.placeId), asc(waterReading.day));
  return {
    programme: programme as Programme | null,
    readings: rows.map(({ placeId, day, askedLitres, litres, before, after }) => ({
      placeId,
      day,
      askedLitres,
      litres,
      before,
      after,
    })),
  };
}

async function ours({ tx, nurseryId }: Work, ids: readonly string[]): Promise<Set<string>> {
  if (!ids.length) return new Set();
  const rows = await tx
    .select({ id: place.id })
    .from(place)
    .where(and(eq(place.nurseryId, nurseryId), inArray(place.id, [...ids])));
  return new Set(rows.map((r) => r.id));
}

async function mustBeOurs(work: Work, ids: readonly string[], sentence: string): Promise<void> {
  const known = await ours(work, ids);
  if (ids.some((id) => !known.has(id))) throw new Refusal(422, 'no-such-place', sentence);
}
