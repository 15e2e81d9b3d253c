import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Home } from '../home/home';
import { rootStress } from './rootStress';

const tube: Home = {
  kind: 'container',
  name: 'Tube',
  cellMl: 150,
  depthMm: 160,
  airShare: 0.3,
  spaceable: true,
};
const pot: Home = { ...tube, cellMl: 15_000, depthMm: 300 };
const bed: Home = { kind: 'bed', densityPerM2: 200, settledDepthMm: 280, airShare: 0.6, headroomCm: null };
const nights = (...days: [low: number, high: number][]) =>
  [days.map((d) => d[0]), days.map((d) => d[1])] as const;

describe('frost and heat at the roots', () => {
  it('a night of −15 °C harms tubes, and freezes a deep bed and a large pot only later', () => {
    const hard = nights([3, 9], [2, 7], [-15, -2]);
    expect(rootStress(tube, ...hard)).toMatchObject({ kind: 'frost', risk: 'harm', frozen: 1 });
    const inBed = rootStress(bed, ...hard);
    expect(inBed).toMatchObject({ kind: 'frost', risk: 'near' });
    const days = Array.from({ length: 6 }, (): [number, number] => [-15, -6]);
    expect(rootStress(bed, ...nights(...days))).toMatchObject({ kind: 'frost', frozen: 1, risk: 'harm' });
    expect(rootStress(pot, ...nights(...days))!.frozen).toBeGreaterThan(0.9);
  });
  it('an ordinary frost is none', () => {
    expect(rootStress(tube, ...nights([2, 9], [-2, 5]))).toBeNull();
    expect(rootStress(bed, ...nights([-4, 4], [-3, 6]))).toBeNull();
  });
  it('a day of 42 °C harms small cells in the sun, and not in deep shade or a bed', () => {
    expect(rootStress(tube, ...nights([24, 42]))).toMatchObject({ kind: 'heat', risk: 'harm' });
    expect(rootStress({ ...tube, light: 0.3 }, ...nights([24, 42]))!.risk).not.toBe('harm');
    expect(rootStress(bed, ...nights([24, 42]))).toBeNull();
    expect(rootStress(tube, ...nights([14, 28]))).toBeNull();
  });
  it('is never less for a colder night, nor for a thinner home', () => {
    const rank = { harm: 3, near: 2, watch: 1 } as const;
    const of = (home: Home, low: number) => {
      const stress = rootStress(home, ...nights([-4, 1], [low, low + 8]));
      return stress?.kind === 'frost' ? rank[stress.risk] : 0;
    };
    fc.assert(
      fc.property(
        fc.double({ min: -25, max: -1, noNaN: true }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (low, colder) => {
          expect(of(tube, low - colder)).toBeGreaterThanOrEqual(of(tube, low));
          expect(of(tube, low)).toBeGreaterThanOrEqual(of(bed, low));
        },
      ),
    );
  });
});
