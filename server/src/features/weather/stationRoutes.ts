import { dayOf, say } from '@kauri/core';
import type { Climate, KeptClimate } from '@kauri/core/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { place } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import type { Handlers } from '../../http/context';
import { workOf } from '../../nursery/work';
import { keepValue, readValue } from '../../nursery/values';
import { readingsOf, readStations } from './readings';
import { addStation, coverFitOf, failStation, stationsOf } from './stations';
import { daysOf, toColumns } from './weatherDays';

/** Longest stretch of raw readings sent at once, days. */
const MOST_RAW_DAYS = 62;

type Names =
  | 'climate'
  | 'setClimate'
  | 'stations'
  | 'addStation'
  | 'readStations'
  | 'rawReadings'
  | 'failStation'
  | 'coverFit';

export const stationHandlers: Pick<Handlers, Names> = {
  async climate(call) {
    const { version, value } = await readValue(call, 'climate');
    return { version, climate: value } as KeptClimate;
  },
  async setClimate(call) {
    const work = await workOf(call);
    const { version, climate } = call.body;
    await placesMustBeOurs(work, climate);
    const kept = await keepValue(work, 'climate', version, climate);
    return { version: kept.version, climate: kept.value };
  },
  async stations(call) {
    return { stations: await stationsOf(call, (await workOf(call)).today) };
  },
  async addStation(call) {
    const work = await workOf(call);
    await addStation(work, call.body);
    return { stations: await stationsOf(work, work.today) };
  },
  async readStations(call) {
    const work = await workOf(call);
    const read = await readStations(work, call.server.stationUrl);
    return {
      ...read,
      stations: await stationsOf(work, work.today),
      weather: toColumns(await daysOf(call.tx, call.nurseryId)),
    };
  },
  async rawReadings(call) {
    const { from, to } = call.query;
    if (dayOf(to) - dayOf(from) > MOST_RAW_DAYS)
      throw new Refusal(422, 'invalid', say`At most ${MOST_RAW_DAYS} days of hourly readings at once.`);
    return { readings: await readingsOf(call, call.params.station, from, to) };
  },
  async failStation(call) {
    await failStation(await workOf(call), call.server.stationUrl, call.params.station, call.body.fault);
    return { done: true };
  },
  coverFit: async (call) => ({ fit: await coverFitOf(call, call.params.station) }),
};

async function placesMustBeOurs({ tx, nurseryId }: Work, { places }: Climate): Promise<void> {
  const ids = [...new Set(places.map((p) => p.placeId))];
  if (ids.length < places.length)
    throw new Refusal(422, 'invalid', say`A place stands under one cover at most.`);
  if (ids.length === 0) return;
  const known = await tx
    .select({ id: place.id })
    .from(place)
    .where(and(eq(place.nurseryId, nurseryId), inArray(place.id, ids)));
  if (known.length < ids.length)
    throw new Refusal(422, 'no-such-place', say`A place named is not in this nursery.`);
}
