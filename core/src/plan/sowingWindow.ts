import type { EpochDay } from '../calendar/day';

/** A sowing on a day, and the days on which each of its runs is ready and root-bound; Infinity for never. */
export interface SowingRuns {
  on: EpochDay;
  ready: ArrayLike<number>;
  bound: ArrayLike<number>;
}

/**
 * The two-sided window of sowing for a day on which trees are wanted: earlier than its first day too many would be
 * root-bound by then, later than its last too few would be ready. The two may cross: then no sowing does both.
 * @param readyChance share of runs that must be ready on or before the day
 * @param boundChance share that may be root-bound on or before it
 * @returns null on a side where no sowing will do
 */
export function sowingWindow({
  sowings,
  wantedOn,
  readyChance,
  boundChance,
}: {
  sowings: readonly SowingRuns[];
  wantedOn: EpochDay;
  readyChance: number;
  boundChance: number;
}): { earliest: EpochDay | null; latest: EpochDay | null } {
  let earliest: EpochDay | null = null;
  let latest: EpochDay | null = null;
  for (const { on, ready, bound } of sowings) {
    if (shareBy(bound, wantedOn) <= boundChance + 1e-9 && (earliest === null || on < earliest)) earliest = on;
    if (shareBy(ready, wantedOn) >= readyChance - 1e-9 && (latest === null || on > latest)) latest = on;
  }
  return { earliest, latest };
}

function shareBy(days: ArrayLike<number>, by: EpochDay): number {
  let n = 0;
  for (let i = 0; i < days.length; i++) if (days[i] <= by) n++;
  return days.length ? n / days.length : 0;
}
