import type { EpochDay } from '../calendar/day';
import { Unfit } from '../working/unfit';

/** Trees that can be handed over on any day of a window; its first and last day count. */
export interface StandingStock {
  id: string;
  from: EpochDay;
  until: EpochDay;
  count: number;
}

/** Trees owed to somebody on a day, or on any day of a window whose last day is `until`. */
export interface Promised {
  on: EpochDay;
  until?: EpochDay;
  count: number;
}

/** Where promised trees come from: how many of which lot, for each promise in turn. */
export type Serving = ReadonlyMap<string, number>;

/**
 * The largest count that can still be promised on a day, when every lot serves only within its own window and all that was
 * promised before is kept: a largest flow from lots to promises.
 * @returns null where the promises themselves cannot all be met
 * @throws Unfit for a count below 0, or a window that ends before it begins
 */
export function freeToPromise({
  lots,
  promised,
  on,
  until,
}: {
  lots: readonly StandingStock[];
  promised: readonly Promised[];
  on: EpochDay;
  until?: EpochDay;
}): number | null {
  const flow = serve(lots, promised);
  if (flow.short.some((count) => count > 0)) return null;
  return flow.more({ on, until });
}

/**
 * Which lots serve which promises, each as far as can be: what is short of them, in their order, and from which lots each
 * comes. Promises are served in turn, and none gives back what it has to a later one.
 */
export function servePromises(
  lots: readonly StandingStock[],
  promised: readonly Promised[],
): { short: number[]; from: Serving[] } {
  const { short, from } = serve(lots, promised);
  return { short, from };
}

/** A day, or any day of a window. */
type Day = Pick<Promised, 'on' | 'until'>;

function serve(lots: readonly StandingStock[], promised: readonly Promised[]) {
  for (const { count, from, until } of lots)
    if (!(count >= 0 && from <= until))
      throw new Unfit('A lot holds 0 or more, in a window that begins before it ends.');
  for (const { count } of promised) if (!(count >= 0)) throw new Unfit('A promise is of 0 or more trees.');
  const left = lots.map((lot) => lot.count);
  const served: Map<number, number>[] = promised.map(() => new Map());
  const canServe = (lot: number, { on, until = on }: Day) => lots[lot].from <= until && on <= lots[lot].until;

  /**
   * Sends as much as it can to a demand on a day along one shortest way: from a lot with some left, by way of promises
   * that take it instead of another lot they had. @returns how many were sent
   */
  const send = (day: Day, wanted: number, take: (lot: number, count: number) => void): number => {
    const cameFrom = new Map<number, { promise: number; lot: number } | null>();
    const queue: number[] = [];
    lots.forEach((_, lot) => {
      if (canServe(lot, day)) {
        cameFrom.set(lot, null);
        queue.push(lot);
      }
    });
    for (let head = 0; head < queue.length; head++) {
      const lot = queue[head];
      if (left[lot] > 0) {
        let count = Math.min(wanted, left[lot]);
        for (let step = cameFrom.get(lot)!; step; step = cameFrom.get(step.lot)!)
          count = Math.min(count, served[step.promise].get(step.lot)!);
        left[lot] -= count;
        let at = lot;
        for (let step = cameFrom.get(at)!; step; step = cameFrom.get(at)!) {
          const of = served[step.promise];
          of.set(at, (of.get(at) ?? 0) + count);
          const kept = of.get(step.lot)! - count;
          if (kept > 0) of.set(step.lot, kept);
          else of.delete(step.lot);
          at = step.lot;
        }
        take(at, count);
        return count;
      }
      // A promise that has this lot may have another instead.
      served.forEach((of, promise) => {
        if (!of.has(lot)) return;
        lots.forEach((_, other) => {
          if (!cameFrom.has(other) && canServe(other, promised[promise])) {
            cameFrom.set(other, { promise, lot });
            queue.push(other);
          }
        });
      });
    }
    return 0;
  };

  const short = promised.map((of, promise) => {
    let open = of.count;
    while (open > 0) {
      const sent = send(of, open, (lot, n) => served[promise].set(lot, (served[promise].get(lot) ?? 0) + n));
      if (sent === 0) break;
      open -= sent;
    }
    return open;
  });
  const from = served.map((of) => new Map([...of].map(([lot, count]) => [lots[lot].id, count])));
  const more = (day: Day): number => {
    let total = 0;
    for (;;) {
      const sent = send(day, Infinity, () => undefined);
      if (sent === 0) return total;
      total += sent;
    }
  };
  return { short, from, more };
}
