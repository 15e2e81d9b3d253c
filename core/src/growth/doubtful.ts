import { quantileSorted } from '../chance/quantile';

/** Why a value is asked about before it is taken. It is never dropped: plants do differ. */
export type Doubt = { kind: 'far'; usual: number } | { kind: 'unlikely'; usual: number };

/** Fewest values that tell what is usual. */
const ENOUGH = 5;
/** Robust standard deviations from the middle beyond which a value is asked about. */
const FAR = 4.5;
/** Spread is never taken for smaller than this share of the middle: small samples look too even. */
const LEAST_SPREAD = 0.08;
/** Times the forecast’s band beyond which a first value is asked about. */
const TIMES = 3;

/**
 * Whether a value just typed is far from what it should be: from its fellows where there are some (median and median
 * deviation, Hampel 1974), else from the forecast.
 * @param fellows values already taken
 * @param band 10 and 90 % of the forecast; null where there is none
 * @returns null when there is nothing to ask
 */
export function doubtOf(
  value: number,
  fellows: readonly number[],
  band: { p10: number; p90: number } | null,
): Doubt | null {
  if (fellows.length >= ENOUGH) {
    const sorted = [...fellows].sort((a, b) => a - b);
    const middle = quantileSorted(sorted, 0.5);
    const deviations = sorted.map((v) => Math.abs(v - middle)).sort((a, b) => a - b);
    const spread = Math.max(1.4826 * quantileSorted(deviations, 0.5), LEAST_SPREAD * middle);
    return Math.abs(value - middle) > FAR * spread ? { kind: 'far', usual: middle } : null;
  }
  if (!band || !(band.p90 > 0)) return null;
  return value > TIMES * band.p90 || value < band.p10 / TIMES
    ? { kind: 'unlikely', usual: (band.p10 + band.p90) / 2 }
    : null;
}

/** A sample’s mean with its standard error. */
interface Sampled {
  mean: number;
  standardError: number;
}

/** Whether a lot now measures smaller than before by more than chance: dieback, browsing, a pruned top, or a slip. */
export function shrunk(now: Sampled, before: Sampled): boolean {
  return before.mean - now.mean > 2 * Math.hypot(now.standardError, before.standardError);
}
