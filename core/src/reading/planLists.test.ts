import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import { containerVolume } from '../container/container';
import { startingContainers } from '../container/startingContainers';
import type { ContainerType, PlannedSowing } from '../contract';
import { needsOf, stepsOf } from './planLists';

const tube = { id: 'c', version: 1, values: startingContainers[0] } as ContainerType;
const containers = new Map([['c', tube]]);
const stage = (from: string, more: Partial<PlannedSowing['stages'][number]> = {}) => ({
  placeId: 'p',
  containerTypeId: 'c',
  densityPerM2: null,
  ends: null,
  goesOn: 0.9,
  hoursPer100: 2,
  from,
  plants: 100,
  trays: 5,
  areaM2: null,
  ...more,
});
const sowing = (id: string, until: string, ...stages: PlannedSowing['stages']): PlannedSowing => ({
  id,
  speciesId: 's',
  lineId: null,
  route: 'Cells',
  start: 'treated seed',
  cutting: null,
  wanted: { on: until, until, fromCm: null, toCm: null, trees: 80, chance: 0.9 },
  stages,
  until,
  chance: 0.9,
  workedOn: '2026-11-24',
  pinned: false,
});
const bed = { containerTypeId: null, trays: null, densityPerM2: 150 };
const plan = [
  sowing('b', '2027-10-01', stage('2027-04-05'), stage('2027-06-07', { ...bed, areaM2: 2 })),
  sowing('a', '2027-05-10', stage('2027-03-01')),
  sowing('c', '2027-12-01', stage('2027-05-10', { plants: 50, trays: 3 })),
];

describe('lists of a plan', () => {
  it('tell its steps in the order they come', () => {
    expect(stepsOf(plan).map(({ sowing: of, stage: at, on }) => [of.id, at, isoOf(on)])).toEqual([
      ['a', 0, '2027-03-01'],
      ['b', 0, '2027-04-05'],
      ['c', 0, '2027-05-10'],
      ['b', 1, '2027-06-07'],
    ]);
    expect(stepsOf([])).toEqual([]);
  });
  it('count what is filled, the most in use at once, hours by week, ground and labels', () => {
    const { hours, trays, beds, labels } = needsOf(plan, { containers });
    expect(hours).toEqual([
      { week: dayOf('2027-03-01'), hours: 2 },
      { week: dayOf('2027-04-05'), hours: 2 },
      { week: dayOf('2027-05-10'), hours: 1 },
      { week: dayOf('2027-06-07'), hours: 2 },
    ]);
    // The first leaves on the day the third comes.
    expect(trays).toEqual([
      {
        containerTypeId: 'c',
        filled: 13,
        most: 10,
        on: dayOf('2027-04-05'),
        litres: (13 * tube.values.cellsPerTray * containerVolume(tube.values).value) / 1000,
      },
    ]);
    expect(beds).toEqual({ most: 2, on: dayOf('2027-06-07') });
    expect(labels).toBe(4);
    expect(needsOf([], { containers })).toEqual({ hours: [], trays: [], beds: null, labels: 0 });
    expect(needsOf(plan, { containers: new Map() }).trays).toEqual([]);
  });
});
