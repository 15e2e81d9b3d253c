import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dueAt } from '../src/jobs/pace';

describe('when Today is worked out next', () => {
  const ms = fc.integer({ min: 0, max: 100_000 });
  it('is after the last of some writes that come together, and not put off for ever by those that keep coming', () => {
    fc.assert(
      fc.property(ms, ms, (firstAt, more) => {
        const lastAt = firstAt + more;
        const due = dueAt({ firstAt, lastAt, restUntil: 0 });
        expect(due).toBeLessThanOrEqual(firstAt + 400);
        if (more < 300) expect(due).toBeGreaterThan(lastAt);
      }),
    );
  });
  it('leaves the machine as long as the last working took', () => {
    fc.assert(
      fc.property(ms, ms, ms, (firstAt, more, restUntil) => {
        expect(dueAt({ firstAt, lastAt: firstAt + more, restUntil })).toBeGreaterThanOrEqual(restUntil);
      }),
    );
  });
});
