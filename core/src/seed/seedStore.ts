import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** A change of what lies in a seed lot's bag. */
export interface SeedMove {
  grams: number;
  /** Seeds, by count or by the lot's seeds a kilogram. */
  seeds: number;
}

export interface SeedHeld {
  grams: number;
  seeds: number;
}

export function seedHeld(moves: readonly SeedMove[]): SeedHeld {
  return moves.reduce((held, move) => ({ grams: held.grams + move.grams, seeds: held.seeds + move.seeds }), {
    grams: 0,
    seeds: 0,
  });
}

/** A mass this near to all that is held is all of it: scales and shown figures round. */
const ALL_BUT = 0.005;

/**
 * What a mass takes out of a bag, by the bag's own seeds a gram where it holds any: all that lies there takes every seed.
 * @param seedsPerKg what stands in for an empty bag's own figure
 */
export function takenByMass(held: SeedHeld, grams: number, seedsPerKg: number): SeedMove {
  if (held.grams > 0 && Math.abs(grams - held.grams) <= ALL_BUT * held.grams) return { ...held };
  const perGram = held.grams > 0 && held.seeds > 0 ? held.seeds / held.grams : seedsPerKg / 1000;
  return { grams, seeds: Math.round(grams * perGram) };
}

/** What a count takes out of a bag, as {@link takenByMass}. */
export function takenByCount(held: SeedHeld, seeds: number, seedsPerKg: number): SeedMove {
  if (held.seeds > 0 && Math.abs(seeds - held.seeds) <= 0.5) return { ...held };
  const perGram = held.grams > 0 && held.seeds > 0 ? held.seeds / held.grams : seedsPerKg / 1000;
  return { grams: seeds / perGram, seeds };
}

/** Mass and count may differ by this much before one of them is asked about. */
const DISAGREE = 0.25;

/**
 * @throws Unfit with a sentence when a mass and a count cannot both be right for the seeds a kilogram
 */
export function mustAgree(grams: number, seeds: number, seedsPerKg: number): void {
  const byMass = (grams / 1000) * seedsPerKg;
  if (Math.abs(byMass - seeds) > DISAGREE * Math.max(byMass, seeds) + 1)
    throw new Unfit(
      say`${grams} g would be about ${Math.round(byMass)} seeds at ${seedsPerKg} a kilogram, but ${seeds} are given. Check the mass, the count or the seeds a kilogram.`,
    );
}

/**
 * @throws Unfit with a sentence when more is taken than lies there
 */
export function mustHold(held: SeedHeld, taken: SeedMove, name: string): void {
  if (taken.grams > held.grams + 1e-6 || taken.seeds > held.seeds + 0.5)
    throw new Unfit(
      say`${name} holds ${Math.round(held.grams * 10) / 10} g, about ${Math.round(held.seeds)} seeds; ${Math.round(taken.grams * 10) / 10} g and ${Math.round(taken.seeds)} seeds cannot be taken.`,
    );
}
