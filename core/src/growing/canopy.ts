import type { Home } from '../home/home';
import type { SpeciesValues } from '../species/species';

/**
 * Width of a young tree's crown over its height, while it stands among its own kind. A starting value: broad leaves
 * spread about half as wide as tall, needles a third.
 */
export const CROWN_RATIO = { deciduous: 0.5, evergreen: 0.35 } as const;

/** Distance between neighbours, mm: the side of the square each plant has to itself; null where it is not known. */
export function neighbourMm(home: Home, apart = 1): number | null {
  if (home.kind === 'bed') return 1000 / Math.sqrt(home.densityPerM2);
  if (!home.pitchMm) return null;
  return home.pitchMm * Math.sqrt(home.spaceable ? apart : 1);
}

/** Height at which the leaves of neighbours meet, cm; null where their distance is not known. */
export function meetingHeightCm(species: Pick<SpeciesValues, 'leaf'>, home: Home, apart = 1): number | null {
  const distance = neighbourMm(home, apart);
  return distance === null ? null : distance / 10 / CROWN_RATIO[species.leaf];
}

/** Share of the ground that leaves cover at a height, 0–1. */
export function canopyCover(
  species: Pick<SpeciesValues, 'leaf'>,
  home: Home,
  apart: number,
  heightCm: number,
): number {
  const meets = meetingHeightCm(species, home, apart);
  return meets === null ? 0 : Math.min(1, (heightCm / meets) ** 2);
}
