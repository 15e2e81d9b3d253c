import { gammaln } from 'simple-statistics';
import type { Beta } from '../chance/beta';
import { normalCdfFast } from '../chance/normal';

/** Above this many seeds the sum over counts gives way to an integral over the success share. */
const SUM_LIMIT = 40_000;

/**
 * P(X ≥ target) for X ~ BetaBinomial(n, alpha, beta).
 *
 * Up to 40 000 trials the mass function is summed exactly by its ratio recursion, away from the mode so
 * that rounding cannot grow; beyond, the binomial is taken as normal (continuity corrected) and
 * integrated over the Beta, which is exact to about one seed in a thousand.
 */
export function chanceAtLeast(n: number, target: number, share: Beta): number {
  if (target <= 0) return 1;
  if (target > n) return 0;
  return n <= SUM_LIMIT ? summed(n, target, share) : integrated(n, target, share);
}

function summed(n: number, target: number, { alpha, beta }: Beta): number {
  const logMass = (k: number) =>
    gammaln(n + 1) -
    gammaln(k + 1) -
    gammaln(n - k + 1) +
    gammaln(k + alpha) +
    gammaln(n - k + beta) -
    gammaln(n + alpha + beta) -
    logBeta(alpha, beta);
  const upward = target > (n * alpha) / (alpha + beta);
  let k = upward ? target : target - 1;
  let mass = Math.exp(logMass(k));
  let total = 0;
  while (k >= 0 && k <= n && mass > total * 1e-16) {
    total += mass;
    mass *= upward
      ? ((n - k) * (k + alpha)) / ((k + 1) * (n - k - 1 + beta))
      : (k * (n - k + beta)) / ((n - k + 1) * (k - 1 + alpha));
    k += upward ? 1 : -1;
  }
  return Math.min(1, Math.max(0, upward ? total : 1 - total));
}

function integrated(n: number, target: number, { alpha, beta }: Beta): number {
  const mean = alpha / (alpha + beta);
  const sd = Math.sqrt((mean * (1 - mean)) / (alpha + beta + 1));
  const low = Math.max(1e-9, mean - 9 * sd);
  const high = Math.min(1 - 1e-9, mean + 9 * sd);
  const steps = 2000;
  const width = (high - low) / steps;
  const logPeak = (alpha - 1) * Math.log(mean) + (beta - 1) * Math.log(1 - mean);
  let above = 0;
  let all = 0;
  for (let i = 0; i < steps; i++) {
    const p = low + (i + 0.5) * width;
    const density = Math.exp((alpha - 1) * Math.log(p) + (beta - 1) * Math.log(1 - p) - logPeak);
    all += density;
    above += density * normalCdfFast((n * p - target + 0.5) / Math.sqrt(n * p * (1 - p)));
  }
  return above / all;
}

/** The chance of each count 0 … n of a Beta-binomial. */
export function massesOf(n: number, { alpha, beta }: Beta): Float64Array {
  const whole = gammaln(n + 1) - gammaln(n + alpha + beta) - logBeta(alpha, beta);
  return Float64Array.from({ length: n + 1 }, (_, k) =>
    Math.exp(whole - gammaln(k + 1) - gammaln(n - k + 1) + gammaln(k + alpha) + gammaln(n - k + beta)),
  );
}

/** ln B(α, β). */
export function logBeta(alpha: number, beta: number): number {
  return gammaln(alpha) + gammaln(beta) - gammaln(alpha + beta);
}
