import { Unfit } from '../working/unfit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { containerAirShare, containerVolume } from '../container/container';
import { startingContainers } from '../container/startingContainers';
import { traysOnBench } from '../container/traysOnBench';
import { recompute } from '../working/working';
import { benchLayout } from './benchLayout';
import { distanceBetween, footprintOf, nextSpot } from '../site/footprint';

const mm = (min: number, max: number) => fc.integer({ min, max });
const trays = fc.record({ lengthMm: mm(200, 700), widthMm: mm(150, 450) });

describe('trays on a bench', () => {
  it('are laid whole, within the bench’s width, none on another, all of them', () => {
    fc.assert(
      fc.property(
        mm(2000, 9000),
        mm(700, 2000),
        fc.array(fc.tuple(mm(1, 14), trays), { maxLength: 6 }),
        (lengthMm, widthMm, wanted) => {
          const loads = wanted.map(([n, tray], i) => ({ lotId: `lot ${i}`, trays: n, tray }));
          const { value, working } = benchLayout({ lengthMm, widthMm }, loads);
          expect(value.laid).toHaveLength(loads.reduce((n, load) => n + load.trays, 0));
          for (const t of value.laid) expect(t.acrossMm + t.widthMm).toBeLessThanOrEqual(widthMm);
          for (const [i, a] of value.laid.entries()) {
            expect(a.alongMm + a.lengthMm).toBeLessThanOrEqual(value.usedLengthMm);
            for (const b of value.laid.slice(i + 1)) {
              const apart =
                a.alongMm + a.lengthMm <= b.alongMm ||
                b.alongMm + b.lengthMm <= a.alongMm ||
                a.acrossMm + a.widthMm <= b.acrossMm ||
                b.acrossMm + b.widthMm <= a.acrossMm;
              expect(apart).toBe(true);
            }
          }
          expect(value.usedLengthMm + value.freeLengthMm).toBe(lengthMm);
          for (const step of working)
            expect(recompute(step.expression!)).toBeCloseTo(step.result as number, 6);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('never take more area than there is', () => {
    fc.assert(
      fc.property(mm(500, 9000), mm(300, 2500), trays, (lengthMm, widthMm, tray) => {
        const { value, working } = traysOnBench({ lengthMm, widthMm }, tray);
        expect(value * tray.lengthMm * tray.widthMm).toBeLessThanOrEqual(lengthMm * widthMm);
        // One way round without mixing is never better.
        const plain = Math.floor(lengthMm / tray.lengthMm) * Math.floor(widthMm / tray.widthMm);
        expect(value).toBeGreaterThanOrEqual(plain);
        expect(recompute(working[0].expression!)).toBe(value);
      }),
    );
  });
  it('say so when a tray is wider than the bench', () => {
    const load = { lotId: 'a', trays: 1, tray: { lengthMm: 600, widthMm: 400 } };
    expect(() => benchLayout({ lengthMm: 3000, widthMm: 300 }, [load])).toThrow(/wider/);
    expect(() => benchLayout({ lengthMm: NaN, widthMm: 300 }, [])).toThrow(Unfit);
  });
});

describe('containers', () => {
  it('have a volume near what their sizes give, and an air share between 0 and 1', () => {
    for (const c of startingContainers) {
      const sized = containerVolume({ ...c, statedMl: null });
      expect(containerVolume(c).value / sized.value, c.name).toBeGreaterThan(0.7);
      expect(containerVolume(c).value / sized.value, c.name).toBeLessThan(1.3);
      expect(recompute(sized.working[0].expression!) / sized.value).toBeCloseTo(1, 6);
      const air = containerAirShare(c);
      expect(air.value).toBeGreaterThan(0);
      expect(air.value).toBeLessThan(1);
      expect(recompute(air.working[0].expression!)).toBeCloseTo(air.value, 5);
    }
  });
  it('need sizes', () => {
    expect(() => containerVolume({ ...startingContainers[0], depthMm: 0 })).toThrow(Unfit);
  });
});

describe('footprints', () => {
  const bench = {
    kind: 'bench',
    name: 'B',
    eastM: 2,
    northM: 3,
    angleDeg: 0,
    mediumId: null,
    design: { schema: 1, lengthMm: 4000, widthMm: 1500 },
  } as const;
  it('turn with their place', () => {
    expect(footprintOf(bench)).toEqual({ eastM: 2, northM: 3, widthM: 4, heightM: 1.5 });
    expect(footprintOf({ ...bench, angleDeg: 90 })).toMatchObject({ widthM: 1.5, heightM: 4 });
  });
  it('are as far apart as a barrow has room', () => {
    const a = footprintOf(bench);
    expect(distanceBetween(a, { ...a, eastM: 6.5 })).toBeCloseTo(0.5, 9);
    expect(distanceBetween(a, { ...a, eastM: 9, northM: 8.5 })).toBeCloseTo(5, 9);
    expect(distanceBetween(a, { ...a, eastM: 3 })).toBe(0);
  });
  it('leave a path to the next spot', () => {
    const a = footprintOf(bench);
    const spot = nextSpot([a], 1.2);
    expect(distanceBetween(a, { ...spot, widthM: 3, heightM: 1.2 })).toBeGreaterThanOrEqual(0.6);
    expect(nextSpot([], 1)).toEqual({ eastM: 0, northM: 0 });
  });
});
