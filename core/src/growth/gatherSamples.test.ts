import fc from 'fast-check';
import { expect, test } from 'vitest';
import { gatherSamples, type TakenSample } from './gatherSamples';

const sizeOn = (day: number) => 10 + day / 10;
const samplesOn = (days: readonly number[], factor = 1): TakenSample[] =>
  days.map((day) => ({ day, n: 10, mean: factor * sizeOn(day), sd: 2 }));

test('few samples stay as they were taken', () => {
  const few = samplesOn([10, 20, 30, 200, 300, 301]);
  expect(gatherSamples(few, (day) => day, sizeOn)).toBe(few);
});

test('many become few, with every plant in them, and a lot that is its curve stays its curve', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 0, max: 900 }), { minLength: 7, maxLength: 80 }),
      fc.double({ min: 0.5, max: 2, noNaN: true }),
      (days, factor) => {
        days.sort((a, b) => a - b);
        const gathered = gatherSamples(samplesOn(days, factor), (day) => day, sizeOn);
        expect(gathered.length).toBeLessThanOrEqual(6);
        expect(gathered.reduce((t, s) => t + s.n, 0)).toBe(10 * days.length);
        for (const { day, mean } of gathered) expect(mean).toBeCloseTo(factor * sizeOn(day), 6);
        expect(gathered.map((s) => s.day)).toEqual([...gathered.map((s) => s.day)].sort((a, b) => a - b));
      },
    ),
  );
});

test('weighs a sample by its plants', () => {
  const many = samplesOn([1, 2, 3, 4, 5, 6, 7]).map((s, i) => ({ ...s, n: i === 0 ? 90 : 1, sd: 0 }));
  many[0].mean *= 1.5;
  const [old] = gatherSamples(
    many,
    (day) => day * 100,
    () => 10,
  );
  expect(old.mean).toBeGreaterThan(13);
});
