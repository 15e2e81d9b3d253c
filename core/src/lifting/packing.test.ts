import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heightOfGrade, packingOf, type Packing } from './packing';

const bare: Packing = { trees: 100, heightCm: 60, collarMm: 8, bundleOf: 25, cells: null };
const crate = { litres: 90, mostKg: 20 };

describe('packing', () => {
  it('weighs a hedging whip at some 75 g, and takes whole bundles', () => {
    const { value } = packingOf(bare, crate);
    expect(value.treeKg).toBeCloseTo(0.0768, 6);
    expect(value).toMatchObject({ treesAPiece: 175, pieces: 1, longCm: 80, forTwo: false });
    expect(packingOf({ ...bare, trees: 400 }, crate).value.pieces).toBe(3);
  });
  it('takes cells in their trays, wet medium and all', () => {
    const cells = { cellMl: 350, perTray: 40, wetKgPerM3: 720 };
    const { value } = packingOf({ trees: 100, heightCm: 40, collarMm: 5, bundleOf: null, cells }, crate);
    expect(value.pieces).toBe(3);
    expect(value.pieceKg).toBeCloseTo(40 * (0.252 + 0.02), 6);
    const pots = packingOf({ ...bare, cells: { cellMl: 40_000, perTray: 1, wetKgPerM3: 720 } }, crate).value;
    expect([pots.pieces, pots.forTwo]).toEqual([100, true]);
  });
  it('finds room for all, and packs no crate fuller than it may be unless one tree is', () => {
    fc.assert(
      fc.property(
        fc.record({
          trees: fc.integer({ min: 1, max: 5000 }),
          heightCm: fc.integer({ min: 5, max: 300 }),
          collarMm: fc.option(fc.integer({ min: 1, max: 40 })),
          bundleOf: fc.constantFrom(null, 10, 25, 50),
          cells: fc.constant(null),
        }),
        (load) => {
          const { pieces, treesAPiece, pieceKg, kg, treeKg } = packingOf(load, crate).value;
          expect(pieces * treesAPiece).toBeGreaterThanOrEqual(load.trees);
          expect((pieces - 1) * treesAPiece).toBeLessThan(load.trees);
          expect(pieceKg <= crate.mostKg + 1e-9 || treesAPiece === 1).toBe(true);
          expect(kg).toBeCloseTo(load.trees * treeKg, 9);
        },
      ),
    );
  });
  it('refuses what has no size', () => {
    expect(() => packingOf({ ...bare, heightCm: 0 }, crate)).toThrow(/above 0/);
    expect(() => packingOf(bare, { litres: 0, mostKg: 20 })).toThrow(/above 0/);
  });
});

describe('a grade’s height', () => {
  it('is its middle, or lies beside its open end', () => {
    expect(heightOfGrade({ fromCm: 40, toCm: 60 })).toBe(50);
    expect(heightOfGrade({ fromCm: 60, toCm: null })).toBeCloseTo(69);
    expect(heightOfGrade({ fromCm: null, toCm: 40 })).toBe(30);
    expect(heightOfGrade({ fromCm: null, toCm: null })).toBeNull();
  });
});
