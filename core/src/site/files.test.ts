import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cornersOf, footprintOf, freeSpot, spotAbout } from './footprint';
import { checkPlan } from './checks';
import { benchLoad, yardCapacity } from '../capacity/yardCapacity';
import { PlaceBody, SiteElementSchema } from '../contract';
import { zoneRun, dripParts } from '../water/programme';
import type { SiteElement } from './elements';
import { middleOf, type Point } from './shapes';
import { alignMoves, arrayMoves, boxAround, boxOf, snapMove } from './snap';
import { yardFromGeoJson, yardToGeoJson } from '../reading/yardGeoJson';

const origin = { latitudeDeg: 54.6, longitudeDeg: -2.4 };
const bed: PlaceBody = {
  kind: 'bed',
  name: 'Bed 1',
  eastM: 3.25,
  northM: 7.5,
  angleDeg: 0,
  mediumId: null,
  builtOn: '2024-03-01',
  builtFrom: null,
  design: {
    schema: 1,
    measured: 'outside',
    lengthMm: 3000,
    widthMm: 1200,
    tiers: ['50x200'],
    layers: [],
    fillBelowRimMm: 30,
    ground: 'paving',
    airGapMm: 90,
    lidAboveRimMm: null,
  },
};
const bench: PlaceBody = {
  kind: 'bench',
  name: 'Bench 1',
  eastM: 20,
  northM: 2,
  angleDeg: 90,
  mediumId: null,
  design: { schema: 1, lengthMm: 7200, widthMm: 1550 },
};
const barn: SiteElement = {
  id: 'b',
  kind: 'building',
  name: 'Barn',
  heightM: 8,
  points: [
    [0, 0],
    [5, 0],
    [5, 9.125],
    [0, 9.125],
  ],
};
const trees: SiteElement = {
  id: 't',
  kind: 'trees',
  name: 'Row',
  heightM: 12,
  passesInLeaf: 0.2,
  passesBare: 0.7,
  points: [
    [-5, -3],
    [8, -4],
  ],
};
const tap: SiteElement = { id: 's', kind: 'standpipe', name: 'Tap', flowLpm: 14, points: [[4, 4]] };

