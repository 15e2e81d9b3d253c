import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { gammaln } from 'simple-statistics';
import type { Beta } from './beta';

/**
 * Chance that a share known as Beta(alpha, beta) lies at or below x: the regularised incomplete beta function
 * by its continued fraction.
 * @throws Unfit when a weight is not above 0
 * @see Abramowitz & Stegun 1964, 26.5.8
 */
export function betaCdf(x: number, { alpha, beta }: Beta): number {
  if (!(alpha > 0 && beta > 0)) throw new Unfit(say`A share needs two weights above 0.`);
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  // The fraction converges fast below the mean; above it the other tail is taken.
  if (x > (alpha + 1) / (alpha + beta + 2)) return 1 - betaCdf(1 - x, { alpha: beta, beta: alpha });
  const front = Math.exp(
    gammaln(alpha + beta) -
      gammaln(alpha) -
      gammaln(beta) +
      alpha * Math.log(x) +
      beta * Math.log1p(-x) -
      Math.log(alpha),
  );
  return front * fraction(x, alpha, beta);
}

/** Lentz’s way through the continued fraction. */
function fraction(x: number, a: number, b: number): number {
  const tiny = 1e-300;
  const whole = (v: number) => (Math.abs(v) < tiny ? tiny : v);
  let c = 1;
  let d = 1 / whole(1 - ((a + b) * x) / (a + 1));
  let value = d;
  for (let m = 1; m <= 400; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / whole(1 + even * d);
    c = whole(1 + even / c);
    value *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / whole(1 + odd * d);
    c = whole(1 + odd / c);
    const step = d * c;
    value *= step;
    if (Math.abs(step - 1) < 1e-12) break;
  }
  return value;
}

/** The share below which the truth lies with a chance p: inverse of {@link betaCdf} by halving. */
export function betaQuantile(p: number, share: Beta): number {
  let low = 0;
  let high = 1;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (betaCdf(middle, share) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Jeffreys’ share for k of n: as if half a success and half a failure had been seen before. */
export function jeffreys(k: number, n: number): Beta {
  return { alpha: k + 0.5, beta: n - k + 0.5 };
}
