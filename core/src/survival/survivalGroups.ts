import { say } from '../speech/say';
import type { Beta } from '../chance/beta';
import { betaMean } from '../chance/beta';
import { betaCdf, betaQuantile } from '../chance/betaCdf';
import { betweenLots, predictiveShare, type Outcome } from '../chance/pooledShare';
import { logBeta } from '../sowing/betaBinomial';
import { normalQuantile } from '../chance/normal';
import { Unfit } from '../working/unfit';

/** Trees planted together that a walk looked at, and the group they are compared in. */
export interface SurvivalCase {
  group: string;
  alive: number;
  dead: number;
}

/** What is known of the survival of a group. */
export interface SurvivalGroup {
  group: string;
  alive: number;
  dead: number;
  /** Plantings of it that were walked. */
  plantings: number;
  /** Its share in the long run, as all groups together let it be known. */
  share: Beta;
  /** The share of its next planting: as much wider as plantings differ. */
  next: Beta;
  lower: number;
  mean: number;
  upper: number;
}

export interface SurvivalGroups {
  groups: SurvivalGroup[];
  /** How much more alike trees of one planting are than those of two of the same group, ρ. */
  betweenPlantings: number;
}

/** Usual level of the intervals shown. */
export const SURVIVAL_LEVEL = 0.9;

/**
 * Survival by group, partly pooled: a group's own trees count as independent ones (trees of one planting share its luck, the
 * design effect of clusters), beside what the groups have in common (a beta-binomial, over every mean and likeness of groups by
 * how likely it is), so that a small group does not shout. One group stands by itself with Jeffreys' half tree on either side.
 * @throws Unfit for counts below 0
 * @see Gelman et al. 2013, Bayesian Data Analysis, 3rd ed., 5.3; Kish 1965, Survey Sampling, ch. 5
 */
export function survivalGroups(
  cases: readonly SurvivalCase[],
  level: number = SURVIVAL_LEVEL,
): SurvivalGroups {
  if (cases.some(({ alive, dead }) => !(alive >= 0 && dead >= 0)))
    throw new Unfit(say`Trees alive and dead are 0 or more.`);
  if (!(level > 0 && level < 1)) throw new Unfit(say`A level lies between 0 and 1.`);
  const seen = cases.filter(({ alive, dead }) => alive + dead > 0);
  const byGroup = new Map<string, Outcome[]>();
  for (const { group, alive, dead } of seen)
    byGroup.set(group, [...(byGroup.get(group) ?? []), { k: alive, n: alive + dead }]);
  const betweenPlantings = withinGroups([...byGroup.values()]);
  const worth = [...byGroup].map(([group, outcomes]) => {
    let [k, n] = [0, 0];
    for (const one of outcomes) {
      const effective = one.n / (1 + (one.n - 1) * betweenPlantings);
      k += (one.k / one.n) * effective;
      n += effective;
    }
    return { group, outcomes, k, n };
  });
  const kinds = worth.length > 1 ? likelyKinds(worth) : ALONE;
  const groups = worth.map(({ group, outcomes, k, n }): SurvivalGroup => {
    const share = shareAmong(kinds, k, n);
    const alive = outcomes.reduce((total, one) => total + one.k, 0);
    const trees = outcomes.reduce((total, one) => total + one.n, 0);
    return {
      group,
      alive,
      dead: trees - alive,
      plantings: outcomes.length,
      share,
      next: predictiveShare(share, betweenPlantings),
      lower: betaQuantile((1 - level) / 2, share),
      mean: betaMean(share),
      upper: betaQuantile((1 + level) / 2, share),
    };
  });
  return {
    groups: groups.sort((a, b) => b.mean - a.mean || a.group.localeCompare(b.group)),
    betweenPlantings,
  };
}

