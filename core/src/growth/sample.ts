import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { normalQuantile, studentQuantile } from '../chance/normal';

export interface SampleSummary {
  n: number;
  mean: number;
  /** Standard deviation between plants (n − 1); 0 for a single value. */
  sd: number;
  standardError: number;
  /** Half-width of the 90 % interval of the mean (Student's t); Infinity for a single value. */
  margin: number;
}

/**
 * Mean, spread and margin of measured values.
 * @throws Unfit when there is no value or one is not a finite number above 0
 */
export function summarise(values: readonly number[]): SampleSummary {
  const n = values.length;
  if (n === 0) throw new Unfit(say`A sample needs at least one value.`);
  for (const v of values)
    if (!(Number.isFinite(v) && v > 0)) throw new Unfit(say`Every value must be a number above 0.`);
  const mean = values.reduce((a, b) => a + b, 0) / n;
  const sd = n > 1 ? Math.sqrt(values.reduce((a, v) => a + (v - mean) ** 2, 0) / (n - 1)) : 0;
  const standardError = n > 1 ? sd / Math.sqrt(n) : mean * 0.25;
  return {
    n,
    mean,
    sd,
    standardError,
    margin: n > 1 ? studentQuantile(0.95, n - 1) * standardError : Infinity,
  };
}

/**
 * How many plants to measure so that the mean is known to within a share of itself, nine times in ten.
 * @param cv spread between plants over their mean, > 0
 * @param marginShare wanted half-width over the mean, e.g. 0.1
 */
export function sampleSize(cv: number, marginShare: number): number {
  if (!(cv > 0 && marginShare > 0)) throw new Unfit(say`Spread and margin must be above 0.`);
  let n = Math.max(2, Math.ceil((normalQuantile(0.95) * (cv / marginShare)) ** 2));
  while ((studentQuantile(0.95, n - 1) * cv) / Math.sqrt(n) > marginShare) n++;
  return n;
}
