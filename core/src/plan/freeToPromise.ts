import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import { Unfit } from '../working/unfit';
import { mayServe } from './orderLine';
import { serveInTurn } from './serving';

/** Trees that can be handed over on any day of a window; its first and last day count. */
export interface StandingStock {
  id: string;
  /** For lifted trees, the lot they came from. */
  lotId?: string;
  from: EpochDay;
  until: EpochDay;
  count: number;
}

/** Trees owed to somebody on a day, or on any day of a window whose last day is `until`. */
export interface Promised {
  on: EpochDay;
  until?: EpochDay;
  count: number;
  /** Lots that alone may serve it; none, or left out: any may. */
  lots?: readonly string[];
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
  only,
}: {
  lots: readonly StandingStock[];
  promised: readonly Promised[];
  on: EpochDay;
  until?: EpochDay;
  /** Lots that alone may serve the further promise. */
  only?: readonly string[];
}): number | null {
  const flow = serve(lots, promised);
  if (flow.short.some((count) => count > 0)) return null;
  return flow.more({ on, until, lots: only });
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

function serve(lots: readonly StandingStock[], promised: readonly Promised[]) {
  for (const { count, from, until } of lots)
    if (!(count >= 0 && from <= until))
      throw new Unfit(say`A lot holds 0 or more, in a window that begins before it ends.`);
  for (const { count } of promised) if (!(count >= 0)) throw new Unfit(say`A promise is of 0 or more trees.`);
  const { short, from, more } = serveInTurn(
    lots.map(({ count }) => count),
    promised,
    (lot, { on, until = on, lots: only }: Omit<Promised, 'count'>) =>
      lots[lot].from <= until && on <= lots[lot].until && mayServe(lots[lot].lotId ?? lots[lot].id, only),
  );
  return {
    short,
    from: from.map((of) => new Map([...of].map(([lot, count]) => [lots[lot].id, count]))),
    more,
  };
}
