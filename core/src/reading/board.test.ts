import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import { startingContainers } from '../container/startingContainers';
import type { ContainerType, PlannedSowing, RaisingRoute } from '../contract';
import {
  boardRow,
  couldGive,
  fillTogether,
  overFull,
  planSowing,
  roomFor,
  staysOf,
  type Stay,
} from './board';
import { findPlaces } from './findPlaces';
import { lookupFrom } from './lookupFrom';
import { testBed, testBench } from './places.fixture';
import { occupancyOf } from './occupancy';

const tube = { id: 'c', version: 1, values: startingContainers[0] } as ContainerType;
const flat = {
  id: 'f',
  version: 1,
  values: startingContainers.find((c) => c.kind === 'flat')!,
} as ContainerType;
const wide = { ...tube, id: 'w', values: { ...tube.values, trayLengthMm: 3000, trayWidthMm: 2000 } };
const lookup = lookupFrom({ species: [], places: [], containers: [tube, flat, wide], media: [] });
const stay = (id: string, from: number, until: number, more: Partial<Stay> = {}): Stay => ({
  id,
  placeId: 'p',
  from,
  until,
  isPlanned: false,
  occupant: { lotId: id, stage: { containerTypeId: 'c', trays: 10, areaM2: null } },
  mayLeaveFrom: Infinity,
  ...more,
});
const onBed = (id: string, from: number, until: number, areaM2: number) =>
  stay(id, from, until, {
    placeId: 'b',
    occupant: { lotId: id, stage: { containerTypeId: null, trays: null, areaM2 } },
  });

describe('a row of the board', () => {
  const stays = fc.array(
    fc.record({
      from: fc.integer({ min: -20, max: 60 }),
      length: fc.integer({ min: 1, max: 50 }),
      trays: fc.integer({ min: 1, max: 120 }),
    }),
    { maxLength: 6 },
  );
  it('holds on every day what the place holds on that day', () => {
    fc.assert(
      fc.property(stays, fc.boolean(), (list, inBed) => {
        const place = inBed ? testBed : testBench;
        const all = list.map(({ from, length, trays }, i) =>
          inBed
            ? onBed(String(i), from, from + length, trays / 40)
            : stay(String(i), from, from + length, {
                occupant: { lotId: String(i), stage: { containerTypeId: 'c', trays, areaM2: null } },
              }),
        );
        const spans = boardRow(place, all, lookup, 0, 50);
        expect(spans[0].from).toBe(0);
        expect(spans.at(-1)!.until).toBe(50);
        spans.forEach((span, i) => i && expect(span.from).toBe(spans[i - 1].until));
        for (let day = 0; day < 50; day += 3) {
          const standing = all.filter(({ from, until }) => from <= day && day < until);
          const taken = occupancyOf(
            place,
            standing.map(({ occupant }) => occupant),
            lookup,
          );
          const share =
            taken.kind === 'bed' ? taken.usedM2 / taken.insideAreaM2 : taken.layout.usedLengthMm / 9000;
          const span = spans.find(({ from, until }) => from <= day && day < until)!;
          expect(span.share).toBeCloseTo(share, 9);
          expect(span.over > 0).toBe(share > 1 + 1e-6);
        }
      }),
    );
  });
  it('says by how much it is over-full, and what could leave by then', () => {
    const spans = boardRow(
      testBed,
      [
        { ...onBed('a', 0, 40, 2), mayLeaveFrom: 8 },
        { ...onBed('b', 10, 30, 1.5), mayLeaveFrom: 5 },
        onBed('c', 10, 30, 0.2),
      ],
      lookup,
      0,
      50,
    );
    const [worst] = overFull(spans);
    expect(worst).toMatchObject({ from: 10, until: 30 });
    expect(worst.over).toBeCloseTo(3.7 - 2.88, 6);
    expect(couldGive(worst).map(({ id }) => id)).toEqual(['b', 'a']);
  });
  it('is as full together as its places are on the first day of each week', () => {
    const arb = fc.array(
      fc.record({
        m2: fc.double({ min: 0.5, max: 20, noNaN: true }),
        stays: fc.array(
          fc.tuple(
            fc.integer({ min: -20, max: 80 }),
            fc.integer({ min: 1, max: 60 }),
            fc.double({ min: 0.1, max: 2, noNaN: true }),
          ),
          { maxLength: 4 },
        ),
      }),
      { minLength: 1, maxLength: 4 },
    );
    fc.assert(
      fc.property(arb, (places) => {
        const rows = places.map(({ m2, stays }) => ({
          m2,
          spans: boardRow(
            testBed,
            stays.map(([from, days, areaM2], i) => onBed(String(i), from, from + days, areaM2)),
            lookup,
            0,
            91,
          ),
        }));
        const fill = fillTogether(rows, 0, 13);
        const all = rows.reduce((sum, { m2 }) => sum + m2, 0);
        fill.forEach((share, week) => {
          const used = rows.reduce((sum, { m2, spans }) => {
            const span = spans.find(({ from, until }) => from <= 7 * week && 7 * week < until)!;
            return sum + m2 * Math.min(1, span.share);
          }, 0);
          expect(share).toBeCloseTo(used / all, 9);
        });
      }),
    );
  });
  it('tells of stretches that follow one another as one, with what stands when it is worst', () => {
    const span = (from: number, until: number, share: number, id: string) => ({
      from,
      until,
      share,
      over: share - 1,
      fault: null,
      stays: [stay(id, from, until)],
    });
    const stretches = overFull([
      span(0, 5, 0.9, 'a'),
      span(5, 9, 1.2, 'b'),
      span(9, 12, 1.5, 'c'),
      span(12, 20, 1.1, 'd'),
      span(20, 30, 0.5, 'e'),
      span(30, 40, 1.7, 'f'),
    ]);
    expect(stretches.map(({ from, until, share, stays }) => [from, until, share, stays[0].id])).toEqual([
      [30, 40, 1.7, 'f'],
      [5, 20, 1.5, 'c'],
    ]);
  });
  it('says what cannot be laid out at all, and the rest of the row stands', () => {
    const spans = boardRow(
      testBench,
      [
        stay('a', 20, 30, {
          occupant: { lotId: 'a', stage: { containerTypeId: 'w', trays: 1, areaM2: null } },
        }),
      ],
      lookup,
      0,
      50,
    );
    expect(spans.map(({ fault }) => fault)).toEqual([null, 'This tray is wider than the bench.', null]);
  });
});

