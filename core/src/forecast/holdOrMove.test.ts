import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Unfit } from '../working/unfit';
import { recompute } from '../working/working';
import { holdOrMove, holdTogether, type HoldTerms } from './holdOrMove';

const terms = (more: Partial<HoldTerms> = {}): HoldTerms => ({
  ladder: [
    { fromCm: 20, price: 1 },
    { fromCm: 40, price: 2 },
    { fromCm: 60, price: 4 },
  ],
  holdCost: 0.3,
  moveCost: 0.4,
  moveOnce: 0.5,
  lossShare: 0.05,
  ...more,
});
const runs = (at: number, spread = 0.1) =>
  Float64Array.from({ length: 50 }, (_, i) => at * (1 + spread * (i / 25 - 1)));
const lot = (now: number, ...ends: number[]) => ({ now: runs(now), ends: ends.map((h) => runs(h)) });

describe('hold, move or let go', () => {
  it('lets go what gains nothing by a season, and holds what does', () => {
    expect(holdOrMove(lot(65, 66, 67), null, 0.2, terms()).value).toMatchObject({ best: 'now', seasons: 0 });
    const slow = holdOrMove(lot(25, 62, 80), null, 0.2, terms()).value;
    expect(slow.best).toBe('hold');
    expect(slow.seasons).toBeGreaterThanOrEqual(1);
    expect(slow.choices.find((c) => c.choice === 'hold')!.chanceBest).toBeGreaterThan(0.9);
  });
  it('moves up where the new home is worth more than the moving', () => {
    const stays = lot(25, 35, 42);
    const moved = lot(25, 62, 90);
    expect(holdOrMove(stays, moved, 0.2, terms()).value.best).toBe('move');
    expect(holdOrMove(stays, moved, 0.2, terms({ moveOnce: 20 })).value.best).not.toBe('move');
  });
  it('says at what cost it turns: dearer than that, it is no longer held', () => {
    const slow = lot(25, 62, 64);
    const { turnsAt } = holdOrMove(slow, null, 0.2, terms()).value;
    expect(holdOrMove(slow, null, 0.2, terms({ holdCost: turnsAt! - 0.05 })).value.best).toBe('hold');
    expect(holdOrMove(slow, null, 0.2, terms({ holdCost: turnsAt! + 0.05 })).value.best).toBe('now');
  });
  it('is never worth less for having the choice of another season', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 10, max: 120, noNaN: true }), { minLength: 1, maxLength: 3 }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        (grown, holdCost, lossShare) => {
          const ends = grown.map((_, i) => Math.max(...grown.slice(0, i + 1), 20));
          const { value } = holdOrMove(lot(20, ...ends), null, 0.25, terms({ holdCost, lossShare }));
          const one = holdOrMove(lot(20, ends[0]), null, 0.25, terms({ holdCost, lossShare })).value;
          const worth = (v: typeof value) => v.choices.find((c) => c.choice === 'hold')!.value;
          // Groups foresee by their mean: a tree here and there is held that had better gone.
          expect(worth(value)).toBeGreaterThanOrEqual(worth(one) - 0.1);
          const chances = value.choices.reduce((t, c) => t + c.chanceBest, 0);
          expect(chances).toBeGreaterThanOrEqual(1 - 1e-9);
        },
      ),
    );
  });
  it('shows its working, and refuses what cannot be', () => {
    for (const step of holdOrMove(lot(25, 62), lot(25, 70), 0.2, terms()).working)
      if (step.expression) expect(recompute(step.expression)).toBeCloseTo(step.result as number, 2);
    expect(() => holdOrMove(lot(25, 62), null, 0.2, terms({ ladder: [] }))).toThrow(Unfit);
    expect(() => holdOrMove(lot(25), null, 0.2, terms())).toThrow(/No season/);
    expect(() => holdOrMove(lot(25, 30), null, 0.2, terms({ holdCost: -1 }))).toThrow(/0 or more/);
    expect(() => holdOrMove(lot(25, 30), null, 0.2, terms({ lossShare: 1 }))).toThrow(/all of them/);
  });
});

describe('a whole bed', () => {
  const stand = (name: string, trees: number, ...heights: number[]) => ({
    name,
    trees,
    said: holdOrMove(lot(heights[0], ...heights.slice(1)), null, 0.2, terms()).value,
  });
  it('is emptied, held, or parted by its lots, and says what its ground would have to earn elsewhere', () => {
    const done = stand('ALD', 100, 65, 66);
    const slow = stand('OAK', 50, 25, 62);
    expect(holdTogether([done], 4).value).toMatchObject({ best: 'clear', elsewherePerM2: null });
    expect(holdTogether([slow], 4).value.best).toBe('hold');
    const both = holdTogether([done, slow], 4);
    expect(both.value.best).toBe('each');
    const gain = both.value.worth.each - both.value.worth.clear;
    expect(both.value.elsewherePerM2).toBeCloseTo(gain / 4, 9);
    const step = both.working.at(-1)!;
    expect(recompute(step.expression!)).toBeCloseTo(step.result as number, 1);
  });
  it('is never worth less lot by lot, nor more than its lots', () => {
    const height = fc.double({ min: 5, max: 150, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 500 }), height, height), { minLength: 1, maxLength: 4 }),
        (all) => {
          const lots = all.map(([trees, now, end], i) => stand(`${i}`, trees, now, end));
          const { worth, best } = holdTogether(lots, 3).value;
          expect(worth.each).toBeGreaterThanOrEqual(Math.max(worth.clear, worth.hold) - 1e-9);
          expect(worth[best]).toBeCloseTo(worth.each, 9);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('refuses a bed with nothing on it', () => {
    expect(() => holdTogether([], 4)).toThrow(Unfit);
    expect(() => holdTogether([stand('ALD', 10, 30, 40)], 0)).toThrow(/ground/);
  });
});
