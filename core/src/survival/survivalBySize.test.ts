import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gammaDraw, normalDraw, seededRandom, type Random } from '../chance/random';
import { survivalAt, survivalBySize, type SizedCase, type SurvivalBySize } from './survivalBySize';

const shareOf = (odds: number) => 1 / (1 + Math.exp(-odds));

interface World {
  level: number;
  collar: number;
  sturdiness: number;
  plantingsSd: number;
  rho: number;
  plantings?: number;
  parts?: number;
  trees?: number;
}
const MIDDLE = { collarMm: 6, sturdiness: 8 };
/** ln odds of a size in a usual planting of a made-up world, by whole units of ln D and of H ÷ D. */
const oddsIn = ({ level, collar, sturdiness }: World, heightCm: number, collarMm: number) =>
  level +
  collar * Math.log(collarMm / MIDDLE.collarMm) +
  sturdiness * (heightCm / collarMm - MIDDLE.sturdiness);

/** Walks of a made-up world: plantings differ, and parts of each. */
function walked(world: World, random: Random): SizedCase[] {
  const { plantingsSd, rho, plantings = 8, parts = 3, trees = 60 } = world;
  return Array.from({ length: plantings }, (_, i) => {
    const luck = plantingsSd * normalDraw(random);
    return Array.from({ length: parts }, (): SizedCase => {
      const collarMm = MIDDLE.collarMm * Math.exp(0.3 * normalDraw(random));
      const heightCm = collarMm * (MIDDLE.sturdiness + 1.5 * normalDraw(random));
      const share = shareOf(oddsIn(world, heightCm, collarMm) + luck);
      const heavy = 1 / rho - 1;
      const a = gammaDraw(random, share * heavy, 1);
      const own = a / (a + gammaDraw(random, (1 - share) * heavy, 1));
      let alive = 0;
      for (let t = 0; t < trees; t++) if (random() < own) alive++;
      return { planting: `p${i}`, heightCm, collarMm, alive, dead: trees - alive };
    });
  }).flat();
}
const known = (cases: readonly SizedCase[]): SurvivalBySize => {
  const told = survivalBySize(cases);
  if (!('value' in told)) throw new Error(told.untold);
  return told.value;
};
const world: World = { level: 1.4, collar: 1.6, sturdiness: -0.15, plantingsSd: 0.5, rho: 0.03 };

describe('survival by size', () => {
  it('says nothing under 200 trees, of one planting, or where all were alike', () => {
    const one = { planting: 'a', heightCm: 40, collarMm: 5, alive: 70, dead: 20 };
    const other = { ...one, planting: 'b', collarMm: 8 };
    expect(survivalBySize([])).toEqual({ untold: 'few', trees: 0 });
    expect(survivalBySize([one, other])).toEqual({ untold: 'few', trees: 180 });
    const more = { ...one, alive: 200 };
    expect(survivalBySize([more, { ...more, collarMm: 9 }])).toMatchObject({ untold: 'one planting' });
    expect(survivalBySize([more, { ...more, planting: 'b' }])).toMatchObject({ untold: 'alike' });
    expect(known([more, other]).trees).toBe(310);
  });

  it('holds nine in ten of what is so, at the middle and away from it', () => {
    const random = seededRandom(11);
    const sizes = [
      { heightCm: 48, collarMm: 6 },
      { heightCm: 62, collarMm: 8.5 },
      { heightCm: 40, collarMm: 4.2 },
    ];
    const runs = 100;
    const held = sizes.map(() => 0);
    for (let run = 0; run < runs; run++) {
      // Worlds as the starting values take them to be.
      const one: World = {
        level: 1.2 + 0.8 * normalDraw(random),
        collar: (SLOPE * normalDraw(random)) / 0.3,
        sturdiness: (SLOPE * normalDraw(random)) / 1.5,
        plantingsSd: Math.abs(0.7 * normalDraw(random)),
        rho: Math.min(0.4, 0.005 + 0.08 * -Math.log(1 - random())),
      };
      const told = known(walked(one, random));
      sizes.forEach((size, i) => {
        const { lower, upper } = survivalAt(told, size);
        const truth = shareOf(oddsIn(one, size.heightCm, size.collarMm));
        if (lower <= truth && truth <= upper) held[i]++;
      });
    }
    const share = held.reduce((sum, one) => sum + one, 0) / (runs * sizes.length);
    expect(share).toBeGreaterThan(0.86);
    expect(share).toBeLessThan(0.94);
  });

  it('finds what many plantings show, and calls nothing certain that is not there', () => {
    const random = seededRandom(5);
    const clear = known(walked({ ...world, plantings: 25, trees: 100 }, random));
    expect(clear.thicker).toBeGreaterThan(0.99);
    const nothing = { ...world, collar: 0, sturdiness: 0 };
    const chances = Array.from({ length: 30 }, () => known(walked(nothing, random)).thicker);
    expect(chances.filter((c) => c > 0.95 || c < 0.05).length).toBeLessThanOrEqual(7);
  });

  it('is known the better the more was walked, and worse away from what was planted', () => {
    const random = seededRandom(3);
    const cases = walked({ ...world, plantings: 24 }, random);
    const width = (told: SurvivalBySize, collarMm: number) => {
      const { lower, upper } = survivalAt(told, { heightCm: collarMm * 8, collarMm });
      return Math.log(upper / (1 - upper)) - Math.log(lower / (1 - lower));
    };
    expect(width(known(cases), 6)).toBeLessThan(width(known(cases.slice(0, 12)), 6));
    expect(width(known(cases), 14)).toBeGreaterThan(width(known(cases), 6));
  });

  it('takes whatever walks find, in any order', () => {
    const found = fc.record({
      planting: fc.constantFrom('a', 'b', 'c'),
      heightCm: fc.double({ min: 8, max: 200, noNaN: true }),
      collarMm: fc.double({ min: 2, max: 25, noNaN: true }),
      alive: fc.integer({ min: 0, max: 300 }),
      dead: fc.integer({ min: 0, max: 300 }),
    });
    fc.assert(
      fc.property(fc.array(found, { maxLength: 8 }), found, (cases, size) => {
        const told = survivalBySize(cases);
        const turned = survivalBySize([...cases].reverse());
        if (!('value' in told)) return void expect(turned).toEqual(told);
        const { lower, mean, upper } = survivalAt(told.value, size);
        expect(0 <= lower && lower <= mean && mean <= upper && upper <= 1).toBe(true);
        expect((turned as typeof told).value.thicker).toBeCloseTo(told.value.thicker, 9);
      }),
      { numRuns: 40 },
    );
  });

  it('refuses what cannot be', () => {
    const one = { planting: 'a', heightCm: 40, collarMm: 5, alive: 70, dead: 20 };
    expect(() => survivalBySize([{ ...one, dead: -1 }])).toThrow(/0 or more/);
    expect(() => survivalBySize([{ ...one, collarMm: 0 }])).toThrow(/above 0/);
  });
});

/** Slopes of the made-up worlds, for one standard deviation between parts. */
const SLOPE = 0.7;
