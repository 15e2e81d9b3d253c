import { fromShown, toShown } from '@kauri/core';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { keptUnlessTyped, typedAngle } from './typed';

const asShown = (cm: number) => String(Number(toShown(cm, 'height', 'us').toFixed(1)));
const read = (inches: number) => fromShown(inches, 'height', 'us');

test('degrees are read in any of the ways they are written; blank is none, and what cannot be read is refused', () => {
  expect(typedAngle('52° 30′ N', 'latitude')).toBe(52.5);
  expect(typedAngle('−2,5', 'longitude')).toBe(-2.5);
  expect(typedAngle(' ', 'latitude')).toBeNull();
  expect(typedAngle('up north', 'latitude')).toBeNaN();
});

test('a figure nobody touched stays as it was, however its field rounds it', () => {
  fc.assert(
    fc.property(fc.double({ min: 1, max: 2000, noNaN: true }), (cm) => {
      expect(keptUnlessTyped(asShown(cm), cm, asShown, read)).toBe(cm);
    }),
  );
});

test('what is typed is read, and a blank is nothing', () => {
  expect(keptUnlessTyped('10', 60, asShown, read)).toBeCloseTo(25.4, 9);
  expect(keptUnlessTyped('10', null, asShown, read)).toBeCloseTo(25.4, 9);
  expect(keptUnlessTyped(' ', 60, asShown, read)).toBeNull();
  expect(keptUnlessTyped('ten', 60, asShown, read)).toBeNaN();
});
