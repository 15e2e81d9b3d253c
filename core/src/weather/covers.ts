import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, type Worked } from '../working/working';

export const coverKinds = ['shade', 'tunnel', 'glass', 'other'] as const;
export type CoverKind = (typeof coverKinds)[number];

/** How a cover usually changes a day against the open, °C. Rough starting values; a logger under it replaces them. */
export const startingCovers: Readonly<Record<CoverKind, { lowC: number; highC: number }>> = {
  shade: { lowC: 0.5, highC: -1.5 },
  tunnel: { lowC: 1.5, highC: 4 },
  glass: { lowC: 2.5, highC: 5 },
  other: { lowC: 0, highC: 0 },
};

/** A day both in the open and under a cover. */
export interface CoverPair {
  open: { tMinC: number; tMaxC: number };
  under: { tMinC: number; tMaxC: number };
}

/** Fewest days a cover is fitted from. */
export const FEWEST_PAIRS = 14;

export interface CoverFit {
  lowC: number;
  highC: number;
  /** Spread of the single days about it, °C. */
  lowSd: number;
  highSd: number;
  days: number;
}

/**
 * What a cover adds to the lowest and highest of a day: means of the differences between a logger under it and the
 * station in the open.
 * @throws Unfit when fewer than fourteen days were measured in both
 */
export function fitCover(pairs: readonly CoverPair[]): Worked<CoverFit> {
  if (pairs.length < FEWEST_PAIRS)
    throw new Unfit(
      say`${pairs.length} days were measured in both; a cover is fitted from ${FEWEST_PAIRS} or more.`,
    );
  const low = spreadOf(pairs.map((p) => p.under.tMinC - p.open.tMinC));
  const high = spreadOf(pairs.map((p) => p.under.tMaxC - p.open.tMaxC));
  const value = { lowC: low.mean, highC: high.mean, lowSd: low.sd, highSd: high.sd, days: pairs.length };
  const step = (what: string, s: { mean: number; sd: number }) => ({
    what,
    how: say`Mean of ${pairs.length} daily differences; single days spread ${put(s.sd)} °C about it.`,
    result: s.mean,
    unit: '°C',
  });
  return {
    value,
    working: [step(say`Nights under it against the open`, low), step(say`Days under it`, high)],
  };
}

function spreadOf(values: readonly number[]): { mean: number; sd: number } {
  const mean = values.reduce((t, v) => t + v, 0) / values.length;
  const sd = Math.sqrt(values.reduce((t, v) => t + (v - mean) ** 2, 0) / (values.length - 1));
  return { mean, sd };
}
