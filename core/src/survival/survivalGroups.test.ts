import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gammaDraw, seededRandom, type Random } from '../chance/random';
import { chanceBetter, survivalGroups, treesToTell, type SurvivalCase } from './survivalGroups';

const betaDraw = (random: Random, mean: number, rho: number) => {
  const weight = 1 / rho - 1;
  const a = gammaDraw(random, mean * weight, 1);
  return a / (a + gammaDraw(random, (1 - mean) * weight, 1));
};
const binomialDraw = (random: Random, n: number, p: number) => {
  let k = 0;
  for (let i = 0; i < n; i++) if (random() < p) k++;
  return k;
};

/** Nurseries whose groups differ, and whose plantings of a group differ: what is found on walks, and what is true. */
function simulated(random: Random, groups: number) {
  const mean = 0.6 + 0.3 * random();
  const truth = new Map<string, number>();
  const cases: SurvivalCase[] = [];
  for (let g = 0; g < groups; g++) {
    const share = betaDraw(random, mean, 0.06);
    truth.set(`g${g}`, share);
    const plantings = 1 + Math.floor(4 * random());
    for (let p = 0; p < plantings; p++) {
      const n = 10 + Math.floor(190 * random() ** 2);
      const alive = binomialDraw(random, n, betaDraw(random, share, 0.05));
      cases.push({ group: `g${g}`, alive, dead: n - alive });
    }
  }
  return { truth, cases };
}

describe('survival by group', () => {
  it('keeps nine in ten of its intervals, and lies nearer the truth than raw shares', () => {
    const random = seededRandom(20_261);
    let [held, all, pooledError, rawError] = [0, 0, 0, 0];
    for (let nursery = 0; nursery < 300; nursery++) {
      const { truth, cases } = simulated(random, 4 + Math.floor(6 * random()));
      for (const { group, alive, dead, lower, mean, upper } of survivalGroups(cases).groups) {
        const share = truth.get(group)!;
        all++;
        if (lower <= share && share <= upper) held++;
        pooledError += (mean - share) ** 2;
        rawError += (alive / (alive + dead) - share) ** 2;
      }
    }
    expect(held / all).toBeGreaterThan(0.88);
    expect(held / all).toBeLessThan(0.92);
    expect(pooledError).toBeLessThan(0.9 * rawError);
  });
  it('pulls a small group towards the others, a large one hardly', () => {
    const cases = [
      { group: 'large', alive: 90, dead: 10 },
      { group: 'large', alive: 92, dead: 8 },
      { group: 'other', alive: 80, dead: 20 },
      { group: 'small', alive: 0, dead: 3 },
    ];
    const { groups } = survivalGroups(cases);
    const of = (name: string) => groups.find(({ group }) => group === name)!;
    expect(of('small').mean).toBeGreaterThan(0.4);
    expect(Math.abs(of('large').mean - 0.91)).toBeLessThan(0.05);
    expect(groups[0].group).toBe('large');
  });
  it('of one planting is no surer than plantings of a kind are alike', () => {
    const [one] = survivalGroups([{ group: 'a', alive: 800, dead: 200 }]).groups;
    expect(one.upper - one.lower).toBeGreaterThan(0.15);
    expect(one.next.alpha + one.next.beta).toBeLessThan(one.share.alpha + one.share.beta);
  });
  it('takes whatever walks find, in any order, and leaves out what nobody looked at', () => {
    const found = fc.record({
      group: fc.constantFrom('a', 'b', 'c'),
      alive: fc.integer({ min: 0, max: 400 }),
      dead: fc.integer({ min: 0, max: 400 }),
    });
    fc.assert(
      fc.property(fc.array(found, { maxLength: 9 }), (cases) => {
        const { groups } = survivalGroups([...cases, { group: 'nobody', alive: 0, dead: 0 }]);
        const turned = survivalGroups([...cases].reverse()).groups;
        expect(groups.some(({ group }) => group === 'nobody')).toBe(false);
        for (const [i, { alive, dead, lower, mean, upper, plantings }] of groups.entries()) {
          expect(0 <= lower && lower <= mean && mean <= upper && upper <= 1).toBe(true);
          expect(turned[i].mean).toBeCloseTo(mean, 9);
          expect(alive + dead).toBeGreaterThan(0);
          expect(plantings).toBeGreaterThan(0);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('refuses counts below nothing', () => {
    expect(() => survivalGroups([{ group: 'a', alive: -1, dead: 2 }])).toThrow(/0 or more/);
  });
});

describe('one group against another', () => {
  it('is better with the chance that draws of both show, and worse with the rest', () => {
    const a = { alpha: 42.5, beta: 8.5 };
    const b = { alpha: 30.5, beta: 10.5 };
    const random = seededRandom(7);
    const draw = ({ alpha, beta }: typeof a) => {
      const x = gammaDraw(random, alpha, 1);
      return x / (x + gammaDraw(random, beta, 1));
    };
    let wins = 0;
    for (let i = 0; i < 40_000; i++) if (draw(a) > draw(b)) wins++;
    expect(chanceBetter(a, b)).toBeCloseTo(wins / 40_000, 2);
    expect(chanceBetter(a, b) + chanceBetter(b, a)).toBeCloseTo(1, 3);
    expect(chanceBetter(a, a)).toBeCloseTo(0.5, 3);
  });
  it('asks for more trees the smaller the difference, and for none where none is seen', () => {
    expect(treesToTell(0.9, 0.8)).toBeLessThan(treesToTell(0.9, 0.85)!);
    expect(treesToTell(0.8, 0.8)).toBeNull();
  });
});
