import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** A share known with uncertainty: Beta(alpha, beta), as if alpha of alpha + beta had succeeded. */
export interface Beta {
  alpha: number;
  beta: number;
}

export function betaMean({ alpha, beta }: Beta): number {
  return alpha / (alpha + beta);
}

/** A prior sharpened by k of n. */
export function betaAfter(prior: Beta, k: number, n: number): Beta {
  return { alpha: prior.alpha + k, beta: prior.beta + n - k };
}

/**
 * The product of independent shares, matched to a Beta by its first two moments.
 * @throws Unfit when there is no stage or a parameter is not above 0
 */
export function betaProduct(stages: readonly Beta[]): Beta {
  if (stages.length === 0) throw new Unfit(say`At least one stage is needed.`);
  let mean = 1;
  let square = 1;
  for (const { alpha, beta } of stages) {
    if (!(alpha > 0 && beta > 0)) throw new Unfit(say`Each stage needs two weights above 0.`);
    const n = alpha + beta;
    mean *= alpha / n;
    square *= (alpha * (alpha + 1)) / (n * (n + 1));
  }
  const variance = square - mean * mean;
  const weight = (mean * (1 - mean)) / variance - 1;
  return { alpha: mean * weight, beta: (1 - mean) * weight };
}

/** k of n as a share; 0 of 0 is 0. */
export function wholeShare(k: number, n: number): number {
  return n > 0 ? k / n : 0;
}
