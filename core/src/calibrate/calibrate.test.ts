import { describe, expect, it } from 'vitest';
import { startingSpecies } from '../species/startingSpecies';
import { deskTally, gradeTally, growthTally, growthWorlds, liftingTally } from './index';

/* The whole table is `npm run calibrate`'s; here a short form of it guards against a slip. */
describe('forecasts of height in simulated nurseries', () => {
  const [assumed, ...unlike] = growthWorlds;
  it.each([
    [1, 'weeks'],
    [2, 'weeks'],
    [2, 'season'],
  ] as const)('hold eight times in ten as assumed, after %i samples, %s ahead', (samples, ahead) => {
    const tally = growthTally(assumed, samples, ahead, 240, 9);
    expect(tally.held).toBeGreaterThan(0.73);
    expect(tally.held).toBeLessThan(0.89);
    expect(tally.pinball).toBeLessThan(Math.min(tally.lastPlusSpecies, tally.lastValue) * 1.03);
  });
  it('never fail badly where the world is unlike the assumptions', () => {
    for (const world of unlike) {
      const tally = growthTally(world, 2, 'weeks', 60, 5);
      expect(tally.held, world.name).toBeGreaterThan(0.55);
      expect(tally.width, world.name).toBeLessThan(0.6);
    }
  });
});

describe('counts by grade in simulated nurseries', () => {
  it.each([
    [1, 'weeks'],
    [2, 'weeks'],
  ] as const)('hold eight times in ten as assumed, after %i samples, %s ahead', (samples, ahead) => {
    const tally = gradeTally(growthWorlds[0], samples, ahead, 160, 9);
    expect(tally.held).toBeGreaterThan(0.75);
    expect(tally.held).toBeLessThan(0.89);
  });
});

describe('the sowing desk in simulated nurseries', () => {
  it.each([0, 3, 10, 30])('keeps its nine in ten after %i lots of their own', (lots) => {
    const { kept } = deskTally(lots, 0.05, 1200, 3);
    expect(kept).toBeGreaterThan(0.87);
    expect(kept).toBeLessThan(0.93);
  });
});

describe('the close of the lifting window', () => {
  const alder = startingSpecies.find((s) => s.code === 'ALN')!.values;
  it('holds eight winters in ten after ten years of weather', () => {
    const { held } = liftingTally(alder, { latitudeDeg: 54.6, elevationM: 185 }, 10, 90, 11);
    expect(held).toBeGreaterThan(0.68);
    expect(held).toBeLessThan(0.9);
  });
});
