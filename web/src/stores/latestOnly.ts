/** Runs the newest of a stream of questions, one at a time; older ones waiting are dropped. */
export function latestOnly<A extends unknown[]>(work: (...args: A) => Promise<void>): (...args: A) => void {
  let busy = false;
  let waiting: A | null = null;
  return async function ask(...args: A) {
    waiting = args;
    if (busy) return;
    busy = true;
    try {
      while (waiting) {
        const now: A = waiting;
        waiting = null;
        await work(...now);
      }
    } finally {
      busy = false;
    }
  };
}
