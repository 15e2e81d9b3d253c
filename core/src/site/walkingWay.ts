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
  return shortened(order, (way) => wayLength(stops, way, from));
}

/** The same stops in a shorter order, as long as one change makes it shorter. */
function shortened(order: number[], length: (way: readonly number[]) => number): number[] {
  let best = order;
  let least = length(best);
  for (let isShorter = true; isShorter;) {
    isShorter = false;
    for (const way of changes(best)) {
      const other = length(way);
      if (other < least - 1e-9) {
        best = way;
        least = other;
        isShorter = true;
        break;
      }
    }
  }
  return best;
}

/** Ways that differ by one stretch turned round, or by one stop put elsewhere. */
function* changes(way: readonly number[]): Generator<number[]> {
  for (let i = 0; i < way.length; i++)
    for (let j = i + 1; j < way.length; j++)
      yield [...way.slice(0, i), ...way.slice(i, j + 1).reverse(), ...way.slice(j + 1)];
  for (let i = 0; i < way.length; i++) {
    const rest = [...way.slice(0, i), ...way.slice(i + 1)];
    for (let j = 0; j < way.length; j++) if (j !== i) yield [...rest.slice(0, j), way[i], ...rest.slice(j)];
  }
}
