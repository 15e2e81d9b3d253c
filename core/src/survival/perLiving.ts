import type { SurvivalGroup } from './survivalGroups';

/**
 * What a tree that lives once planted costs: what one costs at the gate over the share that lives.
 * @param each cost of a tree at the gate, in money of the nursery
 * @returns at the share's middle, and where it lies nine times in ten; planting itself is not in it
 */
export function perLiving(
  each: number,
  { lower, mean, upper }: Pick<SurvivalGroup, 'lower' | 'mean' | 'upper'>,
): { least: number; middle: number; most: number } {
  return { least: each / upper, middle: each / mean, most: each / lower };
}
