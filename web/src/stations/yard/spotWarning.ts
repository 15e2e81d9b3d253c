import { BARROW_PATH_M, distanceBetween, footprintOf } from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import type { ShownPlace } from './usePlaces';

/** What is wrong with where a place would stand: on another, or without a path; null if nothing. */
export function spotWarning(
  body: PlaceBody,
  ownId: string | undefined,
  places: readonly ShownPlace[],
): string | null {
  let print;
  try {
    print = footprintOf(body);
  } catch {
    return null;
  }
  const others = places.filter((p) => p.place.id !== ownId);
  const overlaps = (p: ShownPlace) => distanceBetween(p.footprint, print) === 0;
  const on = others.find(overlaps);
  if (on) return `It would stand on ${on.place.place.name}.`;
  const near = others.find((p) => distanceBetween(p.footprint, print) < BARROW_PATH_M - 1e-9);
  return near
    ? `A barrow does not pass between it and ${near.place.place.name} (under ${BARROW_PATH_M} m).`
    : null;
}