describe('a sowing planned', () => {
  const route: RaisingRoute = {
    id: 'r',
    speciesId: 's',
    name: 'Flat, then cells',
    start: 'treated seed',
    cutting: null,
    stages: [
      {
        placeId: 'p',
        containerTypeId: 'f',
        densityPerM2: null,
        ends: 'true leaves',
        goesOn: 0.8,
        hoursPer100: 1,
      },
      { placeId: 'b', containerTypeId: 'c', densityPerM2: null, ends: null, goesOn: 0.9, hoursPer100: 1 },
    ],
  };
  const on = dayOf('2027-03-01');
  const point = {
    on,
    up: { p10: on + 20, p50: on + 25, p90: on + 30 },
    begins: [on, on + 45],
    outsideLifting: null,
    chance: 0.7,
    serves: 0.6,
    kept: { p10: 1, p50: 1, p90: 1 },
    ready: 0.8,
    past: 0.1,
  };
  const aim = {
    lineId: null,
    wanted: { on: dayOf('2027-10-01'), until: dayOf('2027-11-01'), fromCm: 20, toCm: null, chance: 0.9 },
    trees: 540,
  };
  const planned = planSowing('x', route, point, aim, lookup.containers, dayOf('2026-11-24'));
  it('has plants enough at every stage, and whole trays for them', () => {
    // 540 to size of 900 that leave, 1000 cells, 1250 seedlings.
    expect(planned.stages.map(({ plants }) => plants)).toEqual([1250, 1000]);
    expect(planned.stages.map(({ trays }) => trays)).toEqual([7, Math.ceil(1000 / tube.values.cellsPerTray)]);
  });
  it('stands in its places in turn, until the last day it is wanted', () => {
    expect(staysOf(planned).map(({ placeId, from, until }) => [placeId, isoOf(from), isoOf(until)])).toEqual([
      ['p', '2027-03-01', '2027-04-15'],
      ['b', '2027-04-15', '2027-11-01'],
    ]);
  });
  it('in a bed takes ground by its density', () => {
    expect(roomFor({ containerTypeId: null, densityPerM2: 150 }, 300, lookup.containers)).toEqual({
      trays: null,
      areaM2: 2,
    });
  });
});

