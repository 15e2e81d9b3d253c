import { Unfit } from '../working/unfit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startingMedia } from '../medium/medium';
import { recompute, type Step } from '../working/working';
import type { BedDesign, FoundBed } from './design';
import { boardNames, dressedSize } from './dressedSize';
import { bedGeometry } from './geometry';
import { openAreaFraction } from './openAreaFraction';
import { bedParts } from './parts';
import { bedSupports } from './supports';
import { treesHeld } from './treesHeld';
import { bedWeight } from './weight';

const plain: BedDesign = {
  schema: 1,
  measured: 'outside',
  lengthMm: 2400,
  widthMm: 1200,
  tiers: ['2x8', '2x8'],
  layers: [{ kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 }],
  fillBelowRimMm: 20,
  ground: 'paving',
  airGapMm: 60,
  lidAboveRimMm: null,
};
const designs = fc.record({
  schema: fc.constant(1 as const),
  measured: fc.constantFrom('inside' as const, 'outside' as const),
  lengthMm: fc.integer({ min: 300, max: 6000 }),
  widthMm: fc.integer({ min: 300, max: 1500 }),
  tiers: fc.array(fc.constantFrom(...boardNames.us, ...boardNames.metric), { minLength: 1, maxLength: 4 }),
  layers: fc.constant(plain.layers),
  fillBelowRimMm: fc.integer({ min: 0, max: 60 }),
  ground: fc.constantFrom('paving' as const, 'gravel' as const, 'soil' as const, 'weeds' as const),
  airGapMm: fc.integer({ min: 0, max: 400 }),
  lidAboveRimMm: fc.option(fc.integer({ min: 100, max: 900 })),
});

/** Every sum of a working gives its result when it is done again from the numbers shown. */
function expectToRecompute(steps: readonly Step[]) {
  for (const step of steps) {
    if (!step.expression) continue;
    const again = recompute(step.expression);
    expect(Math.abs(again - (step.result as number)), step.what).toBeLessThanOrEqual(
      2e-6 * Math.max(1, Math.abs(again)),
    );
  }
}

describe('boards', () => {
  it.each([
    ['2x8', 38, 184],
    ['2 × 12', 38, 286],
    ['1x6', 19, 140],
    ['50x200', 47, 195],
    ['25x100', 22, 97],
  ])('a %s measures %i × %i mm', (name, thicknessMm, widthMm) => {
    expect(dressedSize(name)).toMatchObject({ thicknessMm, widthMm });
  });
  it('are never larger than their name', () => {
    for (const name of [...boardNames.us, ...boardNames.metric]) {
      const b = dressedSize(name);
      expect(b.widthMm).toBeLessThan(b.nominalWidthMm);
      expect(b.thicknessMm).toBeLessThan(b.nominalThicknessMm);
    }
  });
  it.each(['2x7', 'plank', '200x50', '2x', '0x8', '500x900'])('“%s” is no board', (name) => {
    expect(() => dressedSize(name)).toThrow(Unfit);
  });
});

describe('bed geometry', () => {
  it('works with boards as they measure', () => {
    const g = bedGeometry(plain).value;
    expect(g.insideLengthMm).toBe(2400 - 76);
    expect(g.frameHeightMm).toBe(368);
    expect(g.nominalHeightMm - g.frameHeightMm).toBeCloseTo(406.4 - 368, 9);
    expect(g.settledDepthMm).toBeCloseTo((368 - 20) * 0.8, 9);
    expect(g.mediumL).toBeCloseTo(2.324 * 1.124 * 348, 6);
    expect(g.gapEnough).toBe(true);
    expect(bedGeometry({ ...plain, ground: 'weeds' }).value.gapEnough).toBe(false);
  });
  it('holds for any bed: inside within outside, settled within filled, working that recomputes', () => {
    fc.assert(
      fc.property(designs, fc.double({ min: 0, max: 0.6, noNaN: true }), (design, settling) => {
        const { value: g, working } = bedGeometry(design, settling);
        expect(g.insideLengthMm).toBeLessThan(g.outsideLengthMm);
        expect(g.settledDepthMm).toBeLessThanOrEqual(g.looseDepthMm);
        expect(g.frameHeightMm).toBeLessThan(g.nominalHeightMm);
        expect(g.mediumL).toBeGreaterThan(0);
        expectToRecompute(working);
        expectToRecompute(bedWeight(design, startingMedia[0]).working);
      }),
    );
  });
  it('says the same of a bed measured inside and outside', () => {
    const inside = bedGeometry({ ...plain, measured: 'inside', lengthMm: 2324, widthMm: 1124 }).value;
    expect(inside).toEqual(bedGeometry(plain).value);
  });
  it.each([
    [{ ...plain, tiers: [] }, /tier/],
    [{ ...plain, widthMm: 70 }, /thicker/],
    [{ ...plain, fillBelowRimMm: 400 }, /no medium/],
    [{ ...plain, lengthMm: NaN }, /inside/],
  ])('refuses a bed that cannot be built', (design, sentence) => {
    expect(() => bedGeometry(design)).toThrow(sentence);
  });
});

