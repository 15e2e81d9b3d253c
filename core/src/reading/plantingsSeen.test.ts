import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import type { PlantedPart, Planting, Walk } from '../contract';
import { livingNow, nextPlanting, walkDue } from '../survival/livingNow';
import { noneFound, type Found } from '../survival/trees';
import { perLiving } from '../survival/perLiving';
import { plantingActWords } from '../today/plantingAsk';
import { itemsOf } from '../today/todayOf';
import {
  goneOf,
  lastHeatDays,
  placesBefore,
  placesToReplace,
  plantedCases,
  plantingAsks,
  plantingSeen,
  sizeClassOf,
} from './plantingsSeen';

const part = (id: string, count: number, more: Partial<PlantedPart> = {}): PlantedPart => ({
  id,
  lotId: `lot-${id}`,
  code: id,
  speciesId: 'ALN',
  parcelId: `p-${id}`,
  form: 'bare-root',
  raisedIn: '',
  grade: '',
  fromCm: null,
  toCm: null,
  on: '2026-02-10',
  count,
  guard: 'closed tube',
  guardNow: 'closed tube',
  stake: 'none',
  planter: '',
  note: '',
  by: 'Isla',
  ...more,
});
const planting = (parts: PlantedPart[]): Planting => ({
  id: 'bank',
  name: 'Bank',
  where: '',
  purpose: '',
  ground: 'wet',
  mulch: '',
  note: '',
  version: 1,
  layout: { kind: 'rows', rows: 10, perRow: 5, rowM: 2, treeM: 1 },
  parts,
});
const walk = (on: string, found: Record<string, Partial<Found>>, more: Partial<Walk> = {}): Walk => ({
  id: `walk ${on}`,
  plantingId: 'bank',
  on,
  kind: 'every',
  by: 'Isla',
  trees: 20,
  endedAt: `${on}T12:00:00Z`,
  note: '',
  found: Object.entries(found).map(([partId, some]) => ({
    partId,
    found: { ...noneFound(), ...some },
    causes: [],
  })),
  ...more,
});
const LATITUDE = 54.6;
const seenOn = (day: string, parts: PlantedPart[], walks: Walk[] = []) =>
  plantingSeen(planting(parts), walks, [], LATITUDE, dayOf(day));

describe('a planting on a day', () => {
  it('holds what was planted by then, and lives by the last walk that was ended by then', () => {
    const parts = [part('a', 12), part('b', 8, { on: '2026-03-01' })];
    const walks = [
      walk('2026-08-01', { a: { alive: 10, dead: 2 }, b: { alive: 8 } }),
      walk('2026-10-05', { a: { alive: 9, 'leader dead': 1, dead: 2 }, b: { alive: 6, missing: 2 } }),
    ];
    expect(seenOn('2026-02-15', parts, walks)).toMatchObject({ trees: 12, living: null });
    expect(seenOn('2026-09-01', parts, walks)).toMatchObject({ trees: 20, gone: 2 });
    const last = seenOn('2026-11-01', parts, walks);
    expect(last.living).toEqual({ trees: 20, seen: 20, seenAlive: 16, alive: 16, lower: 16, upper: 16 });
    expect(last.gone).toBe(4);
  });
  it('of trees planted after the last walk, that walk says nothing', () => {
    const parts = [part('a', 12), part('c', 30, { on: '2026-11-01' })];
    const walks = [walk('2026-10-05', { a: { alive: 11, dead: 1 } })];
    expect(seenOn('2026-11-20', parts, walks).living).toMatchObject({ trees: 12, alive: 11 });
  });
  it('of a sample, living trees lie between what was seen and what may be', () => {
    const living = livingNow(400, { alive: 45, dead: 5 })!;
    expect(living.lower).toBeGreaterThan(45);
    expect(living.upper).toBeLessThan(395);
    expect(living.lower).toBeLessThan(living.alive);
    expect(living.alive).toBeLessThan(living.upper);
    expect(livingNow(10, { alive: 0, dead: 0 })).toBeNull();
  });
});

