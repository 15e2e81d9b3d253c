import type { Point } from './shapes';

const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Length of a way through stops in an order, from where it begins, m. */
export function wayLength(stops: readonly Point[], order: readonly number[], from: Point): number {
  let at = from;
  let length = 0;
  for (const i of order) {
    length += apart(at, stops[i]);
    at = stops[i];
  }
  return length;
}

/**
 * A short way through all stops: to the nearest not yet seen each time, then stretches turned round and single stops put
 * elsewhere for as long as that shortens it. As the crow flies; not always the shortest there is.
 * @param from where it begins; it ends at any stop
 * @returns positions of the stops, in the order they are walked
 */
export function walkingWay(stops: readonly Point[], from: Point): number[] {
  const left = new Set(stops.keys());
  const order: number[] = [];
  let at = from;
  while (left.size) {
    let next = -1;
    for (const i of left) if (next < 0 || apart(at, stops[i]) < apart(at, stops[next])) next = i;
    left.delete(next);
    order.push(next);
    at = stops[next];
  }
  while (turnRound(order, stops, from) || putElsewhere(order, stops, from));
  return order;
}

/** Below this a way is not shorter, only reckoned otherwise, m. */
const NO_SHORTER_M = 1e-9;

/** Turns the stretch round that makes the way shortest. @returns whether one did */
function turnRound(order: number[], stops: readonly Point[], from: Point): boolean {
  const at = (i: number) => (i < 0 ? from : stops[order[i]]);
  const last = order.length - 1;
  let best = -NO_SHORTER_M;
  let stretch: [number, number] | null = null;
  for (let i = 0; i < last; i++)
    for (let j = i + 1; j <= last; j++) {
      // The way ends at any stop: nothing follows the last.
      const after = j < last ? apart(at(i), at(j + 1)) - apart(at(j), at(j + 1)) : 0;
      const longer = apart(at(i - 1), at(j)) - apart(at(i - 1), at(i)) + after;
      if (longer < best) [best, stretch] = [longer, [i, j]];
    }
  if (!stretch) return false;
  const [i, j] = stretch;
  order.splice(i, j - i + 1, ...order.slice(i, j + 1).reverse());
  return true;
}

/** Puts the one stop elsewhere that makes the way shortest. @returns whether one did */
function putElsewhere(order: number[], stops: readonly Point[], from: Point): boolean {
  const at = (i: number) => (i < 0 ? from : stops[order[i]]);
  const last = order.length - 1;
  let best = -NO_SHORTER_M;
  let move: [number, number] | null = null;
  for (let i = 0; i <= last; i++) {
    const bridged = i < last ? apart(at(i - 1), at(i + 1)) - apart(at(i), at(i + 1)) : 0;
    const without = bridged - apart(at(i - 1), at(i));
    // Behind each other stop, or before all of them.
    for (let k = -1; k <= last; k++) {
      if (k === i || k === i - 1) continue;
      const next = k < last ? apart(at(i), at(k + 1)) - apart(at(k), at(k + 1)) : 0;
      const longer = without + apart(at(k), at(i)) + next;
      if (longer < best) [best, move] = [longer, [i, k]];
    }
  }
  if (!move) return false;
  const [i, k] = move;
  const [stop] = order.splice(i, 1);
  order.splice(k < i ? k + 1 : k, 0, stop);
  return true;
}
