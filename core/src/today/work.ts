import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** Kinds of work an act of Today asks for. */
export const workKinds = [
  'look',
  'count',
  'measure',
  'pull',
  'move',
  'prick',
  'shelter',
  'spread',
  'lid',
  'lift',
  'feed',
  'water',
  'inoculate',
  'sow',
  'sever',
] as const;
export type WorkKind = (typeof workKinds)[number];

/** Minutes a piece of work takes: so many whatever the lot’s size, and so many a tree. */
export interface WorkRate {
  fixedMinutes: number;
  minutesPerTree: number;
}

/** Rough starting rates; the hours written beside acts that were done replace them. */
export const startingRates: Readonly<Record<WorkKind, WorkRate>> = {
  look: { fixedMinutes: 10, minutesPerTree: 0 },
  count: { fixedMinutes: 10, minutesPerTree: 0.01 },
  measure: { fixedMinutes: 20, minutesPerTree: 0 },
  pull: { fixedMinutes: 15, minutesPerTree: 0 },
  move: { fixedMinutes: 20, minutesPerTree: 0.5 },
  prick: { fixedMinutes: 20, minutesPerTree: 0.25 },
  shelter: { fixedMinutes: 15, minutesPerTree: 0.03 },
  spread: { fixedMinutes: 10, minutesPerTree: 0.05 },
  lid: { fixedMinutes: 15, minutesPerTree: 0 },
  lift: { fixedMinutes: 30, minutesPerTree: 0.6 },
  feed: { fixedMinutes: 15, minutesPerTree: 0.01 },
  water: { fixedMinutes: 10, minutesPerTree: 0.002 },
  inoculate: { fixedMinutes: 30, minutesPerTree: 0.01 },
  sow: { fixedMinutes: 30, minutesPerTree: 0.02 },
  sever: { fixedMinutes: 15, minutesPerTree: 0 },
};

/** Time written beside work that was done. */
export interface WorkDone {
  work: WorkKind;
  trees: number;
  minutes: number;
}

/** The starting rate is believed as much as this much recorded work, minutes. */
const STARTING_WEIGHT_MINUTES = 60;

export interface LearntRate extends WorkRate {
  /** What recorded work made of the starting rate: 2 is twice as slow. */
  factor: number;
  /** Times it was recorded, and how far the rate still rests on the starting value, 0–1. */
  times: number;
  startingShare: number;
}

/**
 * The nursery’s own rates: recorded minutes over what the starting rates would have taken, with the starting value
 * weighing as much as an hour of recorded work.
 * @throws Unfit when a time is not above 0
 */
export function workRates(done: readonly WorkDone[]): Record<WorkKind, LearntRate> {
  const rates = {} as Record<WorkKind, LearntRate>;
  for (const work of workKinds) {
    const start = startingRates[work];
    let [taken, expected, times] = [0, 0, 0];
    for (const record of done) {
      if (record.work !== work) continue;
      if (!(record.minutes > 0)) throw new Unfit(say`Work takes a time above 0.`);
      taken += record.minutes;
      expected += start.fixedMinutes + start.minutesPerTree * record.trees;
      times++;
    }
    const factor = (STARTING_WEIGHT_MINUTES + taken) / (STARTING_WEIGHT_MINUTES + expected);
    rates[work] = {
      fixedMinutes: start.fixedMinutes * factor,
      minutesPerTree: start.minutesPerTree * factor,
      factor,
      times,
      startingShare: STARTING_WEIGHT_MINUTES / (STARTING_WEIGHT_MINUTES + expected),
    };
  }
  return rates;
}

/** Minutes a piece of work on so many trees takes. */
export function minutesFor(rate: WorkRate, trees: number): number {
  return rate.fixedMinutes + rate.minutesPerTree * trees;
}
