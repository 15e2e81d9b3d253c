import { say, inWords } from '../speech/say';
import { betaAfter, betaMean, betaProduct, type Beta } from '../chance/beta';
import { put, sum, type Step, type Worked } from '../working/working';
import { chanceAtLeast, massesOf } from './betaBinomial';
import { shareStep, type PooledShare } from '../chance/pooledShare';
import { seedsToSow, sowingOutlook, type SowingOutlook } from './seedsToSow';

/** The four shares between a seed and a saleable tree, each with where it comes from. */
export interface SowingChain {
  viability: PooledShare;
  emergence: PooledShare;
  establishment: PooledShare;
  grade: PooledShare;
}

const chainWords: Record<keyof SowingChain, string> = inWords({
  viability: 'Share of seed alive',
  emergence: 'Share of live seed that comes up',
  establishment: 'Share of those up that live on',
  grade: 'Share of those that make the grade',
});
const links = Object.keys(chainWords) as (keyof SowingChain)[];

export interface SowingAsk {
  target: number;
  probability: number;
  chain: SowingChain;
  seedsPerKg: number;
  /** Seeds lying in store, to say when they do not suffice; null when not counted. */
  seedsHeld: number | null;
  pricePerKg: number | null;
}

export interface SowingPlan {
  seeds: number;
  grams: number;
  cost: number | null;
  outlook: SowingOutlook;
  /** Seeds short of what is held; 0 when it suffices. */
  short: number;
  /** Chance of the target for a run of seed numbers around the answer, for the slider. */
  curve: { seeds: number; chance: number; surplus: number }[];
  /** What one more germination test of 50 seeds would save, on average. */
  test: { seeds: number; cost: number | null };
}

const TEST_SEEDS = 50;

/**
 * Seeds, grams and odds for a target of good trees, the chance against the surplus around it, and what one
 * more germination test of fifty seeds would save on average.
 * @throws Unfit as {@link seedsToSow}
 */
export function sowingPlan(ask: SowingAsk): Worked<SowingPlan> {
  const { target, probability, chain, seedsPerKg, seedsHeld, pricePerKg } = ask;
  // A lot still to be sown is not the kind’s mean: lots differ, and that is in its shares.
  const stages = links.map((link) => chain[link].next);
  const { value: seeds, working } = seedsToSow({ target, probability, stages });
  const share = betaProduct(stages);
  const grams = (seeds / seedsPerKg) * 1000;
  const costOf = (n: number) => (pricePerKg === null ? null : (n / seedsPerKg) * pricePerKg);
  const saved = Math.max(0, seeds - seedsAfterTest(ask, seeds));
  const value: SowingPlan = {
    seeds,
    grams,
    cost: costOf(seeds),
    outlook: sowingOutlook(seeds, target, stages),
    short: seedsHeld === null ? 0 : Math.max(0, seeds - seedsHeld),
    curve: Array.from({ length: 25 }, (_, i) => {
      const n = Math.max(target, Math.round(seeds * (0.5 + i * 0.05)));
      return { seeds: n, chance: chanceAtLeast(n, target, share), surplus: n * betaMean(share) - target };
    }),
    test: { seeds: Math.round(saved), cost: costOf(saved) },
  };
  const steps: Step[] = [
    ...links.map((link) => shareStep(chainWords[link], chain[link])),
    ...working.slice(links.length),
    {
      what: say`By weight`,
      expression: sum`${seeds} ÷ ${seedsPerKg} × 1000`,
      result: grams,
      unit: 'g',
      inputs: [{ name: say`seeds a kilogram`, value: seedsPerKg, origin: 'starting' }],
    },
    {
      what: say`Saved on average by one more germination test of 50`,
      how: say`Each result the test might give, by its chance, and the seeds that would then be sown (${put(TEST_SEEDS)} tested included).`,
      result: value.test.seeds,
      unit: 'seeds',
    },
  ];
  return { value, working: steps };
}

/** Results of a test worked out; those between are taken on the straight line, for the desk must keep up with a slider. */
const EVERY = 3;

/** Seeds sown on average after testing fifty, the tested ones counted in: over all results by their chance. */
function seedsAfterTest({ target, probability, chain }: SowingAsk, untested: number): number {
  const viability = chain.viability.next;
  const rest = links.slice(1).map((link) => chain[link].next);
  const masses = massesOf(TEST_SEEDS, viability);
  const worked = new Map<number, number>();
  const seedsAt = (k: number) => {
    const at = Math.min(TEST_SEEDS, k);
    if (!worked.has(at))
      worked.set(at, needed(target, probability, [betaAfter(viability, at, TEST_SEEDS), ...rest], untested));
    return worked.get(at)!;
  };
  let expected = TEST_SEEDS;
  let covered = 0;
  for (let k = 0; k <= TEST_SEEDS; k++) {
    if (masses[k] < 1e-3) continue;
    const low = k - (k % EVERY);
    const part = (k - low) / EVERY;
    expected += masses[k] * ((1 - part) * seedsAt(low) + (part ? part * seedsAt(low + EVERY) : 0));
    covered += masses[k];
  }
  return TEST_SEEDS + (expected - TEST_SEEDS) / covered;
}

function needed(target: number, probability: number, stages: Beta[], untested: number): number {
  try {
    return seedsToSow({ target, probability, stages }).value;
  } catch {
    // So poor a result that no number does: as many again as without the test would be given up on.
    return untested * 2;
  }
}
