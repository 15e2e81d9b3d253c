import { dayOf, isoOf, shareOverLots, startingCovers, type CareDone, type EventKind } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { recordCare } from '../features/growing/care';
import { recordEvent } from '../features/growing/events';
import { lotPage } from '../features/lots/lotRows';
import { readStations } from '../features/weather/readings';
import { stationRows } from '../features/weather/stationRows';
import { addStation, coverFitOf } from '../features/weather/stations';
import { keepValue } from '../nursery/values';
import type { Work } from '../http/context';

/** Work done to a demo lot, so many days after it came up. */
export interface DemoCare {
  lot: string;
  after: number;
  done: CareDone;
}

/** Something that befell all the demo lots of a place on a day of the northern calendar of this season. */
export interface DemoEvent {
  place: string;
  on: readonly [month: number, day: number];
  what: EventKind;
  /** Shares of what stood there. */
  hit: number;
  dead: number;
  patch: string;
  note: string;
}

/** A station in the open, and a logger under a cover over some places. */
export interface DemoClimate {
  station: string;
  logger: string;
  cover: { name: string; kind: 'tunnel' | 'shade'; places: readonly string[] };
}

/** Adds the stations, reads them from their stand-ins, and fits the cover from the logger that hangs under it. */
export async function makeStations(
  work: Work,
  { station, logger, cover }: DemoClimate,
  placeIds: ReadonlyMap<string, string>,
  stationUrl: string,
): Promise<void> {
  const coverId = newId();
  const places = cover.places.map((name) => ({ placeId: placeIds.get(name)!, coverId }));
  const base = { id: coverId, name: cover.name, kind: cover.kind };
  const starting = { ...base, ...startingCovers[cover.kind], fitted: null };
  const { version } = await keepValue(work, 'climate', null, { schema: 1, covers: [starting], places });
  await addStation(work, { id: newId(), name: station, coverId: null });
  await addStation(work, { id: newId(), name: logger, coverId });
  await readStations(work, stationUrl);
  const under = (await stationRows(work)).find((row) => row.coverId === coverId)!;
  const { lowC, highC, days, lowSd, highSd } = await coverFitOf(work, under.id);
  const round = (c: number) => Math.round(c * 100) / 100;
  const fitted = { stationId: under.id, days, lowSd: round(lowSd), highSd: round(highSd) };
  await keepValue(work, 'climate', version, {
    schema: 1,
    covers: [{ ...base, lowC: round(lowC), highC: round(highC), fitted }],
    places,
  });
}

/** Writes down the work done to lots and what befell them, as far as the season has come. */
export async function growOn(
  work: Work,
  care: readonly DemoCare[],
  events: readonly (DemoEvent & { day: number })[],
  upOn: ReadonlyMap<string, number>,
  placeIds: ReadonlyMap<string, string>,
): Promise<void> {
  const today = dayOf(work.today);
  const { lots } = await lotPage(work.tx, work.nurseryId, '', 500);
  for (const { lot, after, done } of care) {
    const row = lots.find((l) => l.code === lot);
    const up = upOn.get(lot);
    if (!row || up === undefined || up + after > today || row.held.standing === 0) continue;
    await recordCare(work, {
      id: newId(),
      on: isoOf(up + after),
      note: '',
      done: done.what === 'stake' ? { ...done, staked: Math.min(done.staked, row.held.standing) } : done,
      lots: [{ id: newId(), lotId: row.id }],
    });
  }
  for (const { place, day, what, hit, dead, patch, note } of events) {
    if (day > today) continue;
    const there = lots.filter(
      (l) =>
        l.stage.placeId === placeIds.get(place) &&
        dayOf(l.sownOn) < day &&
        l.held.standing > 0 &&
        (upOn.get(l.code) ?? Infinity) < day - 20,
    );
    const standing = there.map((l) => ({ lotId: l.id, standing: l.held.standing }));
    const all = standing.reduce((t, l) => t + l.standing, 0);
    const shares = shareOverLots(standing, Math.round(all * hit), Math.round(all * dead)).filter(
      (l) => l.hit > 0,
    );
    if (shares.length === 0) continue;
    await recordEvent(work, {
      id: newId(),
      on: isoOf(day),
      note,
      what,
      patch,
      photos: [],
      lots: shares.map((share) => ({ id: newId(), ...share })),
    });
  }
}
