import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readAngle } from './readAngle';

describe('degrees of a place', () => {
  it.each([
    ['52.5', 52.5],
    ['−52,5', -52.5],
    ['52° 30′ N', 52.5],
    ["52°30'S", -52.5],
    ['S 41 17 24', -41.29],
    ['52º 30’ 0” n', 52.5],
    ['0', 0],
    ['65° n', 65],
    ['5', 5],
  ])('%s is a latitude', (text, degrees) => {
    expect(readAngle(text, 'latitude')).toBeCloseTo(degrees, 9);
  });
  it.each([
    ['W 4° 15′', -4.25],
    ['175,5 E', 175.5],
    ['-3 30', -3.5],
  ])('%s is a longitude', (text, degrees) => {
    expect(readAngle(text, 'longitude')).toBeCloseTo(degrees, 9);
  });
  it.each([
    ['', /cannot be read/],
    ['fifty', /cannot be read/],
    ['52.5° 30′', /cannot be read/],
    ['52° 75′ N', /up to 59/],
    ['95', /90° either way/],
    ['4° W', /N or S, not W. Are the two changed over/],
    ['-52 S', /either a minus or a letter/],
    ['52 30 10 5', /cannot be read/],
  ])('“%s” is no latitude, and a sentence says why', (text, why) => {
    expect(() => readAngle(text, 'latitude')).toThrow(why);
  });
  it('are read back as they were written in degrees, minutes and seconds', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 179 }),
        fc.integer({ min: 0, max: 59 }),
        fc.integer({ min: 0, max: 59 }),
        fc.constantFrom('E', 'W'),
        (d, m, s, side) => {
          const read = readAngle(`${d}° ${m}′ ${s}″ ${side}`, 'longitude');
          expect(read).toBeCloseTo((side === 'W' ? -1 : 1) * (d + m / 60 + s / 3600), 9);
        },
      ),
    );
  });
  it('never come out of what says none', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        let read: number;
        try {
          read = readAngle(text, 'latitude');
        } catch (error) {
          expect((error as Error).message).toMatch(/^Latitude: /);
          return;
        }
        expect(Math.abs(read)).toBeLessThanOrEqual(90);
      }),
      { numRuns: 500 },
    );
  });
});
