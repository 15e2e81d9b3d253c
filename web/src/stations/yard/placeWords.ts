import { say, inWords } from '@kauri/core';
import type { Occupancy, Quantity } from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';

interface Show {
  show: (value: number, quantity: Quantity, digits?: number) => string;
}

export const kindWords: Record<PlaceBody['kind'], string> = inWords({
  bed: 'bed',
  bench: 'bench',
  ground: 'standing-out ground',
  bay: 'heel-in bay',
});

/** Size of a place in a few words. */
export function sizeWords(place: PlaceBody, { show }: Show): string {
  const { lengthMm, widthMm } = place.design;
  const size = `${show(lengthMm / 1000, 'site', 2)} × ${show(widthMm / 1000, 'site', 2)}`;
  if (place.kind === 'bed' && place.design.found)
    return place.design.found.shape === 'round'
      ? say`round tub, ${show(lengthMm / 1000, 'site', 2)} across`
      : say`crate ${size}`;
  if (place.kind === 'bed') return say`bed ${size}, ${place.design.tiers.join(' + ')}`;
  return `${kindWords[place.kind]} ${size}`;
}

/** What room is left. */
export function roomWords(occupancy: Occupancy, { show }: Show): string {
  if (occupancy.kind === 'bed') {
    if (occupancy.freeM2 < -0.005) return say`${show(-occupancy.freeM2, 'area')} too much`;
    return occupancy.freeM2 < 0.02 ? say`full` : say`${show(occupancy.freeM2, 'area')} free`;
  }
  const free = occupancy.layout.freeLengthMm;
  if (free < 0) return say`${show(-free / 1000, 'site')} too long`;
  return free < 150 ? say`full` : say`${show(free / 1000, 'site')} free`;
}
