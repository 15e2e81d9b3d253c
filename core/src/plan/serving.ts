/** Where what is asked for comes from: how many of which stock, by its place in their list. */
export type Served = ReadonlyMap<number, number>;

/**
 * Serves demands from stocks in turn, each as far as can be: largest flows, sent along shortest ways. None gives back what it
 * has to a later one, but takes it from another stock where that leaves more for those after it.
 * @param counts of each stock
 * @param demands asked for in this order
 * @param canServe whether a stock may serve a demand at all
 * @returns what is short of each, where each comes from, and how many more a further demand could have
 */
export function serveInTurn<D extends { count: number }, M>(
  counts: readonly number[],
  demands: readonly D[],
  canServe: (stock: number, demand: D | M) => boolean,
): { short: number[]; from: Served[]; more: (demand: M) => number } {
  const left = [...counts];
  const served: Map<number, number>[] = demands.map(() => new Map());

  /**
   * Sends as much as it can to a demand along one shortest way: from a stock with some left, by way of demands that take it
   * instead of another stock they had. @returns how many were sent
   */
  const send = (demand: D | M, wanted: number, take: (stock: number, count: number) => void): number => {
    const cameFrom = new Map<number, { demand: number; stock: number } | null>();
    const queue: number[] = [];
    counts.forEach((_, stock) => {
      if (canServe(stock, demand)) {
        cameFrom.set(stock, null);
        queue.push(stock);
      }
    });
    for (let head = 0; head < queue.length; head++) {
      const stock = queue[head];
      if (left[stock] > 0) {
        let count = Math.min(wanted, left[stock]);
        for (let step = cameFrom.get(stock)!; step; step = cameFrom.get(step.stock)!)
          count = Math.min(count, served[step.demand].get(step.stock)!);
        left[stock] -= count;
        let at = stock;
        for (let step = cameFrom.get(at)!; step; step = cameFrom.get(at)!) {
          const of = served[step.demand];
          of.set(at, (of.get(at) ?? 0) + count);
          const kept = of.get(step.stock)! - count;
          if (kept > 0) of.set(step.stock, kept);
          else of.delete(step.stock);
          at = step.stock;
        }
        take(at, count);
        return count;
      }
      // A demand that has this stock may have another instead.
      served.forEach((of, other) => {
        if (!of.has(stock)) return;
        counts.forEach((_, instead) => {
          if (!cameFrom.has(instead) && canServe(instead, demands[other])) {
            cameFrom.set(instead, { demand: other, stock });
            queue.push(instead);
          }
        });
      });
    }
    return 0;
  };

  const short = demands.map((demand, at) => {
    let open = demand.count;
    while (open > 0) {
      const sent = send(demand, open, (stock, n) => served[at].set(stock, (served[at].get(stock) ?? 0) + n));
      if (sent === 0) break;
      open -= sent;
    }
    return open;
  });
  const from = served.map((of) => new Map(of));
  const more = (demand: M): number => {
    let total = 0;
    for (;;) {
      const sent = send(demand, Infinity, () => undefined);
      if (sent === 0) return total;
      total += sent;
    }
  };
  return { short, from, more };
}