describe('open area', () => {
  it('is a share that falls with every layer', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 50, noNaN: true }),
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, d, shade) => {
          const mesh = { kind: 'mesh', openingMm: [a, a], wireMm: d } as const;
          const one = openAreaFraction([mesh]);
          const two = openAreaFraction([mesh, { kind: 'cloth', shadeShare: shade }]);
          expect(one.value).toBeGreaterThan(0);
          expect(one.value).toBeLessThan(1);
          expect(two.value).toBeLessThanOrEqual(one.value);
          expectToRecompute(two.working);
        },
      ),
    );
  });
  it('refuses an impossible layer', () => {
    expect(() => openAreaFraction([{ kind: 'mesh', openingMm: [0, 5], wireMm: 1 }])).toThrow(Unfit);
    expect(() => openAreaFraction([{ kind: 'cloth', shadeShare: 1.2 }])).toThrow(Unfit);
  });
});

describe('weight and trees', () => {
  it('adds up, and marks what is too heavy to carry', () => {
    const w = bedWeight(plain, startingMedia[0]).value;
    expect(w.totalKg).toBeCloseTo(w.timberKg + w.meshKg + w.mediumWetKg, 9);
    expect(w.mediumWetKg).toBeCloseTo(0.909 * 720, 0);
    expect(w.overCarryLimit).toBe(true);
    const box = bedWeight({ ...plain, lengthMm: 400, widthMm: 300, tiers: ['1x6'] }, startingMedia[0]).value;
    expect(box.overCarryLimit).toBe(false);
  });
  it('counts whole trees, exactly at the edge too', () => {
    expect(treesHeld(0.1, 30).value).toBe(3);
    expect(treesHeld(2.61, 240).value).toBe(626);
    expect(() => treesHeld(0, 240)).toThrow(Unfit);
    expect(() => treesHeld(2, NaN)).toThrow(Unfit);
  });
});

describe('a bed that is something found', () => {
  const tub = (more: Partial<FoundBed> = {}, design: Partial<BedDesign> = {}): BedDesign => ({
    ...plain,
    measured: 'inside',
    lengthMm: 500,
    widthMm: 500,
    tiers: [],
    fillBelowRimMm: 0,
    found: { shape: 'round', heightMm: 400, wallMm: 4, taper: 0.8, emptyKg: 2, seasons: 6, ...more },
    ...design,
  });
  it('holds what a frustum holds, and its mean area gives that volume', () => {
    const g = bedGeometry(tub()).value;
    // V = πh(R² + Rr + r²)/3 of a round tub, 500 mm at the rim, 400 at the floor, 400 high.
    expect(g.mediumL).toBeCloseTo((Math.PI * 4 * (2.5 ** 2 + 2.5 * 2 + 2 ** 2)) / 3, 6);
    expect(g.insideAreaM2).toBeCloseTo(g.mediumL / g.looseDepthMm, 9);
    expect(g.insideLengthMm * g.insideWidthMm).toBeCloseTo(g.insideAreaM2 * 1e6, 6);
    const upright = bedGeometry(tub({ shape: 'box', taper: 1 }, { widthMm: 300 })).value;
    expect(upright.insideAreaM2).toBeCloseTo(0.15, 9);
  });
  it('holds less for leaning walls and less filling, never more than an upright one', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('round' as const, 'box' as const),
        fc.double({ min: 0.2, max: 1, noNaN: true }),
        fc.integer({ min: 0, max: 300 }),
        (shape, taper, below) => {
          const held = (t: number) => bedGeometry(tub({ shape, taper: t }, { fillBelowRimMm: below })).value;
          expect(held(taper).insideAreaM2).toBeLessThanOrEqual(held(1).insideAreaM2 + 1e-12);
          expect(held(taper).insideAreaM2).toBeGreaterThanOrEqual(held(1).insideAreaM2 * taper ** 2 - 1e-12);
          expectToRecompute(bedGeometry(tub({ shape, taper }, { fillBelowRimMm: below })).working);
        },
      ),
    );
  });
  it('weighs its medium and itself, stands on its floor, and asks for no boards', () => {
    const { value, working } = bedWeight(tub(), startingMedia[0]);
    const g = bedGeometry(tub(), startingMedia[0].settling).value;
    expect(value.totalKg).toBeCloseTo(2 + value.meshKg + (g.mediumL / 1000) * startingMedia[0].wetKgPerM3, 6);
    expectToRecompute(working);
    const wider = bedWeight(tub({ taper: 1 }), startingMedia[0]).value;
    expect(value.surfaceKPa).toBeGreaterThan(wider.surfaceKPa);
    const carries = bedSupports(tub(), startingMedia[0]).value;
    expect(carries.sideSagMm).toBeNull();
    expect(carries.crossSagMm).toBeNull();
    expect(bedParts(tub()).timber).toEqual([]);
  });
  it('says that wide mesh bellies without a grid, and refuses walls that cannot be', () => {
    const wide = tub({ taper: 1 }, { lengthMm: 600 });
    expect(bedSupports(wide, startingMedia[0]).value.faults.join(' ')).toMatch(/welded grid/);
    const gridded = {
      ...wide,
      layers: [...plain.layers, { kind: 'mesh' as const, openingMm: [150, 150] as const, wireMm: 3.4 }],
    };
    expect(bedSupports(gridded, startingMedia[0]).value.faults.join(' ')).not.toMatch(/belly/);
    expect(() => bedGeometry(tub({ taper: 1.2 }))).toThrow(/as large as the rim or smaller/);
    expect(() => bedGeometry(tub({ heightMm: 0 }))).toThrow(Unfit);
    expect(() => bedGeometry(tub({}, { fillBelowRimMm: 400 }))).toThrow(/holds no medium/);
    expect(() => bedGeometry(tub({ wallMm: 300 }, { measured: 'outside' }))).toThrow(
      /nothing is left inside/,
    );
  });
});