/** ρ of plantings of one group, from all groups that have several; the usual spread where none has. */
function withinGroups(groups: readonly (readonly Outcome[])[]): number {
  const several = groups.filter((outcomes) => outcomes.length > 1);
  if (several.length === 0) return betweenLots([]);
  const weights = several.map((outcomes) => outcomes.length - 1);
  const all = weights.reduce((total, w) => total + w, 0);
  return several.reduce((total, outcomes, i) => total + (weights[i] / all) * betweenLots(outcomes), 0);
}

/** One way groups may be alike: their shares as a Beta, and how likely that is. */
interface Kind {
  alpha: number;
  beta: number;
  weight: number;
}

/** One group alone: half a tree on either side. */
const ALONE: readonly Kind[] = [{ alpha: 0.5, beta: 0.5, weight: 1 }];
/** Means and likenesses that are tried, and how much groups of trees usually differ (ρ, a starting value). */
const MEANS = Array.from({ length: 48 }, (_, i) => (i + 0.5) / 48);
const LIKENESSES = [0.004, 0.007, 0.012, 0.02, 0.033, 0.055, 0.09, 0.14, 0.21, 0.3, 0.42];
const USUAL_LIKENESS = 0.08;

/** Every way groups may be alike, by what is known of them: the chance that a beta-binomial of it gives what was found. */
function likelyKinds(groups: readonly { k: number; n: number }[]): Kind[] {
  const logs = MEANS.flatMap((mean) =>
    LIKENESSES.map((rho) => {
      const heavy = 1 / rho - 1;
      const [alpha, beta] = [mean * heavy, (1 - mean) * heavy];
      // Likenesses are tried in equal steps of their logarithm; large ones are the less usual.
      const usual = Math.log(rho) - rho / USUAL_LIKENESS;
      const seen = groups.reduce((t, { k, n }) => t + logBeta(alpha + k, beta + n - k), 0);
      return { alpha, beta, log: usual + seen - groups.length * logBeta(alpha, beta) };
    }),
  );
  const most = Math.max(...logs.map(({ log }) => log));
  return logs
    .map(({ alpha, beta, log }) => ({ alpha, beta, weight: Math.exp(log - most) }))
    .filter(({ weight }) => weight > 1e-6);
}

/** A group's share over all the ways groups may be alike, matched to a Beta by its first two moments. */
function shareAmong(kinds: readonly Kind[], k: number, n: number): Beta {
  let [all, mean, square] = [0, 0, 0];
  for (const { alpha, beta, weight } of kinds) {
    const [a, s] = [alpha + k, alpha + beta + n];
    all += weight;
    mean += (weight * a) / s;
    square += (weight * a * (a + 1)) / (s * (s + 1));
  }
  mean /= all;
  const heavy = (mean * (1 - mean)) / (square / all - mean ** 2) - 1;
  return { alpha: mean * heavy, beta: (1 - mean) * heavy };
}

/** Steps of the integral of {@link chanceBetter}. */
const STEPS = 400;

/**
 * Chance that the first share is the higher of two known apart, by the integral of one's distribution over the other's.
 * @returns 0–1
 */
export function chanceBetter(a: Beta, b: Beta): number {
  let chance = 0;
  for (let i = 0; i < STEPS; i++) chance += betaCdf(betaQuantile((i + 0.5) / STEPS, a), b);
  return chance / STEPS;
}

/**
 * Trees to look at in each of two groups so that a difference as large as the one seen would be told apart, at one chance in
 * ten of a false alarm and with eight chances in ten.
 * @returns null where no difference is seen
 * @see Fleiss, Levin & Paik 2003, Statistical Methods for Rates and Proportions, 3rd ed., 4.2
 */
export function treesToTell(a: number, b: number): number | null {
  const difference = Math.abs(a - b);
  if (difference < 0.005) return null;
  const z = normalQuantile(0.95) + normalQuantile(0.8);
  return Math.ceil((z ** 2 * (a * (1 - a) + b * (1 - b))) / difference ** 2);
}
