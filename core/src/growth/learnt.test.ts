import { describe, expect, it } from 'vitest';
import { normalDraw, seededRandom } from '../chance/random';
import { learnFrom, type LotTaught } from './learnt';

/** A lot’s posterior of a log factor, as its own records and the starting value make it. */
function lot(truth: number, records: number, random: () => number, prior = 0.35, reading = 0.15): LotTaught {
  const seen = truth + (reading / Math.sqrt(records)) * normalDraw(random);
  const precision = 1 / prior ** 2 + records / reading ** 2;
  return {
    lotId: 'x',
    code: '26-X',
    logMean: (seen * records) / reading ** 2 / precision,
    logSd: 1 / Math.sqrt(precision),
  };
}

describe('what finished lots teach', () => {
  it('is nothing when no lot was ever measured', () => {
    expect(learnFrom([], 0.35)).toBeNull();
    expect(learnFrom([{ lotId: 'a', code: 'a', logMean: 0, logSd: 0.35 }], 0.35)).toBeNull();
    expect(() => learnFrom([], 0)).toThrow(/above 0/);
  });
  it('takes the starting value out before it pools, so that it is not counted once a lot', () => {
    const random = seededRandom(3);
    const lots = Array.from({ length: 12 }, () => lot(0.4, 2, random));
    const { factor, startingShare } = learnFrom(lots, 0.35)!.value;
    // The bare mean of the posteriors would fall short of the truth.
    const bare = lots.reduce((t, l) => t + l.logMean, 0) / lots.length;
    expect(Math.abs(Math.log(factor) - 0.4)).toBeLessThan(Math.abs(bare - 0.4));
    expect(startingShare).toBeLessThan(0.15);
  });
  it('holds the truth of a new lot within its nine-in-ten band 80 to 97 times of 100', () => {
    let held = 0;
    const times = 400;
    for (let t = 0; t < times; t++) {
      const random = seededRandom(1000 + t);
      const kind = 0.35 * 0.8 * normalDraw(random);
      const spread = 0.18;
      const lots = Array.from({ length: 5 }, () => lot(kind + spread * normalDraw(random), 3, random));
      const { factor, sdLog } = learnFrom(lots, 0.35)!.value;
      const next = kind + spread * normalDraw(random);
      if (Math.abs(next - Math.log(factor)) <= 1.645 * sdLog) held++;
    }
    expect(held / times).toBeGreaterThan(0.8);
    expect(held / times).toBeLessThan(0.97);
  });
  it('moves further from the species’ value with each lot that says the same, and never claims more spread than at first', () => {
    const one = { lotId: 'a', code: 'a', logMean: 0.3, logSd: 0.15 };
    const factors = [1, 2, 5, 20].map(
      (n) =>
        learnFrom(
          Array.from({ length: n }, () => one),
          0.35,
        )!.value,
    );
    for (let i = 1; i < factors.length; i++) {
      expect(factors[i].factor).toBeGreaterThan(factors[i - 1].factor);
      expect(factors[i].startingShare).toBeLessThan(factors[i - 1].startingShare);
    }
    for (const { sdLog } of factors) expect(sdLog).toBeLessThanOrEqual(0.35);
  });
});
