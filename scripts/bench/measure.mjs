/** Milliseconds of the fastest of some runs, after two that warm up: the work itself, least disturbed. */
export function fastest(work, runs = 7) {
  let best = Infinity;
  for (let i = -2; i < runs; i++) {
    const started = performance.now();
    work();
    const ms = performance.now() - started;
    if (i >= 0) best = Math.min(best, ms);
  }
  return best;
}

export const ms = (value) => `${value < 10 ? value.toFixed(2) : value.toFixed(0)} ms`;
export const times = (value) => `${value.toFixed(1)} ×`;

export function quantile(values, p) {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))];
}
