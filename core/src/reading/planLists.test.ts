import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import { containerVolume } from '../container/container';
import { startingContainers } from '../container/startingContainers';
import type { ContainerType, PlannedSowing, Species } from '../contract';
import { speciesLibrary } from '../species/speciesLibrary';
import { cashByMonth, needsOf, stepsOf, treatmentsOf, waterPeak } from './planLists';

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
  it('tell treatments to begin, of seed that sleeps and is sown treated', () => {
    const kind = (code: string) => ({ id: code, ...speciesLibrary.find((s) => s.code === code)! });
    const species = new Map(['CBE', 'SCA'].map((code) => [code, kind(code) as unknown as Species]));
    const of = (id: string, speciesId: string, start: PlannedSowing['start']): PlannedSowing => ({
      ...sowing(id, '2027-10-01', stage('2027-04-05')),
      speciesId,
      start,
    });
    const list = treatmentsOf(
      [
        of('a', 'CBE', 'treated seed'),
        of('b', 'CBE', 'fresh seed'),
        of('c', 'SCA', 'treated seed'),
        of('d', 'gone', 'treated seed'),
        of('e', 'CBE', 'treated seed'),
      ],
      species,
    );
    expect(list.map((one) => one.sowings.map(({ id }) => id))).toEqual([['a', 'e']]);
    expect(list[0].on).toBe(dayOf('2027-04-05') - list[0].days);
    expect(list[0].days).toBeGreaterThan(100);
  });
  it('add money up by month, and keep all of it', () => {
    const at = (iso: string, money: number) => ({ on: dayOf(iso), money });
    expect(cashByMonth([at('2027-03-31', 2), at('2027-04-01', 3), at('2027-03-01', 5)])).toEqual([
      { month: dayOf('2027-03-01'), money: 7 },
      { month: dayOf('2027-04-01'), money: 3 },
    ]);
    expect(cashByMonth([])).toEqual([]);
  });
  it('name the week in which it drinks most', () => {
    const from = dayOf('2027-03-01');
    // A millimetre a day, in June two.
    const sums = new Float64Array(400);
    for (let i = 1; i < 400; i++) {
      const day = from + i - 1;
      sums[i] = sums[i - 1] + (day >= dayOf('2027-06-07') && day < dayOf('2027-07-05') ? 2 : 1);
    }
    const inBed = sowing('a', '2027-10-04', stage('2027-04-05', { ...bed, areaM2: 3 }));
    const peak = waterPeak([inBed], { containers }, { from, sums })!;
    expect(isoOf(peak.week)).toBe('2027-06-07');
    expect(peak.litres).toBeCloseTo(3 * 0.7 * 14, 9);
    expect(waterPeak([inBed], { containers }, { from: dayOf('2030-01-01'), sums })).toBeNull();
  });
});
