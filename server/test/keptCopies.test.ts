import { dayOf, isoOf } from '@kauri/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { copiesToDrop, copyDate, copyName } from '../src/backup/keptCopies';

/** Copies as nights go by: each night one is made, unless missed, and what no rule keeps goes. */
function nights(from: string, count: number, missed: ReadonlySet<number> = new Set()): string[] {
  let kept: string[] = [];
  for (let n = 0; n < count; n++) {
    const today = isoOf(dayOf(from) + n);
    if (!missed.has(n)) kept.push(today);
    const gone = new Set(copiesToDrop(kept, today));
    kept = kept.filter((on) => !gone.has(on));
  }
  return kept;
}

describe('nightly copies', () => {
  it('are kept each night for a week, each Sunday for five, each month for a year', () => {
    const kept = nights('2024-01-01', 800);
    const today = isoOf(dayOf('2024-01-01') + 799);
    const ages = kept.map((on) => dayOf(today) - dayOf(on));
    expect(ages.filter((age) => age < 7)).toHaveLength(7);
    expect(kept.filter((on) => on.endsWith('-01')).length).toBe(12);
    expect(kept.length).toBeLessThanOrEqual(7 + 5 + 12);
    expect(Math.max(...ages)).toBeGreaterThan(330);
  });
  it('always leave the newest, and a copy of the last three months’ every month, whatever nights were missed', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(399), { maxLength: 300 }), (missed) => {
        const set = new Set(missed);
        const kept = nights('2025-03-14', 400, set);
        const made = Array.from({ length: 400 }, (_, n) => n).filter((n) => !set.has(n));
        const newest = isoOf(dayOf('2025-03-14') + made.at(-1)!);
        expect(kept).toContain(newest);
        for (const month of ['2026-02', '2026-03', '2026-04'])
          if (made.some((n) => isoOf(dayOf('2025-03-14') + n).startsWith(month)))
            expect(kept.some((on) => on.startsWith(month))).toBe(true);
      }),
      { numRuns: 50 },
    );
  });
  it('are told by their names from other files', () => {
    expect(copyDate(copyName('2026-02-28'))).toBe('2026-02-28');
    for (const other of ['kauri-2026-02-30.backup', 'kauri-2026-02-28.backup.part', 'letters.txt'])
      expect(copyDate(other)).toBeNull();
  });
});
