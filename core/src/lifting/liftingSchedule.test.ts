import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mondayOf } from '../calendar/day';
import { liftingDays, liftingOdds, liftingSchedule, type LotToLift } from './liftingSchedule';

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
});

const monday = mondayOf(20_000);
const week = [0, 1, 2, 3, 4];
const hands = { people: 2, hoursADay: 4, weekdays: week };
const year = (...means: number[]) => ({
  tMinC: means.map((mean) => mean - 2),
  tMaxC: means.map((mean) => mean + 2),
});

describe('days for lifting', () => {
  it('are none at the weekend, and none while the medium is frozen', () => {
    const mild = liftingDays(year(...Array<number>(7).fill(5)), monday - 1, 7, hands);
    expect(mild.map(({ hours }) => hours)).toEqual([8, 8, 8, 8, 8, 0, 0]);
    const cold = liftingDays(year(5, -4, -4, -4, 1, 5, 5), monday - 1, 7, hands);
    // Frost goes in over days, and comes out over days.
    expect(cold.map(({ hours }) => hours)).toEqual([8, 8, 0, 0, 0, 0, 0]);
  });
});

describe('lifting over the weather years', () => {
  const lots = [lot('a', 16, monday, monday + 2), lot('b', 8, monday, monday + 30)];
  const mild = year(...Array<number>(90).fill(5));
  const hard = year(...Array<number>(20).fill(-6), ...Array<number>(70).fill(5));
  it('says in how many all are in time, and each', () => {
    const odds = liftingOdds(lots, hands, [mild, mild, mild, hard], monday - 1);
    expect(odds.through).toBe(0.75);
    expect(odds.lots.map(({ id, chance }) => [id, chance])).toEqual([
      ['a', 0.75],
      ['b', 1],
    ]);
    expect(odds.frozen).toBeGreaterThan(0);
    expect(odds.blocks[0]).toEqual({ day: monday, id: 'a', hours: 8 });
  });
  it('never gets worse with one more pair of hands', () => {
    const some = fc.record({
      hours: fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 5 }),
      by: fc.integer({ min: 1, max: 40 }),
      people: fc.integer({ min: 1, max: 4 }),
    });
    fc.assert(
      fc.property(some, ({ hours, by, people }) => {
        const many = hours.map((h, i) => lot(String(i), h, monday, monday + by));
        const odds = liftingOdds(many, { ...hands, people }, [mild, hard], monday - 1);
        expect(odds.withOneMore).toBeGreaterThanOrEqual(odds.through);
      }),
    );
  });
});
