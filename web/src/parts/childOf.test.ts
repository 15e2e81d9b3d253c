import fc from 'fast-check';
import { v7 as newId } from 'uuid';
import { describe, expect, it } from 'vitest';
import { childOf } from './childOf';

describe('an id made from another', () => {
  it('is an id of the same time and version, the same for the same number, and another for another', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 5000 }), { minLength: 2 }), (numbers) => {
        const id = newId();
        const children = numbers.map((n) => childOf(id, n));
        expect(new Set([id, ...children]).size).toBe(numbers.length + 1);
        for (const [i, child] of children.entries()) {
          expect(child).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
          expect(child.slice(0, 28)).toBe(id.slice(0, 28));
          expect(childOf(id, numbers[i])).toBe(child);
        }
      }),
    );
  });
});
