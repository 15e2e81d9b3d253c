import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gradesOverlap, readGrade } from './grades';

describe('a grade in words', () => {
  it.each([
    ['40–60', 40, 60],
    ['40-60 cm', 40, 60],
    ['40 to 60', 40, 60],
    ['12,5–15', 12.5, 15],
    ['60+', 60, null],
    ['over 60', 60, null],
    ['100 and over', 100, null],
    ['under 40', null, 40],
    ['< 40', null, 40],
    ['feathered', null, null],
    ['', null, null],
    ['grade 2', null, null],
  ])('“%s” is from %s to %s', (words, from, to) => {
    expect(readGrade(words)).toEqual({ from, to });
  });
});

describe('grades', () => {
  const grade = (fromCm: number | null, toCm: number | null) => ({ fromCm, toCm });
  it('may meet at a height, and may not share one', () => {
    expect(gradesOverlap([grade(40, 60), grade(null, 40), grade(60, null)])).toBe(false);
    expect(gradesOverlap([grade(40, 60), grade(50, 80)])).toBe(true);
    expect(gradesOverlap([grade(40, null), grade(60, 80)])).toBe(true);
    expect(gradesOverlap([grade(null, null), grade(40, 60), grade(null, null)])).toBe(false);
    expect(gradesOverlap([])).toBe(false);
  });
  it('overlap exactly where some height belongs to two', () => {
    const one = fc
      .tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 30 }))
      .map(([from, more]) => grade(from, from + more));
    fc.assert(
      fc.property(fc.array(one, { maxLength: 5 }), (grades) => {
        const shared = Array.from({ length: 130 }, (_, i) => i / 2 + 0.25).some(
          (h) => grades.filter(({ fromCm, toCm }) => fromCm! <= h && h < toCm!).length > 1,
        );
        expect(gradesOverlap(grades)).toBe(shared);
      }),
    );
  });
});
