import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { betaAfter, betaMean, betaProduct } from '../chance/beta';
import { gammaDraw, seededRandom } from '../chance/random';
import { recompute } from '../working/working';
import { chanceAtLeast } from './betaBinomial';
import { seedsToSow, sowingOutlook } from './seedsToSow';

const beta = fc.record({ alpha: fc.integer({ min: 1, max: 60 }), beta: fc.integer({ min: 1, max: 60 }) });
const stages = fc.array(beta, { minLength: 1, maxLength: 4 });

describe('how many seeds to sow', () => {
  it('is the smallest number that gives the chance wanted', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        stages,
        (target, probability, all) => {
          const n = seedsToSow({ target, probability, stages: all }).value;
          const share = betaProduct(all);
          expect(n).toBeGreaterThanOrEqual(target);
          expect(chanceAtLeast(n, target, share)).toBeGreaterThanOrEqual(probability);
          expect(chanceAtLeast(n - 1, target, share)).toBeLessThan(probability);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('never falls as more trees, or a surer chance, are wanted', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 300 }),
        fc.integer({ min: 0, max: 50 }),
        stages,
        (target, more, all) => {
          const seeds = (trees: number, probability: number) =>
            seedsToSow({ target: trees, probability, stages: all }).value;
          expect(seeds(target + more, 0.8)).toBeGreaterThanOrEqual(seeds(target, 0.8));
          expect(seeds(target, 0.9)).toBeGreaterThanOrEqual(seeds(target, 0.5));
        },
      ),
      { numRuns: 40 },
    );
  });

  it('gives the chance that drawing seed by seed gives', () => {
    const all = [
      { alpha: 18, beta: 6 },
      { alpha: 30, beta: 20 },
    ];
    const n = 400;
    const target = 170;
    const random = seededRandom(42);
    const drawBeta = (a: number, b: number) => {
      const x = gammaDraw(random, a, 1);
      return x / (x + gammaDraw(random, b, 1));
    };
    const trials = 4000;
    let met = 0;
    for (let i = 0; i < trials; i++) {
      const p = all.reduce((share, s) => share * drawBeta(s.alpha, s.beta), 1);
      let trees = 0;
      for (let s = 0; s < n; s++) if (random() < p) trees++;
      if (trees >= target) met++;
    }
    // The product of Betas is matched by two moments only, and 4 000 trials have an error of their own.
    expect(Math.abs(met / trials - sowingOutlook(n, target, all).chance)).toBeLessThan(0.04);
  });

  it('agrees with itself where one way of summing gives way to another', () => {
    const share = { alpha: 30, beta: 20 };
    const chance = (n: number) => chanceAtLeast(n, Math.round(n * 0.58), share);
    expect(Math.abs(chance(39_900) - chance(40_100))).toBeLessThan(0.002);
  });

  it('answers from one tree to a million', () => {
    const all = [{ alpha: 12, beta: 8 }];
    expect(seedsToSow({ target: 1, probability: 0.5, stages: all }).value).toBe(1);
    const million = seedsToSow({ target: 1_000_000, probability: 0.9, stages: all });
    expect(million.value).toBeGreaterThan(1_600_000);
    for (const step of million.working) {
      if (step.expression) expect(recompute(step.expression) / (step.result as number)).toBeCloseTo(1, 5);
    }
  });

  it.each([
    [{ target: 0, probability: 0.9, stages: [{ alpha: 1, beta: 1 }] }, /1 to 1 000 000/],
    [{ target: 2.5, probability: 0.9, stages: [{ alpha: 1, beta: 1 }] }, /whole number/],
    [{ target: NaN, probability: 0.9, stages: [{ alpha: 1, beta: 1 }] }, /whole number/],
    [{ target: 10, probability: 1, stages: [{ alpha: 1, beta: 1 }] }, /between 0 and 100/],
    [{ target: 10, probability: 0.9, stages: [] }, /stage/],
    [{ target: 10, probability: 0.9, stages: [{ alpha: 0, beta: 1 }] }, /above 0/],
    [{ target: 1_000_000, probability: 0.999, stages: [{ alpha: 0.01, beta: 10 }] }, /no number/],
  ])('%j is refused with a sentence', (question, sentence) => {
    expect(() => seedsToSow(question)).toThrow(sentence);
  });
});

describe('a share', () => {
  it('moves towards what was counted', () => {
    fc.assert(
      fc.property(
        beta,
        fc.integer({ min: 1, max: 200 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (prior, n, at) => {
          const k = Math.round(n * at);
          const after = betaMean(betaAfter(prior, k, n));
          expect(after).toBeGreaterThanOrEqual(Math.min(betaMean(prior), k / n) - 1e-12);
          expect(after).toBeLessThanOrEqual(Math.max(betaMean(prior), k / n) + 1e-12);
        },
      ),
    );
  });
});
