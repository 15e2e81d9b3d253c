import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { betaMean, type Beta } from './beta';
import type { Origin, Step } from '../working/working';
import { put } from '../working/working';

/** One lot's outcome: k of n. */
export interface Outcome {
  k: number;
  n: number;
}

/** Weight of the usual spread between lots against the nursery’s own, in lots. */
const USUAL_WEIGHT = 5;
const USUAL_BETWEEN = 0.05;

/**
 * The share of the next lot, when what is known is that of the kind: lots differ, and their spread is added.
 * @param betweenLots ρ, the intraclass correlation of shares between lots, 0–1
 * @returns a Beta of the same mean with the variance m(1 − m)·[1/(s + 1) + ρ·s/(s + 1)]
 * @throws Unfit for a weight that is not above 0 or a ρ outside 0–1
 */
export function predictiveShare({ alpha, beta }: Beta, betweenLots: number): Beta {
  if (!(alpha > 0 && beta > 0 && Number.isFinite(alpha + beta)))
    throw new Unfit(say`A share needs two weights above 0.`);
  if (!(betweenLots >= 0 && betweenLots < 1)) throw new Unfit(say`What lots share lies between 0 and 1.`);
  const s = alpha + beta;
  const m = alpha / s;
  const spread = (1 + betweenLots * s) / (s + 1);
  const weight = 1 / spread - 1;
  return { alpha: m * weight, beta: (1 - m) * weight };
}

/**
 * How much more alike the seeds of one lot are than those of different lots, from the nursery’s own lots by moments
 * (analysis of variance; Donner 1986, Int. Stat. Rev. 54:67), shrunk to 0.05 with the weight of five lots.
 */
export function betweenLots(outcomes: readonly Outcome[]): number {
  const lots = outcomes.filter(({ n }) => n > 1);
  const k = lots.length;
  if (k < 2) return USUAL_BETWEEN;
  const n = lots.reduce((t, lot) => t + lot.n, 0);
  const share = lots.reduce((t, lot) => t + lot.k, 0) / n;
  const within = lots.reduce((t, lot) => t + lot.k * (1 - lot.k / lot.n), 0) / (n - k);
  const among = lots.reduce((t, lot) => t + lot.n * (lot.k / lot.n - share) ** 2, 0) / (k - 1);
  const size = (n - lots.reduce((t, lot) => t + lot.n ** 2, 0) / n) / (k - 1);
  const alike = among + (size - 1) * within;
  const own = alike > 0 ? Math.max(0, Math.min(0.9, (among - within) / alike)) : 0;
  return (USUAL_WEIGHT * USUAL_BETWEEN + k * own) / (USUAL_WEIGHT + k);
}

export interface PooledShare {
  beta: Beta;
  /** The next lot’s: what a sowing still to be made can count on. */
  next: Beta;
  /** How much lots differ, ρ. */
  between: number;
  lots: number;
  /** Whether it rests on own records or still on the starting value alone. */
  origin: Extract<Origin, 'record' | 'starting'>;
  /** Share of the weight that is the starting value's. */
  startingShare: number;
}

/**
 * Weights that own lots add to a share: each as n ÷ (1 + (n − 1)ρ) independent seeds (the design effect of clusters), so that
 * one big lot does not speak for all.
 * @throws Unfit for more that succeeded than there were
 * @see Kish 1965, Survey Sampling, ch. 5
 */
export function pooledWeights(outcomes: readonly Outcome[]): Beta {
  const between = betweenLots(outcomes);
  let [alpha, beta] = [0, 0];
  for (const { k, n } of outcomes) {
    if (!(n >= 0 && k >= 0 && k <= n)) throw new Unfit(say`${k} of ${n}: check the counts.`);
    if (n === 0) continue;
    const effective = n / (1 + (n - 1) * between);
    alpha += (k / n) * effective;
    beta += (1 - k / n) * effective;
  }
  return { alpha, beta };
}

/**
 * A share learnt from the nursery's own lots: the starting value as a Beta with what they add.
 * @throws Unfit for more that succeeded than there were
 */
export function pooledShare(start: Beta, outcomes: readonly Outcome[]): PooledShare {
  const between = betweenLots(outcomes);
  const own = pooledWeights(outcomes);
  const [alpha, beta] = [start.alpha + own.alpha, start.beta + own.beta];
  const lots = outcomes.filter(({ n }) => n > 0).length;
  return {
    beta: { alpha, beta },
    next: predictiveShare({ alpha, beta }, between),
    between,
    lots,
    origin: lots ? 'record' : 'starting',
    startingShare: (start.alpha + start.beta) / (alpha + beta),
  };
}

/** A share of one lot that is known itself, as a bag’s own viability is: no other lot comes between. */
export function ownShare(beta: Beta, tests: number, startingShare: number): PooledShare {
  return { beta, next: beta, between: 0, lots: tests, origin: tests ? 'record' : 'starting', startingShare };
}

/** A pooled share as a step of working: the next lot’s. */
export function shareStep(what: string, share: PooledShare): Step {
  const { beta, next, between, lots, origin, startingShare } = share;
  return {
    what,
    expression: `${put(next.alpha)} ÷ (${put(next.alpha)} + ${put(next.beta)})`,
    result: betaMean(next),
    inputs: [
      {
        name: lots
          ? say`${lots} of your own lots; starting value’s part ${Math.round(startingShare * 100)} %`
          : say`starting value`,
        value: say`${put(beta.alpha)} of ${put(beta.alpha + beta.beta)}`,
        origin,
      },
      ...(between > 0
        ? [
            {
              name: say`as much as lots differ, one lot’s share is known no better than`,
              value: say`${put(next.alpha)} of ${put(next.alpha + next.beta)}`,
              origin,
            } as const,
          ]
        : []),
    ],
  };
}
