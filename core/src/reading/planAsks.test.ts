import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import type { PlannedSowing, SeedRoom, Species } from '../contract';
import { speciesLibrary } from '../species/speciesLibrary';
import { planAsks } from './planAsks';
import { treatmentDays } from './routeLot';

const hornbeam = { id: 'cbe', ...speciesLibrary.find(({ code }) => code === 'CBE')! } as unknown as Species;
const species = new Map([['cbe', hornbeam]]);
const days = treatmentDays(hornbeam);
const FROM = '2027-09-06';
const begins = dayOf(FROM) - days;
const sowing = (id: string, more: Partial<PlannedSowing> = {}): PlannedSowing =>
  ({
    id,
    lineId: 'line',
    speciesId: 'cbe',
    route: 'Bed, bare-root',
    start: 'treated seed',
    stages: [{ from: FROM, plants: 100 }],
    wanted: { trees: 80 },
    chance: 0.9,
    ...more,
  }) as unknown as PlannedSowing;
const roomWith = (...startedOn: string[]) =>
  ({
    lots: [{ id: 'bag', speciesId: 'cbe' }],
    treatments: startedOn.map((on, i) => ({ id: String(i), seedLotId: 'bag', startedOn: on })),
  }) as unknown as SeedRoom;

describe('what a plan asks of Today', () => {
  it('asks once for the parts of a sowing, and once for the treatment of all seed of a day', () => {
    const asks = planAsks(
      [sowing('a'), sowing('b'), sowing('c', { lineId: null }), sowing('d', { lineId: null })],
      species,
      roomWith(),
      begins - 10,
    );
    expect(asks.map(({ sowingId, plants, trees }) => [sowingId, plants, trees])).toEqual([
      ['a', 200, 160],
      ['c', 100, 80],
      ['d', 100, 80],
    ]);
    expect(asks.map(({ treat }) => treat)).toEqual([{ on: begins, days, plants: 400 }, null, null]);
  });
  it('asks for no treatment once a batch of the species was begun for it, nor for fresh seed or cuttings', () => {
    const treatOf = (room: SeedRoom, day = begins, more: Partial<PlannedSowing> = {}) =>
      planAsks([sowing('a', more)], species, room, day)[0].treat;
    expect(treatOf(roomWith(isoOf(begins - 20)))).toBeNull();
    // What was begun long before, or after the day looked at, is for something else.
    expect(treatOf(roomWith(isoOf(begins - 200)))).not.toBeNull();
    expect(treatOf(roomWith(isoOf(begins + 5)))).not.toBeNull();
    expect(treatOf(roomWith(isoOf(begins + 5)), begins + 6)).toBeNull();
    expect(treatOf(roomWith(), begins, { start: 'fresh seed' })).toBeNull();
    expect(treatOf(roomWith(), begins, { start: 'cuttings' })).toBeNull();
    expect(planAsks([sowing('a', { speciesId: 'gone' })], species, roomWith(), begins)[0]).toMatchObject({
      name: 'a species no longer in the list',
      treat: null,
    });
  });
});
