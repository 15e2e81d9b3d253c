import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkPlan, narrowPaths, type PlaceGround } from './checks';
import type { SiteElement } from './elements';
import { fromWgs84, toWgs84 } from './geojson';
import {
  areaOf,
  clearance,
  crossesItself,
  inRing,
  lengthOf,
  pointToStretch,
  rectangle,
  ringsOverlap,
  type Point,
} from './shapes';

const box = (e: number, n: number, w: number, h: number): Point[] => [
  [e, n],
  [e + w, n],
  [e + w, n + h],
  [e, n + h],
];
const place = (id: string, corners: Point[]): PlaceGround => ({ id, name: `Bed ${id}`, corners });

describe('shapes', () => {
  it('rectangles keep their area and their middle at any angle', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 20, noNaN: true }),
        fc.double({ min: 0.2, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        (length, width, angle) => {
          const ring = rectangle([3, -2], length, width, angle);
          expect(areaOf(ring)).toBeCloseTo(length * width, 6);
          expect(inRing([3, -2], ring)).toBe(true);
          expect(crossesItself(ring)).toBe(false);
        },
      ),
    );
  });
  it('clearance is symmetric, and 0 exactly where rings overlap or touch', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -6, max: 6, noNaN: true }),
        fc.double({ min: -6, max: 6, noNaN: true }),
        fc.integer({ min: 0, max: 359 }),
        (e, n, angle) => {
          const a = { points: rectangle([0, 0], 3, 1.2, 0), closed: true };
          const b = { points: rectangle([e, n], 2, 0.9, angle), closed: true };
          const gap = clearance(a, b);
          expect(clearance(b, a)).toBeCloseTo(gap, 9);
          if (ringsOverlap(a.points, b.points)) expect(gap).toBe(0);
          if (gap > 1e-9) expect(ringsOverlap(a.points, b.points)).toBe(false);
        },
      ),
    );
  });
  it('know a bow tie, a point beside a stretch, and the length of a path', () => {
    expect(
      crossesItself([
        [0, 0],
        [2, 2],
        [2, 0],
        [0, 2],
      ]),
    ).toBe(true);
    expect(pointToStretch([0, 3], [-5, 0], [5, 0])).toBe(3);
    expect(pointToStretch([9, 3], [-5, 0], [5, 0])).toBe(5);
    expect(
      lengthOf([
        [0, 0],
        [3, 4],
        [3, 5],
      ]),
    ).toBe(6);
  });
  it('sides in common are not ground in common', () => {
    expect(ringsOverlap(box(0, 0, 1, 1), box(1, 0, 1, 1))).toBe(false);
    expect(ringsOverlap(box(0, 0, 3, 3), box(1, 1, 1, 1))).toBe(true);
    expect(ringsOverlap(box(0, 0, 2, 2), box(0, 0, 2, 2))).toBe(true);
  });
});

const barn: SiteElement = { id: 'barn', kind: 'building', name: 'Barn', heightM: 8, points: box(0, 0, 5, 5) };
const outline: SiteElement = { id: 'o', kind: 'outline', name: 'Yard', points: box(0, 0, 30, 20) };
const path: SiteElement = {
  id: 'p',
  kind: 'path',
  name: 'Main path',
  widthM: 1.2,
  main: true,
  points: [
    [15, 0],
    [15, 20],
  ],
};

describe('a plan is checked', () => {
  const kinds = (places: PlaceGround[], elements: SiteElement[] = [outline, barn, path]) =>
    checkPlan(places, elements).map((f) => f.kind);
  it.each([
    ['on top of one another', [place('1', box(6, 6, 3, 1.2)), place('2', box(7, 6.5, 3, 1.2))], ['overlap']],
    ['on a wall', [place('1', box(4, 4, 3, 1.2))], ['in-obstacle']],
    ['outside', [place('1', box(29, 10, 3, 1.2))], ['outside']],
    ['in a path', [place('1', box(14, 10, 3, 1.2))], ['on-path']],
    ['too near for a barrow', [place('1', box(6, 6, 3, 1.2)), place('2', box(6, 7.6, 3, 1.2))], ['narrow']],
    ['as one block', [place('1', box(6, 6, 3, 1.2)), place('2', box(9, 6, 3, 1.2))], []],
    ['a barrow apart', [place('1', box(6, 6, 3, 1.2)), place('2', box(6, 7.8, 3, 1.2))], []],
    ['along the edge', [place('1', box(0, 10, 3, 1.2))], []],
  ])('%s', (_, places, wanted) => expect(kinds(places)).toEqual(wanted));
  it('only about the places asked', () => {
    const places = [
      place('1', box(4, 4, 3, 1)),
      place('2', box(20, 1, 3, 1)),
      place('3', box(20.5, 1.2, 3, 1)),
    ];
    expect(checkPlan(places, [barn], new Set(['1'])).map((f) => f.kind)).toEqual(['in-obstacle']);
    expect(checkPlan(places, [barn]).every((f) => /^[A-Z].*\.$/.test(f.sentence))).toBe(true);
  });
  it('a wall as a line is not stood on either', () => {
    const wall: SiteElement = {
      id: 'w',
      kind: 'wall',
      name: 'Wall',
      points: [
        [8, 0],
        [8, 20],
      ],
    };
    expect(kinds([place('1', box(7, 6, 3, 1))], [wall])).toEqual(['in-obstacle']);
  });
  it('narrow paths are named', () => {
    expect(
      narrowPaths([
        path,
        { ...path, id: 'q', widthM: 0.8 },
        { ...path, id: 'r', main: false, widthM: 0.5 },
      ]).map((p) => p.id),
    ).toEqual(['q', 'r']);
  });
});

describe('WGS 84', () => {
  it('brings metres back to a millimetre anywhere a nursery may be', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -66, max: 66, noNaN: true }),
        fc.double({ min: -179, max: 179, noNaN: true }),
        fc.double({ min: -1000, max: 1000, noNaN: true }),
        fc.double({ min: -1000, max: 1000, noNaN: true }),
        (latitudeDeg, longitudeDeg, e, n) => {
          const origin = { latitudeDeg, longitudeDeg };
          const [e2, n2] = fromWgs84(toWgs84([e, n], origin), origin);
          expect(Math.abs(e2 - e)).toBeLessThan(0.001);
          expect(Math.abs(n2 - n)).toBeLessThan(0.001);
        },
      ),
    );
  });
  it('counts a minute of latitude as a nautical mile or so', () => {
    const origin = { latitudeDeg: 45, longitudeDeg: 0 };
    const [, north] = fromWgs84([0, 45 + 1 / 60], origin);
    expect(north).toBeGreaterThan(1851);
    expect(north).toBeLessThan(1853);
  });
});