describe('a walk is due', () => {
  const due = (plantedOn: string, day: string, walked: string[] = [], latitude = LATITUDE) => {
    const answer = walkDue(dayOf(plantedOn), walked.map(dayOf), latitude, dayOf(day));
    return answer && `${isoOf(answer.due)} ${answer.autumn}`;
  };
  it('in its first three autumns, once it has lived through a summer', () => {
    expect(due('2026-02-10', '2026-05-01')).toBe('2026-10-01 1');
    expect(due('2026-11-20', '2026-12-01')).toBe('2027-10-01 1');
    expect(due('2026-02-10', '2026-11-01')).toBe('2026-10-01 1');
    expect(due('2026-02-10', '2026-11-01', ['2026-09-20'])).toBe('2027-10-01 2');
    expect(due('2026-02-10', '2028-12-01', ['2026-10-02', '2027-10-02', '2028-10-02'])).toBeNull();
  });
  it('and not for an autumn gone by: the next one counts', () => {
    expect(due('2026-02-10', '2027-09-10')).toBe('2027-10-01 2');
    expect(due('2020-02-10', '2026-05-01')).toBeNull();
  });
  it('half a year later in the south', () => {
    expect(due('2026-07-10', '2026-12-01', [], -41)).toBe('2027-04-01 1');
  });
});

it('what died is replaced this winter while there is time, else in the next', () => {
  const on = (day: string, latitude = LATITUDE) => isoOf(nextPlanting(latitude, dayOf(day)).on);
  expect(on('2026-11-24')).toBe('2026-11-24');
  expect(on('2026-10-08')).toBe('2026-11-01');
  expect(on('2027-03-20')).toBe('2027-11-01');
  expect(on('2026-06-01', -41)).toBe('2026-06-01');
});

describe('what it asks of Today', () => {
  const hot = (tMaxC: number, day = '2026-07-18') => [{ day: dayOf(day), tMinC: tMaxC - 16, tMaxC }];
  const asks = (
    parts: PlantedPart[],
    weather: ReturnType<typeof hot>,
    day = '2026-07-18',
    walks: Walk[] = [],
  ) => plantingAsks({ plantings: [planting(parts)], walks }, weather, LATITUDE, dayOf(day));
  it('is to vent closed tubes before leaders scorch, and nothing once they are off', () => {
    expect(asks([part('a', 12)], hot(27))).toEqual([]);
    const [near] = asks([part('a', 12), part('b', 5, { guardNow: 'none' })], hot(33.5));
    expect(near).toMatchObject({ kind: 'heat', trees: 12, scorch: false });
    expect(asks([part('a', 12)], hot(38))[0]).toMatchObject({ scorch: true });
    expect(asks([part('a', 12, { guardNow: 'none' })], hot(38))).toEqual([]);
    expect(plantingActWords(near, dayOf('2026-07-18')).title).toBe(
      'Raise, vent or take off the closed tubes in Bank',
    );
  });
  it('is not what was hot last week, nor what nobody measured', () => {
    expect(asks([part('a', 12)], hot(38, '2026-07-10'))).toEqual([]);
    const series = {
      start: dayOf('2026-07-16'),
      tMinC: Float64Array.from([12, NaN, 14]),
      tMaxC: Float64Array.from([28, NaN, 30]),
      rainMm: Float64Array.from([0, 0, 0]),
    };
    expect(lastHeatDays(series, dayOf('2026-07-18')).map(({ tMaxC }) => tMaxC)).toEqual([30, 28]);
  });
  it('is a walk when it is due, unless one is under way', () => {
    const at = '2026-10-02';
    const [ask] = asks([part('a', 12)], [], at);
    expect(ask).toMatchObject({ kind: 'walk', autumn: 1, trees: 12 });
    expect(itemsOf([], [], dayOf(at), { plantings: [ask] })[0]).toMatchObject({
      rule: 'walk-planting',
      when: 'now',
      part: 'planted',
      of: 'planting',
      subjectId: 'bank',
    });
    expect(asks([part('a', 12)], [], at, [walk('2026-10-01', {}, { endedAt: null })])).toEqual([]);
    expect(asks([], [], at)).toEqual([]);
  });
});

