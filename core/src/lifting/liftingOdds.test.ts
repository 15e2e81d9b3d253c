import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mondayOf } from '../calendar/day';
import { liftingDays } from './liftingDays';
import { liftingOdds } from './liftingOdds';
import type { LotToLift } from './liftingSchedule';

const lot = (id: string, hours: number, from: number, by: number): LotToLift => ({ id, hours, from, by });
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
  it('are none in a downpour, and half where midday dries bare roots too fast', () => {
    const rain = { ...year(5, 5, 5), rainMm: [0, 30, NaN] };
    expect(liftingDays(rain, monday - 1, 3, hands)).toMatchObject([
      { hours: 8, unfit: null },
      { hours: 0, unfit: 'downpour' },
      { hours: 8, unfit: null },
    ]);
    const spring = { tMinC: [2, 9], tMaxC: [22, 13] };
    expect(liftingDays(spring, monday - 1, 2, hands)).toMatchObject([
      { hours: 4, unfit: 'drying' },
      { hours: 8, unfit: null },
    ]);
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
    expect(odds.unfit.frozen).toBeGreaterThan(0);
    expect(odds.unfit.downpour).toBe(0);
    expect(odds.blocks[0]).toEqual({ day: monday, id: 'a', hours: 8 });
  });
  it('says what a lot moved by hand costs', () => {
    const late = lots.map((one) => (one.id === 'a' ? { ...one, moved: monday + 2 } : one));
    const odds = liftingOdds(late, hands, [mild, mild], monday - 1);
    expect([odds.through, odds.atBest]).toEqual([0, 1]);
    expect(odds.blocks[0]).toEqual({ day: monday, id: 'b', hours: 8 });
    expect(odds.days.slice(4, 7).map(({ hours }) => hours)).toEqual([8, 0, 0]);
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