describe('a yard as GeoJSON', () => {
  it('goes out and comes back the same, to a millimetre, at any angle', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -100, max: 100, noNaN: true }),
        fc.double({ min: -100, max: 100, noNaN: true }),
        fc.integer({ min: 0, max: 359 }),
        (e, n, angleDeg) => {
          const turned = { ...bed, ...spotAbout(bed, [e, n], angleDeg) } as PlaceBody;
          const text = JSON.stringify(yardToGeoJson([barn, trees, tap], [turned, bench], origin));
          const back = yardFromGeoJson(JSON.parse(text), origin);
          expect(back.remarks).toEqual([]);
          expect(
            back.places.map(({ name, kind, design, angleDeg: a }) => ({ name, kind, design, a })),
          ).toEqual(
            [turned, bench].map(({ name, kind, design, angleDeg: a }) => ({ name, kind, design, a })),
          );
          [turned, bench].forEach((place, i) => {
            expect(Math.abs(back.places[i].eastM - place.eastM)).toBeLessThan(0.001);
            expect(Math.abs(back.places[i].northM - place.northM)).toBeLessThan(0.001);
            expect(PlaceBody.safeParse(back.places[i]).success).toBe(true);
          });
          [barn, trees, tap].forEach((element, i) => {
            const { id: _, points, ...rest } = element;
            const { points: read, ...same } = back.elements[i];
            expect(same).toEqual(rest);
            read.forEach((p, k) =>
              expect(Math.hypot(p[0] - points[k][0], p[1] - points[k][1])).toBeLessThan(0.001),
            );
          });
        },
      ),
      { numRuns: 60 },
    );
  });
  const feature = (geometry: object | null, properties: object | null = null) => ({
    type: 'FeatureCollection',
    features: [{ type: 'Feature', geometry, properties }],
  });
  const square = [
    [-2.4, 54.6],
    [-2.3999, 54.6],
    [-2.3999, 54.6001],
    [-2.4, 54.6],
  ];
  it('takes other programs’ features for what their geometry suggests, and says so', () => {
    const read = yardFromGeoJson(feature({ type: 'Polygon', coordinates: [square] }), origin);
    expect(read.elements[0]).toMatchObject({ kind: 'surface', name: 'Feature 1' });
    expect(read.remarks).toEqual(['Feature 1: taken as a surface.']);
    expect(
      yardFromGeoJson(feature({ type: 'MultiPolygon', coordinates: [] }, { name: 'Wood' }), origin)
        .remarks[0],
    ).toMatch(/^Wood: a MultiPolygon is left out/);
    expect(yardFromGeoJson(feature(null), origin).remarks).toHaveLength(1);
  });
  it.each([
    ['not a collection', { type: 'Feature' }, /not a GeoJSON/],
    ['an open ring', feature({ type: 'Polygon', coordinates: [square.slice(0, 3)] }), /not closed/],
    [
      'a bow tie',
      feature({
        type: 'Polygon',
        coordinates: [
          [
            [-2.4, 54.6],
            [-2.3999, 54.6001],
            [-2.3999, 54.6],
            [-2.4, 54.6001],
            [-2.4, 54.6],
          ],
        ],
      }),
      /crosses itself/,
    ],
    ['text for a number', feature({ type: 'Point', coordinates: ['a', 'b'] }), /not a longitude/],
    ['coordinates swapped', feature({ type: 'Point', coordinates: [54.6, -2.4] }), /another yard/],
    ['no coordinates', feature({ type: 'LineString' }), /missing/],
    [
      'a bed without its design',
      feature({ type: 'Polygon', coordinates: [square] }, { kind: 'bed', name: 'B' }),
      /needs a polygon and its design/,
    ],
    [
      'a bed that cannot be built',
      feature(
        { type: 'Polygon', coordinates: [square] },
        { kind: 'bed', name: 'B', design: { ...bed.design, tiers: [] } },
      ),
      /B: A bed needs/,
    ],
  ])('%s is refused in a sentence', (_, json, sentence) => {
    expect(() => yardFromGeoJson(json, origin)).toThrow(sentence);
  });
});

describe('places on the plan', () => {
  it('keep their middle and their corners within their box, at any angle', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 359, noNaN: true }), (angleDeg) => {
        const turned = { ...bed, ...spotAbout(bed, [10, 10], angleDeg) } as PlaceBody;
        const corners = cornersOf(turned);
        const [e, n] = middleOf(corners);
        expect(e).toBeCloseTo(10, 5);
        expect(n).toBeCloseTo(10, 5);
        const f = footprintOf(turned);
        const b = boxOf(corners);
        expect(b.west).toBeCloseTo(f.eastM, 5);
        expect(b.north).toBeCloseTo(f.northM + f.heightM, 5);
      }),
    );
  });
  it('find free ground on the site, a barrow’s path from all that stands', () => {
    const outline: SiteElement = {
      id: 'o',
      kind: 'outline',
      name: 'Yard',
      points: [
        [0, 0],
        [20, 0],
        [20, 12],
        [0, 12],
      ],
    };
    const grounds = [{ id: '1', name: 'Bed 1', corners: cornersOf(bed) }];
    const spot = freeSpot(3, 1.2, grounds, [outline, barn])!;
    const placed = { id: 'n', name: 'New', corners: cornersOf({ ...bed, ...spot }) };
    expect(checkPlan([placed, ...grounds], [outline, barn], new Set(['n']))).toEqual([]);
    expect(freeSpot(30, 1.2, grounds, [outline])).toBeNull();
    expect(freeSpot(3, 1.2, grounds, [])).toBeNull();
  });
  it('a contract refuses broken outlines in a sentence', () => {
    const id = '019a0000-0000-7000-8000-000000000001';
    const { error } = SiteElementSchema.safeParse({
      ...barn,
      id,
      points: [
        [0, 0],
        [2, 2],
        [2, 0],
        [0, 2],
      ],
    });
    expect(error!.issues[0].message).toBe('The outline of Barn crosses itself.');
    expect(
      SiteElementSchema.safeParse({
        ...barn,
        id,
        points: [
          [0, 0],
          [1, 1],
        ],
      }).error!.issues[0].message,
    ).toContain('three corners');
    expect(
      SiteElementSchema.safeParse({
        ...tap,
        id,
        points: [
          [0, 0],
          [1, 1],
        ],
      }).success,
    ).toBe(false);
  });
});

