import { Unfit } from '../working/unfit';
import { betaMean, type Beta } from './beta';
import type { Origin, Step } from '../working/working';
import { put } from '../working/working';

/** One lot's outcome: k of n. */
export interface Outcome {
  k: number;
  n: number;
}

/** Two seeds of one lot share its luck this much: the intraclass correlation of shares between lots. */
const BETWEEN_LOTS = 0.03;

export interface PooledShare {
  beta: Beta;
  lots: number;
  /** Whether it rests on own records or still on the starting value alone. */
  origin: Extract<Origin, 'record' | 'starting'>;
  /** Share of the weight that is the starting value's. */
  startingShare: number;
}

/**
 * A share learnt from the nursery's own lots: the starting value as a Beta, then each lot as n ÷ (1 + (n − 1)ρ)
 * independent seeds (the design effect of clusters), so that one big lot does not speak for all.
 * @throws Unfit for more that succeeded than there were
 * @see Kish 1965, Survey Sampling, ch. 5
 */
export function pooledShare(start: Beta, outcomes: readonly Outcome[]): PooledShare {
  let { alpha, beta } = start;
  let lots = 0;
  for (const { k, n } of outcomes) {
    if (!(n >= 0 && k >= 0 && k <= n)) throw new Unfit(`${k} of ${n}: check the counts.`);
    if (n === 0) continue;
    const effective = n / (1 + (n - 1) * BETWEEN_LOTS);
    alpha += (k / n) * effective;
    beta += (1 - k / n) * effective;
    lots++;
  }
  return {
    beta: { alpha, beta },
    lots,
    origin: lots ? 'record' : 'starting',
    startingShare: (start.alpha + start.beta) / (alpha + beta),
  };
}

/** A pooled share as a step of working. */
export function shareStep(what: string, { beta, lots, origin, startingShare }: PooledShare): Step {
  return {
    what,
    expression: `${put(beta.alpha)} ÷ (${put(beta.alpha)} + ${put(beta.beta)})`,
    result: betaMean(beta),
    inputs: [
      {
        name: lots
          ? `${lots} of your own lots; starting value’s part ${Math.round(startingShare * 100)} %`
          : 'starting value',
        value: `${put(beta.alpha)} of ${put(beta.alpha + beta.beta)}`,
        origin,
      },
    ],
  };
}
