import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { doubtOf, shrunk } from './doubtful';
import { bedSpots, cellSpots, trayGrid } from './samplePlan';

describe('where to measure', () => {
  it('takes a plant from every part of a bed, the same ones when asked again', () => {
    const spots = bedSpots(3000, 1200, 20, 'lot-1 2026-08-01');
    expect(spots).toHaveLength(20);
    expect(bedSpots(3000, 1200, 20, 'lot-1 2026-08-01')).toEqual(spots);
    expect(bedSpots(3000, 1200, 20, 'lot-1 2026-09-01')).not.toEqual(spots);
    for (const [from, to] of [
      [0, 1000],
      [1000, 2000],
      [2000, 3000],
    ])
      expect(spots.filter((s) => s.alongMm >= from && s.alongMm < to).length).toBeGreaterThanOrEqual(4);
    expect(spots.filter((s) => s.acrossMm < 600).length).toBeGreaterThanOrEqual(7);
  });
  it('stays inside, whatever the bed and the number', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 200, max: 20_000 }),
        fc.integer({ min: 200, max: 3000 }),
        fc.integer({ min: 1, max: 90 }),
        fc.string(),
        (length, width, n, key) => {
          const spots = bedSpots(length, width, n, key);
          expect(spots).toHaveLength(n);
          for (const s of spots) {
            expect(s.alongMm >= 0 && s.alongMm <= length && s.acrossMm >= 0 && s.acrossMm <= width).toBe(
              true,
            );
          }
        },
      ),
    );
  });
  it('falls evenly: the mean of many samples is the bed’s', () => {
    let sum = 0;
    for (let k = 0; k < 200; k++) for (const s of bedSpots(3000, 1200, 10, `k${k}`)) sum += s.alongMm / 2000;
    expect(sum / 1500).toBeCloseTo(1, 1);
  });
  it('spreads cells over trays, and never takes one twice', () => {
    expect(trayGrid(40, 400, 250)).toEqual({ rows: 5, columns: 8 });
    expect(trayGrid(1, 400, 250)).toEqual({ rows: 1, columns: 1 });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 1, max: 10 }),
        fc.integer({ min: 1, max: 80 }),
        (trays, rows, columns, n) => {
          const spots = cellSpots(trays, { rows, columns }, n, 'x');
          expect(spots).toHaveLength(Math.min(n, trays * rows * columns));
          expect(new Set(spots.map((s) => `${s.tray}.${s.row}.${s.column}`)).size).toBe(spots.length);
          const per = new Map<number, number>();
          for (const s of spots) per.set(s.tray, (per.get(s.tray) ?? 0) + 1);
          const least = per.size === trays ? Math.min(...per.values()) : 0;
          expect(Math.max(...per.values()) - least).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
  it('refuses a bed without size and a sample of none', () => {
    expect(() => bedSpots(0, 1, 5, '')).toThrow(/above 0/);
    expect(() => bedSpots(1, 1, 0, '')).toThrow(/one plant/);
    expect(() => cellSpots(0, { rows: 1, columns: 1 }, 5, '')).toThrow(/one tray/);
  });
});

describe('values asked about', () => {
  const thirties = [28, 31, 30, 33, 27, 35];
  it('are three metres among thirties, and three centimetres', () => {
    expect(doubtOf(300, thirties, null)).toMatchObject({ kind: 'far', usual: 30.5 });
    expect(doubtOf(3, thirties, null)?.kind).toBe('far');
  });
  it('are not a tall one and a short one of the kind', () => {
    for (const value of [20, 24, 38, 41]) expect(doubtOf(value, thirties, null)).toBeNull();
  });
  it('are a first value far from the forecast', () => {
    expect(doubtOf(300, [], { p10: 22, p90: 41 })).toMatchObject({ kind: 'unlikely' });
    expect(doubtOf(30, [], { p10: 22, p90: 41 })).toBeNull();
    expect(doubtOf(300, [], null)).toBeNull();
  });
  it('are a lot that measures smaller than it did, by more than chance', () => {
    expect(shrunk({ mean: 22, standardError: 1.5 }, { mean: 31, standardError: 1.5 })).toBe(true);
    expect(shrunk({ mean: 29, standardError: 1.5 }, { mean: 31, standardError: 1.5 })).toBe(false);
    expect(shrunk({ mean: 40, standardError: 1.5 }, { mean: 31, standardError: 1.5 })).toBe(false);
  });
});
