import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lessonsOf, type LotTeaching } from './lessons';

const taught = (lotId: string, logMean: number, logSd = 0.15) => ({
  lotId,
  code: lotId,
  logMean,
  logSd,
  priorSdLog: 0.4,
});
const lot = (
  speciesId: string,
  containerTypeId: string | null,
  teaching: LotTeaching['teaching'],
): LotTeaching => ({ speciesId, containerTypeId, teaching });

describe('what a nursery’s lots teach', () => {
  it('is told kind by kind: lots of another container or species say nothing of it', () => {
    const lessons = lessonsOf([
      lot('alder', 'tube', { vigour: taught('a', 0.4) }),
      lot('alder', 'tube', { vigour: taught('b', 0.4), height: taught('b', -0.2) }),
      lot('alder', 'pot', { vigour: taught('c', -0.4) }),
      lot('alder', null, { height: taught('d', 0.1) }),
      lot('alder', null, { height: taught('e', 0.1) }),
    ]);
    expect(lessons.map(({ key }) => key)).toEqual(['alder tube vigour', 'alder  height']);
    expect(lessons[0].value.lots).toBe(2);
    expect(lessons[0].value.factor).toBeGreaterThan(1.1);
    expect(lessons[0].working.length).toBeGreaterThan(2);
  });
  it('takes two lots at least, and lots whose records say something', () => {
    expect(lessonsOf([lot('alder', 'tube', { vigour: taught('a', 0.4) })])).toEqual([]);
    const mute = { vigour: taught('a', 0.4, 0.4) };
    expect(lessonsOf([lot('alder', 'tube', mute), lot('alder', 'tube', mute)])).toEqual([]);
    expect(lessonsOf([])).toEqual([]);
  });
  it('does not hang on the order lots come in, and puts what is furthest off first', () => {
    const some = fc.array(
      fc.record({
        speciesId: fc.constantFrom('alder', 'oak', 'birch'),
        containerTypeId: fc.constantFrom('tube', null),
        logMean: fc.double({ min: -0.6, max: 0.6, noNaN: true }),
      }),
      { maxLength: 24 },
    );
    fc.assert(
      fc.property(some, (lots) => {
        const all = lots.map(({ logMean, ...of }, i) => ({
          ...of,
          teaching: { height: taught(String(i), logMean) },
        }));
        const there = lessonsOf(all);
        const back = lessonsOf([...all].reverse());
        const factors = there.map(({ value }) => Math.abs(Math.log(value.factor)));
        expect(factors).toEqual([...factors].sort((a, b) => b - a));
        for (const lesson of there) {
          const same = back.find(({ key }) => key === lesson.key)!;
          expect(same.value.factor).toBeCloseTo(lesson.value.factor, 9);
          expect(same.value.lots).toBe(lesson.value.lots);
        }
      }),
    );
  });
});
