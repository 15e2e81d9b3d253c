import type { Occupancy, Quantity } from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';

interface Show {
  show: (value: number, quantity: Quantity, digits?: number) => string;
}

/** Size of a place in a few words. */
export function sizeWords(place: PlaceBody, { show }: Show): string {
  const { lengthMm, widthMm } = place.design;
  const size = `${show(lengthMm / 1000, 'site', 2)} × ${show(widthMm / 1000, 'site', 2)}`;
  if (place.kind === 'bench') return `bench ${size}`;
  return `bed ${size}, ${place.design.tiers.join(' + ')}`;
}

/** What room is left. */
export function roomWords(occupancy: Occupancy, { show }: Show): string {
  if (occupancy.kind === 'bed') {
    if (occupancy.freeM2 < -0.005) return `${show(-occupancy.freeM2, 'area')} too much`;
    return occupancy.freeM2 < 0.02 ? 'full' : `${show(occupancy.freeM2, 'area')} free`;
  }
  const free = occupancy.layout.freeLengthMm;
  if (free < 0) return `${show(-free / 1000, 'site')} too long`;
  return free < 150 ? 'full' : `${show(free / 1000, 'site')} free`;
}
