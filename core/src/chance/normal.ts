import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** Standard normal distribution function Φ(z). */
export function normalCdf(z: number): number {
  if (z > 8) return 1;
  if (z < -8) return 0;
  return 0.5 * (1 + erf(z / Math.SQRT2));
}

/** Error function, from its series near 0 and continued fraction beyond (Abramowitz & Stegun 7.1.5, 7.1.14). */
function erf(x: number): number {
  const a = Math.abs(x);
  if (a > 6) return Math.sign(x);
  if (a < 2.5) {
    let term = a;
    let total = a;
    for (let n = 1; n < 60; n++) {
      term *= (-a * a) / n;
      total += term / (2 * n + 1);
    }
    return (Math.sign(x) * 2 * total) / Math.sqrt(Math.PI);
  }
  let fraction = 0;
  for (let n = 60; n >= 1; n--) fraction = n / 2 / (a + fraction);
  return Math.sign(x) * (1 - Math.exp(-a * a) / (Math.sqrt(Math.PI) * (a + fraction)));
}

/** Quantile of the standard normal: Acklam's rational start, one Halley step on Φ. @throws Unfit outside (0, 1). */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) throw new Unfit(say`A quantile needs a chance between 0 and 1, not at either end.`);
  if (p > 0.5) return -normalQuantile(1 - p);
  const t = Math.sqrt(-2 * Math.log(p));
  // Abramowitz & Stegun 26.2.23, error < 4.5e-4, then refined.
  let z = -(
    t -
    (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t ** 3)
  );
  for (let i = 0; i < 2; i++) {
    const e = normalCdf(z) - p;
    const u = e * Math.sqrt(2 * Math.PI) * Math.exp((z * z) / 2);
    z -= u / (1 + (z * u) / 2);
  }
  return z;
}

/** Quantile of Student's t with ν degrees of freedom (Abramowitz & Stegun 26.7.5; exact for ν = 1, 2). */
export function studentQuantile(p: number, degrees: number): number {
  if (degrees < 1) return Infinity;
  if (degrees === 1) return Math.tan(Math.PI * (p - 0.5));
  if (degrees === 2) return (2 * p - 1) * Math.sqrt(2 / (4 * p * (1 - p)));
  const z = normalQuantile(p);
  const v = degrees;
  return (
    z +
    (z ** 3 + z) / (4 * v) +
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * v ** 2) +
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / (384 * v ** 3)
  );
}

const TABLE_STEP = 0.005;
const TABLE_END = 6;
let table: Float64Array | null = null;

/** Φ(z) to within one part in a million, from a table: for grids that ask it a million times. */
export function normalCdfFast(z: number): number {
  if (z >= TABLE_END) return 1;
  if (z <= -TABLE_END) return 0;
  table ??= Float64Array.from({ length: Math.round((2 * TABLE_END) / TABLE_STEP) + 1 }, (_, i) =>
    normalCdf(i * TABLE_STEP - TABLE_END),
  );
  const at = (z + TABLE_END) / TABLE_STEP;
  const low = Math.floor(at);
  return table[low] + (at - low) * (table[low + 1] - table[low]);
}

const stratified = new Map<number, Float64Array>();
/** Middles of n equally likely parts of a standard normal. */
export function normalStrata(n: number): Float64Array {
  let known = stratified.get(n);
  if (!known)
    stratified.set(n, (known = Float64Array.from({ length: n }, (_, i) => normalQuantile((i + 0.5) / n))));
  return known;
}
