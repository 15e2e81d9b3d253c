/**
 * Quantile of sorted numbers at plotting positions k/(n + 1), linear between them (Hyndman & Fan 1996, Am. Stat. 50:361,
 * type 6): few members, as ten weather years are, leave a tail beyond each end. Infinity stands for “not within the
 * horizon” and is passed through.
 */
export function quantileSorted(sorted: ArrayLike<number>, p: number): number {
  const n = sorted.length;
  if (n === 0) return NaN;
  const at = Math.max(0, Math.min(n - 1, p * (n + 1) - 1));
  const low = Math.floor(at);
  const a = sorted[low];
  const b = sorted[Math.min(n - 1, low + 1)];
  if (a === b || low === at) return a;
  return Number.isFinite(b) ? a + (at - low) * (b - a) : b;
}

/** Tenth, fiftieth and ninetieth percentile. */
export interface Band {
  p10: number;
  p50: number;
  p90: number;
}

/** The band of a set of runs. The array is sorted in place. */
export function bandOf(values: Float64Array): Band {
  values.sort();
  return {
    p10: quantileSorted(values, 0.1),
    p50: quantileSorted(values, 0.5),
    p90: quantileSorted(values, 0.9),
  };
}

/** Share of sorted values at or below a limit. */
export function shareAtOrBelow(sorted: ArrayLike<number>, limit: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (sorted[mid] <= limit) low = mid + 1;
    else high = mid;
  }
  return sorted.length ? low / sorted.length : 0;
}

/** First index of an ascending array that is at least a value; Infinity if none is. */
export function firstAtLeast(sums: Float64Array, value: number): number {
  let low = 0;
  let high = sums.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (sums[mid] < value) low = mid + 1;
    else high = mid;
  }
  return low < sums.length ? low : Infinity;
}

/**
 * How many times as far from its middle a tenth of what is still to come lies than a tenth of so few draws of it: Student's
 * t over the normal at one in ten, with the doubt in the mean.
 * @param n draws, 2 or more
 */
export function beyondSample(n: number): number {
  return n < 2 ? 1 : (1 + 0.66 / (n - 1)) * Math.sqrt(1 + 1 / n);
}
