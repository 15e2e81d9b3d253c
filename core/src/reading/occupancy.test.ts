import { describe, expect, it } from 'vitest';
import { startingContainers } from '../container/startingContainers';
import type { Stage } from '../contract';
import { recompute } from '../working/working';
import { lookupFrom } from './lookupFrom';
import { testBed, testBench } from './places.fixture';
import { occupancyOf, shareLeft } from './occupancy';

const container = { id: 'c', version: 1, values: startingContainers[0] } as never;
const lookup = lookupFrom({ species: [], places: [], containers: [container], media: [] });
const trays = (n: number) =>
  ({ containerTypeId: 'c', trays: n, areaM2: null, densityPerM2: null }) as unknown as Stage;
const area = (m2: number) =>
  ({ containerTypeId: null, trays: null, areaM2: m2, densityPerM2: 200 }) as unknown as Stage;

describe('room taken by what stands', () => {
  const length = (apart?: number) => {
    const occupancy = occupancyOf(testBench, [{ lotId: 'a', stage: trays(5), apart }], lookup);
    return occupancy.kind === 'bench' ? occupancy.layout.laid.length : NaN;
  };
  it('grows with cells that are set apart, by whole trays', () => {
    expect(length()).toBe(5);
    expect(length(2)).toBe(10);
    expect(length(1.5)).toBe(8);
  });
  it('is given back by what was lifted', () => {
    const used = (share?: number) => {
      const occupancy = occupancyOf(testBed, [{ lotId: 'a', stage: area(2), share }], lookup);
      if (occupancy.kind !== 'bed') throw new Error('not a bed');
      for (const step of occupancy.working)
        expect(recompute(step.expression!)).toBeCloseTo(step.result as number, 6);
      return occupancy.usedM2;
    };
    expect(used()).toBeCloseTo(2);
    expect(used(shareLeft({ sown: 0, standing: 150, lifted: 400, sent: 50, planted: 0 }))).toBeCloseTo(0.5);
    expect(shareLeft({ sown: 0, standing: 150, lifted: 0, sent: 0, planted: 0 })).toBe(1);
    expect(shareLeft({ sown: 0, standing: 0, lifted: 0, sent: 0, planted: 0 })).toBe(1);
  });
});
