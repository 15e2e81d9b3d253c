import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { betaMean, betaProduct, type Beta } from '../chance/beta';
import { normalQuantile } from '../chance/normal';
import { put, sum, type Step, type Worked } from '../working/working';
import { chanceAtLeast } from './betaBinomial';

export interface SowingQuestion {
  /** Good trees wanted, 1 … 10⁶. */
  target: number;
  /** Chance of having them, between 0 and 1. */
  probability: number;
  /** Shares that must all succeed: viability, emergence, establishment, makes the grade. */
  stages: readonly Beta[];
  /** What it begins with, for the words of its working; seeds where left out. */
  from?: 'seeds' | 'cuttings';
}

/** Beyond this many seeds the answer is "not to be had this way". */
const MOST_SEEDS = 1e9;

/**
 * How many seeds to sow so that at least `target` good trees come of them with the chance wanted: the
 * smallest n with P(BetaBinomial(n) ≥ target) ≥ probability, the stages' product matched to one Beta by
 * its first two moments.
 * @returns seeds, a whole number
 * @throws Unfit with a sentence for a target, chance or stage that makes no sense
 */
export function seedsToSow({ target, probability, stages, from = 'seeds' }: SowingQuestion): Worked<number> {
  if (!(Number.isInteger(target) && target >= 1 && target <= 1e6)) {
    throw new Unfit(say`The number of trees wanted is a whole number from 1 to 1 000 000.`);
  }
  if (!(probability > 0 && probability < 1))
    throw new Unfit(say`The chance wanted lies between 0 and 100 %.`);
  const share = betaProduct(stages);
  const high = fewestSeeds(target, probability, share);
  return { value: high, working: workingOf(high, { target, probability, stages, from }, share) };
}

/** Chances are interpolated as probits, which run nearly straight; kept off the ends. */
const probitOf = (chance: number) => normalQuantile(Math.min(1 - 1e-12, Math.max(1e-12, chance)));

/**
 * The smallest number of seeds with the chance: bracketed by doubling, then closed in on by the straight line
 * between the bracket's probits, and by halves whenever that line does not close it fast enough.
 */
function fewestSeeds(target: number, probability: number, share: Beta): number {
  const wanted = probitOf(probability);
  const chanceAt = (n: number) => chanceAtLeast(n, target, share);
  const gapOf = (chance: number) => probitOf(chance) - wanted;
  let low = target - 1;
  let lowGap = probitOf(0) - wanted;
  let high = Math.ceil(target / betaMean(share)) + 1;
  let chance = chanceAt(high);
  while (chance < probability) {
    low = high;
    lowGap = gapOf(chance);
    high *= 2;
    if (high > MOST_SEEDS)
      throw new Unfit(say`So little of this seed is likely to make a tree that no number gives that chance.`);
    chance = chanceAt(high);
  }
  let highGap = gapOf(chance);
  for (let step = 0; high - low > 1; step++) {
    const line = low + ((high - low) * -lowGap) / (highGap - lowGap);
    // Every third step halves, so that a bent curve cannot hold the line to one end.
    const guess = step % 3 === 2 || !Number.isFinite(line) ? (low + high) / 2 : line;
    const mid = Math.min(high - 1, Math.max(low + 1, Math.round(guess)));
    const there = chanceAt(mid);
    if (there >= probability) {
      high = mid;
      highGap = gapOf(there);
    } else {
      low = mid;
      lowGap = gapOf(there);
    }
  }
  return high;
}

export interface SowingOutlook {
  /** Chance that at least the target comes of the seeds. */
  chance: number;
  expectedTrees: number;
  expectedSurplus: number;
}

/** What to expect of any number of seeds the grower types. */
export function sowingOutlook(seeds: number, target: number, stages: readonly Beta[]): SowingOutlook {
  const share = betaProduct(stages);
  const expectedTrees = seeds * betaMean(share);
  return {
    chance: chanceAtLeast(seeds, target, share),
    expectedTrees,
    expectedSurplus: expectedTrees - target,
  };
}

/**
 * Most trees that come of some seeds with a chance: the question turned round.
 * @param probability chance wanted, above 0 and below 1
 * @returns 0 where not even one tree is had so surely
 */
export function treesFrom(seeds: number, probability: number, stages: readonly Beta[]): number {
  const share = betaProduct(stages);
  let [low, high] = [0, Math.max(0, Math.floor(seeds))];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (chanceAtLeast(seeds, middle, share) >= probability) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The words in which a number of seeds, or of cuttings, is worked out. */
const wordsFor = {
  seeds: (chance: number) => ({
    share: say`Share of seeds that make a tree, all stages`,
    average: say`On average these seeds would do`,
    number: say`Seeds for a ${chance} % chance`,
    expected: say`Trees to expect`,
    grown: 'trees',
  }),
  cuttings: (chance: number) => ({
    share: say`Share of cuttings that make a plant, all stages`,
    average: say`On average these cuttings would do`,
    number: say`Cuttings for a ${chance} % chance`,
    expected: say`Plants to expect`,
    grown: 'plants',
  }),
};

function workingOf(
  seeds: number,
  { target, probability, stages, from }: Required<SowingQuestion>,
  share: Beta,
): Step[] {
  const mean = betaMean(share);
  const words = wordsFor[from](Math.round(probability * 100));
  return [
    ...stages.map((stage, i) => ({
      what: say`Stage ${i + 1}, mean share`,
      expression: sum`${stage.alpha} ÷ (${stage.alpha} + ${stage.beta})`,
      result: betaMean(stage),
      inputs: [
        {
          name: say`as if`,
          value: say`${put(stage.alpha)} of ${put(stage.alpha + stage.beta)}`,
          origin: 'starting' as const,
        },
      ],
    })),
    {
      what: words.share,
      expression: stages.map((stage) => put(betaMean(stage))).join(' × '),
      result: mean,
    },
    {
      what: words.average,
      expression: sum`${target} ÷ ${mean}`,
      result: target / mean,
      unit: from,
    },
    {
      what: words.number,
      how: say`Smallest number for which a Beta-binomial with weights ${put(share.alpha)} and ${put(share.beta)} gives at least ${target} trees with that chance.`,
      result: seeds,
      unit: from,
      source: 'Beta-binomial; product of Betas matched by mean and variance',
    },
    { what: words.expected, expression: sum`${seeds} × ${mean}`, result: seeds * mean, unit: words.grown },
  ];
}
