import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ShownPlace } from '../yard/usePlaces';
import { asWanted, firstWithRoom } from './newLot';

const place = (id: string, kind: string, occupancy: object) =>
  ({ place: { id, place: { kind } }, occupancy }) as unknown as ShownPlace;
const bed = (id: string, freeM2: number) => place(id, 'bed', { kind: 'bed', freeM2 });
const bench = (id: string, freeLengthMm: number) =>
  place(id, 'bench', { kind: 'bench', layout: { freeLengthMm } });

describe('where a new lot is offered to stand', () => {
  it('is the first bed or bench with room, never a heel-in bay', () => {
    const bay = place('bay', 'bay', { kind: 'bed', freeM2: 9 });
    expect(firstWithRoom([bay, bed('full', 0), bed('half', 1.2), bed('empty', 3)])).toBe('half');
    expect(firstWithRoom([bed('full', 0.01), bench('bench', 800)])).toBe('bench');
  });
  it('is the first of all where everything is full, and none where there is none', () => {
    expect(firstWithRoom([bed('one', 0), bench('two', -10)])).toBe('one');
    expect(firstWithRoom([])).toBe('');
  });
});

describe('what a blank field stands for', () => {
  it('is what is needed, what is free where that is less, what is needed again where nothing is free', () => {
    expect(asWanted(0.571, 3, 0.01)).toBe(0.58);
    expect(asWanted(5, 0.537, 0.01)).toBe(0.53);
    expect(asWanted(0.571, 0, 0.01)).toBe(0.58);
    expect(asWanted(1.2, 0, 1)).toBe(2);
    expect(asWanted(null, 3.4, 1)).toBe(3);
  });
  it('is never more than is free while there is room, and never less than a step of what is needed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (need, free) => {
          const blank = asWanted(need, free, 0.01);
          expect(blank).toBeGreaterThan(0);
          if (free >= 0.01) expect(blank).toBeLessThanOrEqual(free + 1e-6);
          else expect(blank).toBeGreaterThanOrEqual(need - 1e-6);
        },
      ),
    );
  });
});