describe('places found for a sowing', () => {
  const two = lookupFrom({
    species: [],
    places: [testBed, { ...testBed, id: 'b2' }, testBench],
    containers: [tube, flat],
    media: [],
  });
  const inBed = (areaM2: number): PlannedSowing => ({
    id: 'x',
    speciesId: 's',
    lineId: null,
    route: 'Bed',
    start: 'treated seed',
    cutting: null,
    wanted: { on: '2028-01-10', until: '2028-02-10', fromCm: null, toCm: null, trees: 300, chance: 0.9 },
    stages: [
      {
        placeId: 'b',
        containerTypeId: null,
        densityPerM2: 150,
        ends: null,
        goesOn: 0.9,
        hoursPer100: 1,
        from: '2027-05-03',
        plants: Math.round(areaM2 * 150),
        trays: null,
        areaM2,
      },
    ],
    until: '2028-02-10',
    chance: 0.9,
    workedOn: '2026-11-24',
    pinned: false,
  });
  const during = (areaM2: number, placeId = 'b') => ({
    ...onBed('held', dayOf('2027-01-01'), dayOf('2027-08-01'), areaM2),
    placeId,
  });
  const ids = () => {
    let n = 0;
    return () => `part ${++n}`;
  };
  it('are where it is like, if that has room; else another of its kind', () => {
    const place = (stays: Stay[]) =>
      findPlaces(inBed(1), stays, two, ids()).map(({ stages }) => stages[0].placeId);
    expect(place([])).toEqual(['b']);
    expect(place([during(2.5)])).toEqual(['b2']);
    expect(place([{ ...during(2.5), until: dayOf('2027-05-03') }])).toEqual(['b']);
  });
  it('are several where no one takes it whole, and what finds no room is kept and seen', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 9, noNaN: true }),
        fc.double({ min: 0, max: 2.8, noNaN: true }),
        (areaM2, held) => {
          const sowing = inBed(Math.round(areaM2 * 100) / 100);
          const stays = held > 0 ? [during(held)] : [];
          const parts = findPlaces(sowing, stays, two, ids());
          expect(parts.reduce((t, { stages }) => t + stages[0].plants, 0)).toBe(sowing.stages[0].plants);
          // A tree at least for each part, be it ever so small.
          const trees = parts.reduce((t, { wanted }) => t + wanted.trees, 0);
          expect(Math.abs(trees - sowing.wanted.trees)).toBeLessThanOrEqual(1);
          expect(new Set(parts.map(({ id }) => id)).size).toBe(parts.length);
          const all = [...stays, ...parts.flatMap((part) => staysOf(part))];
          const [from, until] = [dayOf('2027-01-01'), dayOf('2028-03-01')];
          const over = [testBed, { ...testBed, id: 'b2' }].flatMap((place) =>
            overFull(boardRow(place, all, two, from, until)),
          );
          // Over-full only where the whole kind has no room for it, but for crumbs.
          if (areaM2 + held < 2 * 2.88 - 0.35) expect(over).toEqual([]);
          if (areaM2 + held > 2 * 2.88 + 0.05) expect(over.length).toBeGreaterThan(0);
        },
      ),
    );
  });
  it('of a route of stages are found for each', () => {
    const [first] = inBed(1).stages;
    const chain = {
      ...inBed(1),
      stages: [
        {
          ...first,
          placeId: 'p',
          containerTypeId: 'f',
          densityPerM2: null,
          trays: 2,
          areaM2: null,
          ends: 'true leaves' as const,
        },
        { ...first, from: '2027-06-10' },
      ],
    };
    const [found] = findPlaces(chain, [during(2.5)], two, ids());
    expect(found.stages.map(({ placeId }) => placeId)).toEqual(['p', 'b2']);
    // Where no bed takes it whole it goes in parts, each through all its stages.
    const large = { ...chain, stages: [chain.stages[0], { ...chain.stages[1], areaM2: 2, plants: 300 }] };
    const parts = findPlaces(large, [during(1.6), during(1.6, 'b2')], two, ids());
    expect(parts.map(({ stages }) => stages.map(({ placeId }) => placeId))).toEqual([
      ['p', 'b'],
      ['p', 'b2'],
    ]);
    expect(parts.every(({ stages }) => stages[1].areaM2! <= 1.001)).toBe(true);
  });
});
