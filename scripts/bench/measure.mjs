/** Milliseconds of the fastest of some runs, once warm: the work itself, least disturbed. */
export function fastest(work, { warmMs = 600, runs = 15 } = {}) {
  const begun = performance.now();
  do work();
  while (performance.now() - begun < warmMs);
  let best = Infinity;
  for (let i = 0; i < runs; i++) {
    const started = performance.now();
    work();
    best = Math.min(best, performance.now() - started);
  }
  return best;
}

export const ms = (value) => `${value < 10 ? value.toFixed(2) : value.toFixed(0)} ms`;
export const times = (value) => `${value.toFixed(1)} ×`;

export function quantile(values, p) {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))];
}
