import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Point } from './shapes';
import { walkingWay, wayLength } from './walkingWay';

const metre = fc.double({ min: 0, max: 60, noNaN: true });
const stop = fc.tuple(metre, metre);
const gate: Point = [0, 0];
const orders = (n: number): number[][] =>
  n === 0
    ? [[]]
    : orders(n - 1).flatMap((of) =>
        Array.from({ length: n }, (_, at) => [...of.slice(0, at), n - 1, ...of.slice(at)]),
      );

describe('a way through the yard', () => {
  it('visits every stop once, and nothing where there is none', () => {
    expect(walkingWay([], gate)).toEqual([]);
    fc.assert(
      fc.property(fc.array(stop, { maxLength: 25 }), (stops) => {
        const way = walkingWay(stops, gate);
        expect([...way].sort((a, b) => a - b)).toEqual([...stops.keys()]);
      }),
      { numRuns: 60 },
    );
  });
  it('follows a row of beds from the gate on, however they are listed', () => {
    const beds = [30, 10, 50, 20, 40].map((eastM): Point => [eastM, 2]);
    expect(walkingWay(beds, gate)).toEqual([1, 3, 0, 4, 2]);
  });
  it('cannot be shortened by turning a stretch round or putting one stop elsewhere, and is found for a large yard', () => {
    fc.assert(
      fc.property(fc.array(stop, { minLength: 3, maxLength: 9 }), (stops) => {
        const way = walkingWay(stops, gate);
        const length = wayLength(stops, way, gate);
        for (let i = 0; i < way.length; i++) {
          const rest = way.filter((_, at) => at !== i);
          for (let j = 0; j <= rest.length; j++) {
            const moved = [...rest.slice(0, j), way[i], ...rest.slice(j)];
            expect(wayLength(stops, moved, gate)).toBeGreaterThan(length - 1e-6);
          }
          for (let j = i + 1; j < way.length; j++) {
            const turned = [...way.slice(0, i), ...way.slice(i, j + 1).reverse(), ...way.slice(j + 1)];
            expect(wayLength(stops, turned, gate)).toBeGreaterThan(length - 1e-6);
          }
        }
      }),
      { numRuns: 100 },
    );
    const beds = Array.from({ length: 300 }, (_, i): Point => [(i * 37) % 60, (i * 61) % 45]);
    expect(new Set(walkingWay(beds, gate)).size).toBe(300);
  });
  it('is at most a tenth longer than the shortest way, of all orders of six stops', () => {
    fc.assert(
      fc.property(fc.array(stop, { minLength: 2, maxLength: 6 }), (stops) => {
        const shortest = Math.min(...orders(stops.length).map((way) => wayLength(stops, way, gate)));
        expect(wayLength(stops, walkingWay(stops, gate), gate)).toBeLessThanOrEqual(1.1 * shortest + 1e-9);
      }),
      { numRuns: 200 },
    );
  });
});
