import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../chance/random';
import { chanceHigher, compareRoots } from './compareRoots';

const group = (name: string, ...lots: [k: number, n: number][]) => ({
  name,
  lots: lots.map(([k, n]) => ({ k, n })),
});

describe('groups of plants by their roots', () => {
  it('come best first, with the chance that each beats the best of the others', () => {
    const { value } = compareRoots([
      group('Tube', [2, 10], [3, 9]),
      group('Slit-wall cell', [9, 9], [8, 10]),
      group('Never pulled', [0, 0]),
    ]);
    expect(value.map((g) => g.name)).toEqual(['Slit-wall cell', 'Tube']);
    expect(value[0]).toMatchObject({ lots: 2, plants: 19, passing: 17 });
    expect(value[0].chanceBest).toBeGreaterThan(0.99);
    expect(value[0].chanceBest! + value[1].chanceBest!).toBeCloseTo(1, 2);
    expect(value[1].share.p10).toBeLessThan(value[1].share.mean);
    expect(compareRoots([group('One', [3, 4])]).value[0].chanceBest).toBeNull();
    expect(compareRoots([]).value).toEqual([]);
  });
  it('are told apart the less, the more a few lots carry', () => {
    const one = compareRoots([group('A', [45, 50]), group('B', [35, 50])]).value[0].chanceBest!;
    const many = compareRoots([
      group('A', ...Array.from({ length: 10 }, (): [number, number] => [9, 10]).slice(0, 5)),
      group('B', ...Array.from({ length: 5 }, (): [number, number] => [7, 10])),
    ]).value[0].chanceBest!;
    expect(many).toBeGreaterThan(one);
  });
  it('stand even when they are alike, and mirror one another', () => {
    const weight = fc.double({ min: 0.6, max: 60, noNaN: true });
    fc.assert(
      fc.property(weight, weight, weight, weight, (a, b, c, d) => {
        const there = chanceHigher({ alpha: a, beta: b }, { alpha: c, beta: d });
        const back = chanceHigher({ alpha: c, beta: d }, { alpha: a, beta: b });
        expect(there + back).toBeCloseTo(1, 2);
        expect(chanceHigher({ alpha: a, beta: b }, { alpha: a, beta: b })).toBeCloseTo(0.5, 2);
      }),
      { numRuns: 40 },
    );
  });
  it('agree with simulation', () => {
    // Beta(3, 2) against Beta(2, 3) by order statistics: the third and second smallest of four uniform numbers.
    const random = seededRandom(3);
    const nth = (k: number) => Array.from({ length: 4 }, random).sort((x, y) => x - y)[k - 1];
    let higher = 0;
    for (let i = 0; i < 40_000; i++) if (nth(3) > nth(2)) higher++;
    expect(chanceHigher({ alpha: 3, beta: 2 }, { alpha: 2, beta: 3 })).toBeCloseTo(higher / 40_000, 1);
  });
});
