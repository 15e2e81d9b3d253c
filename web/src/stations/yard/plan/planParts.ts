import type { ShownPlace } from '../usePlaces';

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/**
 * What stands in a place, drawn inside a box that lies along its length: stretches of a bed, single trays of a
 * bench. The place itself is turned by whoever draws it.
 */
export function planParts({ place, occupancy }: ShownPlace, rect: Box): Box[] {
  const put = (from: number, to: number, aside: number, width: number): Box => ({
    x: rect.x + from * rect.w,
    y: rect.y + aside * rect.h,
    w: (to - from) * rect.w,
    h: width * rect.h,
  });
  if (occupancy.kind === 'bed') {
    const last = occupancy.stretches.at(-1);
    if (!last) return [];
    // Stretches are in mm of the inside; as shares of it they fit the outline to a board's thickness.
    const inside = (last.toMm * occupancy.insideAreaM2) / occupancy.usedM2;
    const inset = 0.06;
    return occupancy.stretches.map((s) =>
      put(Math.min(1, s.fromMm / inside), Math.min(1, s.toMm / inside), inset, 1 - 2 * inset),
    );
  }
  const { lengthMm, widthMm } = place.place.design;
  return occupancy.layout.laid
    .filter((t) => t.alongMm < lengthMm)
    .map((t) =>
      put(
        t.alongMm / lengthMm,
        Math.min(1, (t.alongMm + t.lengthMm) / lengthMm),
        t.acrossMm / widthMm,
        t.widthMm / widthMm,
      ),
    );
}
