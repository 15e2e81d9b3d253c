import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { choiceOf, isPossible, type SeasonProblem } from './season';
import { madeSeason, type MadeSeason } from './season.fixture';
import { greedySeason } from './seasonGreedy';
import { solveSeason, worthOfRoom } from './seasonSolver';

/** The least that any set of ways that can be taken together comes to. */
function leastOf(problem: SeasonProblem): number {
  let least = Infinity;
  for (let set = 0; set < 2 ** problem.ways.length; set++) {
    const ways = problem.ways.flatMap((_, way) => (set & (1 << way) ? [way] : []));
    if (isPossible(problem, ways)) least = Math.min(least, choiceOf(problem, ways).cost);
  }
  return least;
}

const small = (seed: number, more: Partial<MadeSeason>): SeasonProblem => {
  const lines = 1 + (seed % 3);
  const made = madeSeason({ lines, kinds: 2, roomM2: 2.5, days: 300, weeks: 1, stocks: 2, seed, ...more });
  // At most nine ways, so that every set of them can be tried.
  return { ...made, ways: made.ways.filter((_, way) => lines < 3 || way % 4 < 3) };
};

describe('a season served', () => {
  it('is as good as the best of all sets of ways, on 200 small seasons', async () => {
    for (let seed = 0; seed < 200; seed++) {
      // Some in few hours, some where trees can be bought in at will.
      const problem = small(seed, {
        ...(seed % 2 === 0 && { hours: 3 }),
        ...(seed % 5 === 0 && { money: 1e6 }),
      });
      const greedy = greedySeason(problem);
      const { choice, bound } = await solveSeason(problem, greedy, { seconds: 10, near: 0 });
      const least = leastOf(problem);
      expect(isPossible(problem, greedy.ways)).toBe(true);
      expect(isPossible(problem, choice.ways)).toBe(true);
      expect(greedy.cost).toBeGreaterThanOrEqual(least - 1e-6);
      expect(choice.cost).toBeCloseTo(least, 6);
      expect(bound).toBeLessThanOrEqual(least + 1e-6);
    }
  });
  it('keeps to the money there is, and buys in what saves most for it', async () => {
    let bought = 0;
    for (let seed = 0; seed < 60; seed++) {
      const problem = small(seed, { money: 60 });
      const greedy = greedySeason(problem);
      const { choice, bound } = await solveSeason(problem, greedy, { seconds: 10, near: 0 });
      const least = leastOf(problem);
      for (const of of [greedy, choice]) {
        const spent =
          of.ways.reduce((sum, way) => sum + problem.ways[way].takes[0].amount, 0) +
          of.bought.reduce((sum, trees, line) => sum + trees * (problem.lines[line].buy ?? 0), 0);
        expect(spent).toBeLessThanOrEqual(60 + 1e-6);
        of.short.forEach((trees) => expect(trees).toBeGreaterThanOrEqual(0));
      }
      bought += choice.bought.reduce((a, b) => a + b, 0);
      expect(bound).toBeLessThanOrEqual(least + 1e-6);
      // Where money runs out, what stands could be shared out a little better; trees are bought whole.
      expect(choice.cost).toBeLessThanOrEqual(1.02 * least + 2);
    }
    expect(bought).toBeGreaterThan(0);
  });
  it('never takes more than is free, of any size, and serves every line or says how many are short', async () => {
    await fc.assert(
      fc.asyncProperty(fc.nat(1000), fc.integer({ min: 3, max: 9 }), async (seed, lines) => {
        const problem = madeSeason({
          lines,
          kinds: 3,
          roomM2: 4,
          days: 700,
          weeks: 5,
          stocks: 3,
          seed,
          hours: 12,
        });
        const greedy = greedySeason(problem);
        const { choice, bound, gap } = await solveSeason(problem, greedy, { seconds: 5 });
        expect(isPossible(problem, choice.ways)).toBe(true);
        expect(choice.cost).toBeLessThanOrEqual(greedy.cost);
        expect(bound).toBeLessThanOrEqual(choice.cost + 1e-6);
        expect(gap).toBeGreaterThanOrEqual(0);
        problem.lines.forEach(({ trees }, line) => {
          const sown = choice.ways.reduce(
            (n, w) => n + (problem.ways[w].line === line ? problem.ways[w].trees : 0),
            0,
          );
          const stood = choice.stock.reduce((n, of) => n + (of.get(line) ?? 0), 0);
          expect(sown + stood + choice.bought[line] + choice.short[line]).toBeGreaterThanOrEqual(trees);
        });
        choice.stock.forEach((of, i) =>
          expect([...of.values()].reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(problem.stocks[i].trees),
        );
      }),
      { numRuns: 12 },
    );
  });
  it('stops when it is told to, with the best so far', async () => {
    const problem = madeSeason({ lines: 60, kinds: 4, roomM2: 12, days: 728, weeks: 8, stocks: 10, seed: 4 });
    const greedy = greedySeason(problem);
    let told = 0;
    const { choice } = await solveSeason(problem, greedy, {
      seconds: 60,
      near: 0,
      told: () => ++told < 1,
    });
    expect(told).toBeGreaterThan(0);
    expect(isPossible(problem, choice.ways)).toBe(true);
    expect(choice.cost).toBeLessThanOrEqual(greedy.cost);
  });
  it('prices room that is short, and none that is not', async () => {
    const tight = madeSeason({ lines: 8, kinds: 1, roomM2: 2, days: 500, weeks: 3, stocks: 0, seed: 7 });
    const [worth] = await worthOfRoom(tight);
    expect(worth.perM2).toBeGreaterThan(0);
    expect(worth.from).toBeLessThanOrEqual(worth.until);
    expect(await worthOfRoom({ ...tight, free: [new Float64Array(500).fill(1e4)] })).toEqual([]);
  });
});
