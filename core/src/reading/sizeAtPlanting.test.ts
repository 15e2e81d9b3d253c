import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { sizeAtPlanting } from './sizeAtPlanting';

const entry = '01a22cf5-1bbf-7000-8000-000000000001';
const sample = (on: string, what: 'height' | 'diameter', mean: number, sd: number) => ({
  ...{ entry, on, what, n: 20, mean, sd },
});
const both = [sample('2026-09-20', 'height', 50, 10), sample('2026-09-20', 'diameter', 7, 1.5)];
const planted = { on: dayOf('2027-02-10'), fromCm: null, toCm: null };

describe('the size at planting', () => {
  it('is the lot’s by its last samples before, of heights and collars', () => {
    expect(sizeAtPlanting(both, planted)).toEqual({ heightCm: 50, collarMm: 7 });
    const older = [sample('2026-08-01', 'height', 42, 9), ...both, sample('2027-02-20', 'height', 55, 9)];
    expect(sizeAtPlanting(older, planted)).toEqual({ heightCm: 50, collarMm: 7 });
  });
  it('is not known where one of the two is missing, or too long ago', () => {
    expect(sizeAtPlanting([both[0]], planted)).toBeNull();
    expect(sizeAtPlanting(both, { ...planted, on: dayOf('2027-06-01') })).toBeNull();
    expect(sizeAtPlanting([], planted)).toBeNull();
  });
  it('of a grade is within its heights, and the thicker the taller', () => {
    const tall = sizeAtPlanting(both, { ...planted, fromCm: 60, toCm: 80 })!;
    const short = sizeAtPlanting(both, { ...planted, fromCm: 20, toCm: 40 })!;
    expect(tall.heightCm).toBeGreaterThan(60);
    expect(tall.heightCm).toBeLessThan(70);
    expect(short.heightCm).toBeLessThan(40);
    expect(tall.collarMm).toBeGreaterThan(7);
    expect(short.collarMm).toBeLessThan(7);
    // 15.3 cm above the mean is 1.53 of its spread; collars follow by seven tenths of it.
    expect((tall.collarMm - 7) / 1.5).toBeCloseTo((0.7 * (tall.heightCm - 50)) / 10, 9);
  });
  it('of all grades together is the lot’s', () => {
    fc.assert(
      fc.property(fc.double({ min: 25, max: 75, noNaN: true }), (cm) => {
        const under = sizeAtPlanting(both, { ...planted, toCm: cm })!;
        const over = sizeAtPlanting(both, { ...planted, fromCm: cm })!;
        expect(under.heightCm).toBeLessThan(cm);
        expect(over.heightCm).toBeGreaterThan(cm - 0.2);
        expect(under.collarMm).toBeLessThan(over.collarMm);
      }),
    );
  });
  it('is not made up for a grade its lot has no tree of', () => {
    expect(sizeAtPlanting(both, { ...planted, fromCm: 120, toCm: 150 })).toBeNull();
    expect(sizeAtPlanting([{ ...both[0], sd: 0 }, both[1]], { ...planted, fromCm: 20, toCm: 40 })).toEqual({
      heightCm: 50,
      collarMm: 7,
    });
  });
});
