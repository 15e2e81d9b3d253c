import { itemsOf, type LotAsks } from '@kauri/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromKept, toKept } from '../src/jobs/kept';

describe('what is kept of a day', () => {
  it('comes back as it was, figures without end and texts that look like them too', () => {
    const figure = fc.oneof(
      fc.double({ noNaN: true }).filter((x) => !Object.is(x, -0)),
      fc.constantFrom(Infinity, -Infinity),
    );
    fc.assert(
      fc.property(
        fc.array(fc.record({ by: fc.option(figure), code: fc.oneof(fc.string(), fc.constant('Infinity')) })),
        (rows) => {
          expect(fromKept(toKept(rows))).toEqual(rows);
        },
      ),
    );
  });
  it('says the same of leaves that may never meet as on the day it was worked out', () => {
    const act = {
      lotId: 'a',
      rule: 'spread' as const,
      when: 'week' as const,
      by: 20_000,
      trees: 80,
      figures: { half: Infinity, heightCm: 9 },
    };
    const asks: LotAsks = {
      lotId: 'a',
      code: '26-BPE-01',
      standing: 80,
      sown: 0,
      acts: [act],
      late: [],
      roots: { call: 'pull', failing: 0, pulled: 0 },
      leavesSoon: false,
    };
    const kept = fromKept<LotAsks>(toKept(asks));
    expect(itemsOf([kept], [], 20_003)).toEqual(itemsOf([asks], [], 20_003));
    expect(itemsOf([kept], [], 20_003)[0].words.title).toMatch(/may meet any day/);
  });
});
