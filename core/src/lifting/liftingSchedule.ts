import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import { Unfit } from '../working/unfit';

/** Hours of work that a day has for lifting. */
export interface LiftingDay {
  day: EpochDay;
  hours: number;
}

/** A lot to be lifted: its work, and the first and the last day on which it may be. */
export interface LotToLift {
  id: string;
  hours: number;
  from: EpochDay;
  by: EpochDay;
  /** Set by hand: not before this day, and on it before what is not set. */
  moved?: EpochDay;
}

/** In what order lots are lifted. */
export interface LiftingSchedule {
  /** Day each is done; missing where the days do not reach. */
  finishedOn: Record<string, EpochDay>;
  /** Days by which the latest is done too late; below 0 where all are in time, Infinity where one is never done. */
  maxLateness: number;
  /** What is done on which day. */
  blocks: { day: EpochDay; id: string; hours: number }[];
}

/** Hours smaller than this are none. */
const NONE = 1e-9;

/**
 * Lots lifted day by day: of those that may be lifted, the one that must be done first; work may be divided over days. No other
 * order has a smaller greatest lateness (Horn 1974, Naval Research Logistics Quarterly 21:177). Lots moved by hand come first
 * from their day on, as they were set; what that costs is seen beside the order without them.
 * @param days in their order
 * @throws Unfit for work or a day of hours below 0
 */
export function liftingSchedule({
  days,
  lots,
}: {
  days: readonly LiftingDay[];
  lots: readonly LotToLift[];
}): LiftingSchedule {
  if (lots.some(({ hours }) => !(hours >= 0)) || days.some(({ hours }) => !(hours >= 0)))
    throw new Unfit(say`Work and the hours of a day are 0 or more.`);
  const left = lots
    .map((lot) => ({ ...lot, from: Math.max(lot.from, lot.moved ?? -Infinity) }))
    .sort((a, b) => (a.moved ?? Infinity) - (b.moved ?? Infinity) || a.by - b.by || a.from - b.from);
  const finishedOn: Record<string, EpochDay> = {};
  const blocks: LiftingSchedule['blocks'] = [];
  for (const { day, hours } of days) {
    let free = hours;
    for (const lot of left) {
      if (free <= NONE) break;
      if (lot.id in finishedOn || lot.from > day) continue;
      const done = Math.min(free, lot.hours);
      free -= done;
      lot.hours -= done;
      blocks.push({ day, id: lot.id, hours: done });
      if (lot.hours <= NONE) finishedOn[lot.id] = day;
    }
  }
  const lateness = lots.map(({ id, by }) => (finishedOn[id] ?? Infinity) - by);
  return { finishedOn, maxLateness: Math.max(...lateness), blocks };
}
