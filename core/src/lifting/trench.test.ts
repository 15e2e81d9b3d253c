import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { recompute } from '../working/working';
import { trenchClasses, trenchRoom, trenchWanted, treesAMetre, treesThatFit, usualTrench } from './trench';

const grade = (fromCm: number | null, toCm: number | null) => ({ fromCm, toCm });
const bay = { lengthMm: 3600, widthMm: 1200 };
const heights = fc
  .tuple(fc.option(fc.integer({ min: 1, max: 300 })), fc.option(fc.integer({ min: 1, max: 300 })))
  .map(([a, b]) => (a !== null && b !== null ? grade(Math.min(a, b), Math.max(a, b) + 1) : grade(a, b)));
const trees = fc.array(
  fc
    .record({ count: fc.integer({ min: 0, max: 5000 }), of: heights })
    .map(({ count, of }) => ({ count, ...of })),
  { maxLength: 12 },
);

describe('trees heeled in', () => {
  it('take by the middle of their heights what a metre of row takes', () => {
    expect(treesAMetre(grade(20, 30), usualTrench)).toBe(100);
    expect(treesAMetre(grade(40, 60), usualTrench)).toBe(60);
    expect(treesAMetre(grade(60, 90), usualTrench)).toBe(40);
    expect(treesAMetre(grade(90, null), usualTrench)).toBe(25);
    expect(treesAMetre(grade(null, 40), usualTrench)).toBe(60);
    expect(treesAMetre(grade(150, 200), usualTrench)).toBe(12);
    expect(treesAMetre(grade(null, null), usualTrench)).toBeNull();
  });

  it('are of a class whatever their heights', () => {
    fc.assert(
      fc.property(heights, ({ fromCm, toCm }) => {
        const perM = treesAMetre({ fromCm, toCm }, usualTrench);
        if (fromCm === null && toCm === null) expect(perM).toBeNull();
        else expect(usualTrench.perM).toContain(perM);
      }),
    );
    expect(trenchClasses).toHaveLength(usualTrench.perM.length);
  });

  it('want as much trench together as apart', () => {
    fc.assert(
      fc.property(trees, trees, (some, others) => {
        const [a, b] = [trenchWanted(some, usualTrench), trenchWanted(others, usualTrench)];
        const both = trenchWanted([...some, ...others], usualTrench);
        expect(both.metres).toBeCloseTo(a.metres + b.metres, 6);
        expect(both.unsized).toBe(a.unsized + b.unsized);
      }),
    );
  });
});

describe('a bay', () => {
  it('has as many rows as fit across it, along its longer side', () => {
    const { value } = trenchRoom(bay, [{ count: 240, ...grade(40, 60) }], usualTrench);
    expect(value).toMatchObject({ rows: 3, unsized: 0 });
    expect(value.metres).toBeCloseTo(10.8, 9);
    expect(value.taken).toBeCloseTo(4, 9);
    expect(value.left).toBeCloseTo(6.8, 9);
    // Turned round it is the same bay.
    expect(trenchRoom({ lengthMm: 1200, widthMm: 3600 }, [], usualTrench).value.metres).toBeCloseTo(10.8, 9);
    // A single trench is one row, however narrow.
    expect(trenchRoom({ lengthMm: 20_000, widthMm: 300 }, [], usualTrench).value).toMatchObject({ rows: 1 });
  });

  it('says how far it is too full, and what lies there that nobody measured', () => {
    const { value } = trenchRoom(
      bay,
      [
        { count: 900, ...grade(40, 60) },
        { count: 70, ...grade(null, null) },
      ],
      usualTrench,
    );
    expect(value.left).toBeCloseTo(-4.2, 9);
    expect(value.unsized).toBe(70);
    expect(treesThatFit(value.left, grade(40, 60), usualTrench)).toBe(0);
  });

  it('takes what it says still fits, and not one tree more', () => {
    fc.assert(
      fc.property(trees, heights, (lying, of) => {
        const { left } = trenchRoom(bay, lying, usualTrench).value;
        const fits = treesThatFit(left, of, usualTrench);
        if (fits === null) return;
        const after = (count: number) =>
          trenchRoom(bay, [...lying, { count, ...of }], usualTrench).value.left;
        if (left >= 0) expect(after(fits)).toBeGreaterThanOrEqual(-1e-6);
        expect(after(fits + 1)).toBeLessThan(1e-6);
      }),
    );
  });

  it('shows its working, to be done again by hand', () => {
    fc.assert(
      fc.property(trees, (lying) => {
        for (const { expression, result } of trenchRoom(bay, lying, usualTrench).working)
          expect(Math.abs(recompute(expression!) - Number(result))).toBeLessThanOrEqual(
            1e-5 * Math.max(1, trenchWanted(lying, usualTrench).metres),
          );
      }),
    );
  });
});
