import { checkPlan, cornersOf, type PlaceGround, type SiteElement, say } from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import type { ShownPlace } from './usePlaces';

/** What is wrong with where a place would stand: on another or a wall, outside, or without a path; null if nothing. */
export function spotWarning(
  body: PlaceBody,
  ownId: string | undefined,
  places: readonly ShownPlace[],
  elements: readonly SiteElement[],
): string | null {
  let corners;
  try {
    corners = cornersOf(body);
  } catch {
    return null;
  }
  if (corners.some((c) => !c.every(Number.isFinite))) return null;
  const id = ownId ?? 'new';
  const others: PlaceGround[] = places
    .filter((p) => p.place.id !== id)
    .map((p) => ({ id: p.place.id, name: p.place.place.name, corners: cornersOf(p.place.place) }));
  const own = { id, name: body.name.trim() || say`this place`, corners };
  const sentence = checkPlan([own, ...others], elements, new Set([id]))[0]?.sentence ?? null;
  return sentence && sentence[0].toUpperCase() + sentence.slice(1);
}
