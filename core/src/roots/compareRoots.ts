import { say } from '../speech/say';
import { betaCdf, betaQuantile } from '../chance/betaCdf';
import { betaMean, type Beta } from '../chance/beta';
import { pooledShare, type Outcome } from '../chance/pooledShare';
import type { Step, Worked } from '../working/working';

/** Plants raised alike: each lot's passing and pulled. */
export interface RootGroup {
  name: string;
  lots: Outcome[];
}

export interface GroupResult {
  name: string;
  lots: number;
  plants: number;
  passing: number;
  /** What the share that passes may be in truth, eight chances in ten. */
  share: { mean: number; p10: number; p90: number };
  /** Chance that it is better than the best of the others by share; null for a group alone. */
  chanceBest: number | null;
}

const POINTS = 200;

/** Chance that the share of A is above that of B, both known as Betas. */
export function chanceHigher(a: Beta, b: Beta): number {
  let sum = 0;
  for (let i = 0; i < POINTS; i++) sum += betaCdf(betaQuantile((i + 0.5) / POINTS, a), b);
  return sum / POINTS;
}

/**
 * Groups of plants by the share whose roots pass, best first. Plants of one lot share its luck, so each lot
 * counts as fewer than it has, and nothing is known beforehand.
 * @throws Unfit for a lot with more passing than pulled
 */
export function compareRoots(groups: readonly RootGroup[]): Worked<GroupResult[]> {
  const known = groups
    .filter((g) => g.lots.some((lot) => lot.n > 0))
    .map((g) => ({ ...g, beta: pooledShare({ alpha: 1, beta: 1 }, g.lots).beta }))
    .sort((a, b) => betaMean(b.beta) - betaMean(a.beta) || a.name.localeCompare(b.name));
  const value = known.map(({ name, lots, beta }, i): GroupResult => {
    const rival = known[i === 0 ? 1 : 0];
    return {
      name,
      lots: lots.filter((lot) => lot.n > 0).length,
      plants: lots.reduce((t, lot) => t + lot.n, 0),
      passing: lots.reduce((t, lot) => t + lot.k, 0),
      share: { mean: betaMean(beta), p10: betaQuantile(0.1, beta), p90: betaQuantile(0.9, beta) },
      chanceBest: rival ? chanceHigher(beta, rival.beta) : null,
    };
  });
  const working = value.map((g): Step => ({
    what: say`${g.name}: share that passes`,
    how: say`From even odds, each lot as n ÷ (1 + (n − 1) × 0.03) plants; eight chances in ten between ${Math.round(g.share.p10 * 100)} and ${Math.round(g.share.p90 * 100)} %.`,
    result: g.share.mean,
    inputs: [{ name: 'passing', value: say`${g.passing} of ${g.plants}, ${g.lots} lots`, origin: 'record' }],
    source: 'Beta-binomial with the design effect of clusters; Kish 1965',
  }));
  return { value, working };
}
