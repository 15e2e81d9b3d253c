import type { Beta } from '../chance/beta';
import { pooledShare, type Outcome } from '../chance/pooledShare';
import { gammaDraw, normalDraw, seededRandom, type Random } from '../chance/random';
import { seedsToSow } from '../sowing/seedsToSow';
import { startingSpecies } from '../species/startingSpecies';

export interface DeskTally {
  /** Finished lots the nursery had to learn from. */
  lots: number;
  /** True correlation between seeds of a lot. */
  between: number;
  n: number;
  /** Share of sowings that gave the trees promised. */
  kept: number;
}

const betaDraw = (random: Random, { alpha, beta }: Beta) => {
  const x = gammaDraw(random, alpha, 1);
  return x / (x + gammaDraw(random, beta, 1));
};
/** One lot's share about its kind's. */
const lotShare = (random: Random, mean: number, between: number) => {
  const weight = 1 / between - 1;
  const m = Math.min(0.999, Math.max(0.001, mean));
  return betaDraw(random, { alpha: m * weight, beta: (1 - m) * weight });
};
const countOf = (random: Random, n: number, p: number) =>
  Math.max(0, Math.min(n, Math.round(n * p + Math.sqrt(n * p * (1 - p)) * normalDraw(random))));

/**
 * Simulated nurseries sow for a target with a chance of nine in ten, after so many lots of their own: how often the
 * promise was kept. Each nursery's shares are drawn from the starting values; each lot's about them.
 */
export function deskTally(lots: number, between: number, nurseries: number, seed: number): DeskTally {
  const random = seededRandom(seed);
  const { viability, emergence, establishment, grade } = startingSpecies[0].values;
  const starts = [viability, emergence, establishment, grade];
  let kept = 0;
  for (let i = 0; i < nurseries; i++) {
    const kinds = starts.map((start) => betaDraw(random, start));
    const stages = starts.map((start, stage) => {
      const outcomes: Outcome[] = Array.from({ length: lots }, () => {
        const n = 150 + Math.floor(random() * 800);
        return { k: countOf(random, n, lotShare(random, kinds[stage], between)), n };
      });
      return pooledShare(start, outcomes).next;
    });
    const target = [50, 200, 1000][i % 3];
    const seeds = seedsToSow({ target, probability: 0.9, stages }).value;
    const share = kinds.reduce((t, mean) => t * lotShare(random, mean, between), 1);
    if (countOf(random, seeds, share) >= target) kept++;
  }
  return { lots, between, n: nurseries, kept: kept / nurseries };
}