describe('compared', () => {
  const parts = [part('a', 12), part('b', 8)];
  it('each part counts by the last walk that looked at it', () => {
    const walks = [
      walk('2026-08-01', { a: { alive: 10, dead: 2 }, b: { alive: 8 } }),
      walk('2026-10-05', { a: { alive: 9, dead: 3 } }),
      walk('2026-11-05', { b: { dead: 8 } }, { endedAt: null }),
    ];
    const cases = plantedCases({ plantings: [planting(parts)], walks }, dayOf('2026-12-01'));
    expect(cases.map(({ partId, alive, dead }) => [partId, alive, dead])).toEqual([
      ['a', 9, 3],
      ['b', 8, 0],
    ]);
    expect(plantedCases({ plantings: [planting(parts)], walks }, dayOf('2026-07-01'))).toEqual([]);
  });
  it('by the class of their grade', () => {
    expect(sizeClassOf({ fromCm: null, toCm: null })).toBeNull();
    expect(sizeClassOf({ fromCm: 40, toCm: 60 })).toEqual({ fromCm: 40, toCm: 60 });
    expect(sizeClassOf({ fromCm: null, toCm: 20 })).toEqual({ fromCm: null, toCm: 20 });
    expect(sizeClassOf({ fromCm: 150, toCm: null })).toEqual({ fromCm: 120, toCm: null });
  });
  it('a tree that lives costs as much more as fewer live', () => {
    expect(perLiving(0.75, { lower: 0.5, mean: 0.75, upper: 1 })).toEqual({
      least: 0.75,
      middle: 1,
      most: 1.5,
    });
  });
});

describe('trees to replace', () => {
  const parts = [part('a', 200), part('b', 50, { speciesId: 'BPE' })];
  it('are those found dead, reckoned up to all of a sample, less what was planted since', () => {
    const gone = (walks: Walk[], more: PlantedPart[] = []) =>
      goneOf(seenOn('2026-12-01', [...parts, ...more], walks)).map(({ speciesId, gone: n }) => [
        speciesId,
        n,
      ]);
    const found = { a: { alive: 15, dead: 4, missing: 1 }, b: { alive: 5 } };
    expect(gone([])).toEqual([]);
    expect(gone([walk('2026-10-05', found)])).toEqual([['ALN', 5]]);
    const [[, sampled]] = gone([walk('2026-10-05', found, { kind: 'sample' })]) as [string, number][];
    expect(sampled).toBeGreaterThan(40);
    expect(sampled).toBeLessThan(60);
    const later = part('c', 3, { on: '2026-11-10' });
    expect(gone([walk('2026-10-05', found)], [later])).toEqual([['ALN', 2]]);
    expect(gone([walk('2026-10-05', found)], [part('c', 9, { on: '2026-11-10' })])).toEqual([]);
  });
});

it('places to replace are row by row, trees numbered through the parts', () => {
  const bank = planting([part('a', 7), part('b', 8)]);
  expect([...placesBefore(bank)]).toEqual([
    ['a', 0],
    ['b', 7],
  ]);
  const mark = (partId: string, number: number, state: 'dead' | 'missing' | 'dying') => ({
    partId,
    number,
    state,
    cause: null,
    note: '',
  });
  expect(
    placesToReplace(bank, [
      mark('a', 6, 'dead'),
      mark('b', 1, 'missing'),
      mark('a', 2, 'dying'),
      mark('b', 4, 'dead'),
    ]),
  ).toEqual([
    { row: 2, at: [1, 3] },
    { row: 3, at: [1] },
  ]);
});