describe('snapping and setting out', () => {
  const mine = { west: 0, east: 3, south: 0, north: 1.2 };
  const other = { west: 10, east: 13, south: 0.04, north: 1.24 };
  const options = { gridM: 0.1, reachM: 0.15, pathM: 0.6 };
  it('draws a move to an edge in line, to a path away, else to the grid', () => {
    expect(snapMove(mine, [6.93, 0.02], [other], options)).toEqual([7, 0.04]);
    expect(snapMove(mine, [6.35, 0.5], [other], options)[0]).toBeCloseTo(10 - 0.6 - 3, 6);
    expect(snapMove(mine, [2.13, 2.47], [], options)).toEqual([2.1, 2.5]);
  });
  it('never moves farther from the hand than its reach or half the grid', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -20, max: 20, noNaN: true }),
        fc.double({ min: -20, max: 20, noNaN: true }),
        (e, n) => {
          const [de, dn] = snapMove(mine, [e, n], [other], options);
          expect(Math.abs(de - e)).toBeLessThanOrEqual(0.151);
          expect(Math.abs(dn - n)).toBeLessThanOrEqual(0.151);
        },
      ),
    );
  });
  it('aligns boxes, and sets copies out with paths between', () => {
    const boxes = [mine, { west: 1, east: 2, south: 4, north: 5 }];
    expect(alignMoves(boxes, 'east').map((m) => m[0])).toEqual([0, 1]);
    expect(alignMoves(boxes, 'middle-north').map((m) => m[1])).toEqual([1.9, -2]);
    const ways = arrayMoves(mine, 3, 2, 0.6, 0.9);
    expect(ways).toHaveLength(6);
    expect(ways[5]).toEqual([7.2, 2.1]);
    expect(
      boxAround(ways.map(([e, n]: Point) => ({ west: e, east: e + 3, south: n, north: n + 1.2 }))).east,
    ).toBeCloseTo(10.2, 9);
    expect(() => arrayMoves(mine, 0, 2, 0.6, 0.6)).toThrow(/from 1/);
    expect(() => arrayMoves(mine, 20, 20, 0.6, 0.6)).toThrow(/200/);
  });
});

describe('what the yard carries', () => {
  it('adds up beds and benches, and leaves bays out', () => {
    const tray = { lengthMm: 610, widthMm: 305 };
    const one = yardCapacity([bed, bench], 240, tray, 98).value;
    const two = yardCapacity([bed, bench, bed, bench, { ...bench, kind: 'bay' }], 240, tray, 98).value;
    expect(two).toMatchObject({
      beds: 2,
      benches: 2,
      bedTrees: 2 * one.bedTrees,
      trays: 2 * one.trays,
      cells: 2 * one.cells,
    });
  });
  it('weighs trays against a rating, where there is one', () => {
    expect(benchLoad([{ count: 10, wetKg: 11 }], 100).value).toEqual({ kg: 110, over: true });
    expect(benchLoad([], null).value).toEqual({ kg: 0, over: null });
  });
});

describe('a zone’s run', () => {
  it('is as often as the thirstiest wants, as long as the neediest needs', () => {
    const { value } = zoneRun([
      { name: 'a', everyDays: 3.4, runMinutes: 30 },
      { name: 'b', everyDays: 9, runMinutes: 160 },
    ]);
    expect(value).toEqual({ everyDays: 3, minutes: Math.ceil((160 * 3) / 9) });
    expect(zoneRun([{ name: 'a', everyDays: Infinity, runMinutes: 30 }]).value.minutes).toBe(0);
    expect(dripParts(3000, 1200, 4, 40, true)).toMatchObject({
      lineM: 12,
      manifoldM: 2.4,
      connectors: 8,
      endPlugs: 0,
    });
  });
});
