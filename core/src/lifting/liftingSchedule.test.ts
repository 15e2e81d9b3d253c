import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { liftingSchedule, type LotToLift } from './liftingSchedule';

const lot = (id: string, hours: number, from: number, by: number): LotToLift => ({ id, hours, from, by });

/** The least greatest lateness of any order, whole hours, one hour at a time: every way is tried. */
function leastLateness(days: readonly { day: number; hours: number }[], lots: readonly LotToLift[]): number {
  const known = new Map<string, number>();
  const slots = days.flatMap(({ day, hours }) => Array.from({ length: hours }, () => day));
  const from = (at: number, left: readonly number[]): number => {
    if (left.every((hours) => hours === 0)) return -Infinity;
    if (at === slots.length) return Infinity;
    const key = `${at} ${left.join()}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    let best = from(at + 1, left);
    left.forEach((hours, i) => {
      if (hours === 0 || lots[i].from > slots[at]) return;
      const next = left.map((h, k) => (k === i ? h - 1 : h));
      const late = next[i] === 0 ? slots[at] - lots[i].by : -Infinity;
      best = Math.min(best, Math.max(late, from(at + 1, next)));
    });
    known.set(key, best);
    return best;
  };
  return from(
    0,
    lots.map(({ hours }) => hours),
  );
}

describe('a lifting schedule', () => {
  const small = fc.record({
    hours: fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 4, maxLength: 6 }),
    lots: fc.array(
      fc.record({
        hours: fc.integer({ min: 1, max: 3 }),
        from: fc.integer({ min: 0, max: 3 }),
        long: fc.integer({ min: 0, max: 3 }),
      }),
      { minLength: 1, maxLength: 3 },
    ),
  });
  it('is as good as the best of all orders', () => {
    fc.assert(
      fc.property(small, ({ hours, lots }) => {
        const days = hours.map((h, day) => ({ day, hours: h }));
        const toLift = lots.map((l, i) => lot(String(i), l.hours, l.from, l.from + l.long));
        expect(liftingSchedule({ days, lots: toLift }).maxLateness).toBe(leastLateness(days, toLift));
      }),
    );
  });
  it('gives no day more work than it has hours, no lot more than it needs, and none before it may be lifted', () => {
    fc.assert(
      fc.property(small, ({ hours, lots }) => {
        const days = hours.map((h, day) => ({ day, hours: h }));
        const toLift = lots.map((l, i) => lot(String(i), l.hours, l.from, l.from + l.long));
        const { blocks, finishedOn } = liftingSchedule({ days, lots: toLift });
        const sum = (of: typeof blocks) => of.reduce((total, block) => total + block.hours, 0);
        for (const { day, hours: most } of days)
          expect(sum(blocks.filter((b) => b.day === day))).toBeLessThanOrEqual(most + 1e-9);
        for (const { id, hours: need, from } of toLift) {
          const own = blocks.filter((b) => b.id === id);
          expect(sum(own)).toBeLessThanOrEqual(need + 1e-9);
          if (id in finishedOn) expect(sum(own)).toBeCloseTo(need, 9);
          for (const { day } of own) expect(day).toBeGreaterThanOrEqual(from);
        }
      }),
    );
  });
  it('with nothing to do is done; work below none is refused', () => {
    expect(liftingSchedule({ days: [{ day: 1, hours: 8 }], lots: [] })).toMatchObject({ finishedOn: {} });
    expect(() => liftingSchedule({ days: [], lots: [lot('a', -1, 0, 1)] })).toThrow(/0 or more/);
  });
  it('moved by hand, a lot begins on its day and before what is not moved', () => {
    fc.assert(
      fc.property(small, fc.integer({ min: 0, max: 5 }), ({ hours, lots }, moved) => {
        const days = hours.map((h, day) => ({ day, hours: h }));
        const toLift = lots.map((l, i) => lot(String(i), l.hours, l.from, l.from + l.long));
        toLift[0].moved = moved;
        const { blocks, finishedOn } = liftingSchedule({ days, lots: toLift });
        const begins = Math.max(moved, toLift[0].from);
        const done = finishedOn['0'] ?? Infinity;
        for (const { day, id } of blocks) {
          if (id === '0') expect(day).toBeGreaterThanOrEqual(begins);
          else expect(day < begins || day >= done).toBe(true);
        }
        // No order is better than the one nobody moved.
        const best = liftingSchedule({ days, lots: toLift.map((l) => ({ ...l, moved: undefined })) });
        expect(best.maxLateness).toBeLessThanOrEqual(liftingSchedule({ days, lots: toLift }).maxLateness);
      }),
    );
  });
});
