import type { ShownPlace } from './usePlaces';

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** What stands in a place, drawn inside its outline: stretches of a bed, single trays of a bench. */
export function planParts({ place, occupancy }: ShownPlace, rect: Box): Box[] {
  const { turned } = place.place;
  const along = turned ? rect.h : rect.w;
  const across = turned ? rect.w : rect.h;
  const put = (from: number, to: number, aside: number, width: number): Box =>
    turned
      ? {
          x: rect.x + aside * across,
          y: rect.y + rect.h - to * along,
          w: width * across,
          h: (to - from) * along,
        }
      : { x: rect.x + from * along, y: rect.y + aside * across, w: (to - from) * along, h: width * across };
  if (occupancy.kind === 'bed') {
    const last = occupancy.stretches.at(-1);
    if (!last) return [];
    // Stretches are in mm of the inside; as shares of it they fit the outline to a board's thickness.
    const inside = (last.toMm * occupancy.insideAreaM2) / occupancy.usedM2;
    const inset = Math.min(0.12, 4 / across);
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
